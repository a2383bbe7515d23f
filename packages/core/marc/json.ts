import { isControl, type Field, type MarcRecord } from './record';

/** MARC-in-JSON: `{"leader":"…","fields":[{"001":"…"},{"245":{"ind1":"1","ind2":"0","subfields":[{"a":"…"}]}}]}`. */
export function marcJson(record: MarcRecord): string {
  let out = `{"leader":${JSON.stringify(record.leader)},"fields":[`;
  let separator = '';
  for (const f of record.fields) {
    out += separator;
    separator = ',';
    if (isControl(f)) {
      out += `{${quote(f.tag)}:${quote(f.value)}}`;
      continue;
    }
    out += `{${quote(f.tag)}:{"subfields":[`;
    let between = '';
    for (const s of f.subfields) {
      out += `${between}{${quote(s.code)}:${quote(s.value)}}`;
      between = ',';
    }
    out += `],"ind1":${quote(f.ind1)},"ind2":${quote(f.ind2)}}}`;
  }
  return out + ']}';
}

/** What JSON must escape; lone surrogates too, so that the output is always well-formed. */
const ESCAPED = /["\\\u0000-\u001f\ud800-\udfff]/;
const quote = (text: string) => (ESCAPED.test(text) ? JSON.stringify(text) : `"${text}"`);

/** Reads one MARC-in-JSON object; null when it is not one. */
export function readMarcJson(value: unknown): MarcRecord | null {
  if (typeof value !== 'object' || value === null) return null;
  const { leader, fields } = value as { leader?: unknown; fields?: unknown };
  if (typeof leader !== 'string' || !Array.isArray(fields)) return null;
  const read: Field[] = [];
  for (const entry of fields) {
    if (typeof entry !== 'object' || entry === null) return null;
    for (const [tag, content] of Object.entries(entry as Record<string, unknown>)) {
      const f = readEntry(tag, content);
      if (!f) return null;
      read.push(f);
    }
  }
  return { leader: leader.padEnd(24).slice(0, 24), fields: read };
}

function readEntry(tag: string, content: unknown): Field | null {
  if (typeof content === 'string') return { tag, value: content.normalize('NFC') };
  if (typeof content !== 'object' || content === null) return null;
  const { ind1, ind2, subfields } = content as { ind1?: unknown; ind2?: unknown; subfields?: unknown };
  if (!Array.isArray(subfields)) return null;
  return {
    tag,
    ind1: typeof ind1 === 'string' && ind1 ? ind1[0]! : ' ',
    ind2: typeof ind2 === 'string' && ind2 ? ind2[0]! : ' ',
    subfields: subfields.flatMap((s) =>
      Object.entries(s as Record<string, unknown>).map(([code, text]) => ({
        code,
        value: String(text).normalize('NFC'),
      })),
    ),
  };
}
