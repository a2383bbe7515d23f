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

/** Reads one MARC-in-JSON object; null when it is not one. What was mended is told as a sentence. */
export function readMarcJson(
  value: unknown,
  told: (message: string) => void = () => undefined,
): MarcRecord | null {
  if (typeof value !== 'object' || value === null) return null;
  const { leader, fields } = value as { leader?: unknown; fields?: unknown };
  if (typeof leader !== 'string' || !Array.isArray(fields)) return null;
  const read: Field[] = [];
  for (const entry of fields) {
    if (typeof entry !== 'object' || entry === null) return null;
    for (const [tag, content] of Object.entries(entry as Record<string, unknown>)) {
      const f = readEntry(tag, content, told);
      if (!f) return null;
      read.push(f);
    }
  }
  if (leader.length !== 24) told(`The leader has ${leader.length} of 24 characters; it was filled up.`);
  const whole = leader.padEnd(24).slice(0, 24);
  return { leader: `${whole.slice(0, 9)}a${whole.slice(10)}`, fields: read };
}

function readEntry(tag: string, content: unknown, told: (message: string) => void): Field | null {
  if (typeof content === 'string') return { tag, value: content.normalize('NFC') };
  if (typeof content !== 'object' || content === null) return null;
  const { ind1, ind2, subfields } = content as { ind1?: unknown; ind2?: unknown; subfields?: unknown };
  if (!Array.isArray(subfields)) return null;
  const indicator = (given: unknown) => {
    if (typeof given === 'string' && given.length === 1) return given;
    told(
      `Field ${tag} had ${typeof given === 'string' && given ? `“${given}”` : 'nothing'} for an indicator.`,
    );
    return typeof given === 'string' && given ? given[0]! : ' ';
  };
  return {
    tag,
    ind1: indicator(ind1),
    ind2: indicator(ind2),
    subfields: subfields.flatMap((s) =>
      typeof s === 'object' && s !== null
        ? Object.entries(s as Record<string, unknown>).map(([code, text]) => ({
            code,
            value: String(text).normalize('NFC'),
          }))
        : [],
    ),
  };
}
