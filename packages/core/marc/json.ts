import { isControl, type Field, type MarcRecord, type Subfield } from './record';
import type { RepairCode } from './repair';

/** MARC-in-JSON: `{"leader":"…","fields":[{"001":"…"},{"245":{"ind1":"1","ind2":"0","subfields":[{"a":"…"}]}}]}`. */
export function marcJson(record: MarcRecord): string {
  let out = `{"leader":${JSON.stringify(record.leader)},"fields":[`;
  let separator = '';
  for (const f of record.fields) {
    out += separator;
    separator = ',';
    if (isControl(f)) {
      out += `{${jsonText(f.tag)}:${jsonText(f.value)}}`;
      continue;
    }
    out += `{${jsonText(f.tag)}:{"subfields":[`;
    let between = '';
    for (const s of f.subfields) {
      out += `${between}{${jsonText(s.code)}:${jsonText(s.value)}}`;
      between = ',';
    }
    out += `],"ind1":${jsonText(f.ind1)},"ind2":${jsonText(f.ind2)}}}`;
  }
  return out + ']}';
}

/** What JSON must escape; lone surrogates too, so that the output is always well-formed. */
const ESCAPED = /["\\\u0000-\u001f\ud800-\udfff]/;
/** A text as JSON. */
export const jsonText = (text: string): string => (ESCAPED.test(text) ? JSON.stringify(text) : `"${text}"`);

type Told = (code: RepairCode, message: string, repaired?: boolean) => void;

/** Reads one MARC-in-JSON object; null when it is not one. What was mended or cannot be kept is told. */
export function readMarcJson(value: unknown, told: Told = () => undefined): MarcRecord | null {
  if (typeof value !== 'object' || value === null) return null;
  const { leader, fields } = value as { leader?: unknown; fields?: unknown };
  if (typeof leader !== 'string' || !Array.isArray(fields)) return null;
  const read: Field[] = [];
  for (const entry of fields as unknown[]) {
    const named = typeof entry === 'object' && entry !== null ? Object.entries(entry) : [];
    if (named.length === 0) told('unreadable', `${shown(entry)} is not a field and was left out.`, false);
    for (const [tag, content] of named) {
      const f = readEntry(tag, content, told);
      if (f) read.push(f);
      else told('unreadable', `Field ${tag} holds ${shown(content)}, which is not a field.`, false);
    }
  }
  if (leader.length !== 24)
    told('leader', `The leader has ${leader.length} of 24 characters; it was filled up.`);
  const whole = leader.padEnd(24).slice(0, 24);
  return { leader: `${whole.slice(0, 9)}a${whole.slice(10)}`, fields: read };
}

/** A value in a sentence. */
function shown(value: unknown): string {
  const text = JSON.stringify(value);
  return text.length > 60 ? `${text.slice(0, 59)}…` : text;
}

function readEntry(tag: string, content: unknown, told: Told): Field | null {
  if (typeof content === 'string') return { tag, value: content.normalize('NFC') };
  if (typeof content !== 'object' || content === null) return null;
  const { ind1, ind2, subfields } = content as { ind1?: unknown; ind2?: unknown; subfields?: unknown };
  if (!Array.isArray(subfields)) return null;
  const indicator = (given: unknown) => {
    if (typeof given === 'string' && given.length === 1) return given;
    told(
      'indicators',
      `Field ${tag} had ${typeof given === 'string' && given ? `“${given}”` : 'nothing'} for an indicator.`,
    );
    return typeof given === 'string' && given ? given[0]! : ' ';
  };
  return {
    tag,
    ind1: indicator(ind1),
    ind2: indicator(ind2),
    subfields: (subfields as unknown[]).flatMap((s) => readSubfields(tag, s, told)),
  };
}

function readSubfields(tag: string, given: unknown, told: Told): Subfield[] {
  const named = typeof given === 'object' && given !== null ? Object.entries(given) : [];
  if (named.length === 0)
    told('unreadable', `Field ${tag} holds ${shown(given)}, which is not a subfield.`, false);
  return named.flatMap(([code, text]: [string, unknown]) => {
    if (typeof text === 'string') return [{ code, value: text.normalize('NFC') }];
    if (typeof text === 'number' || typeof text === 'boolean') return [{ code, value: String(text) }];
    told('unreadable', `Field ${tag} $${code} holds ${shown(text)}, which is not text.`, false);
    return [];
  });
}
