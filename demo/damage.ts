import { windows1252Character } from '@osier/core/text';
import { encodeUtf8, writeIso2709, type MarcRecord } from '@osier/core/marc';

/** Ways in which a supplier's ISO 2709 goes wrong, done to one record's bytes. */

export const join = (...parts: readonly Uint8Array[]): Uint8Array => {
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    all.set(p, at);
    at += p.length;
  }
  return all;
};

const ascii = (bytes: Uint8Array, at: number, text: string): Uint8Array => {
  const copy = bytes.slice();
  for (let i = 0; i < text.length; i++) copy[at + i] = text.charCodeAt(i);
  return copy;
};

export const wrongLength = (r: MarcRecord): Uint8Array => ascii(writeIso2709(r), 0, '00312');
export const wrongBase = (r: MarcRecord): Uint8Array => ascii(writeIso2709(r), 12, '00099');
export const wrongDirectory = (r: MarcRecord): Uint8Array => ascii(writeIso2709(r), 24 + 12 + 7, '00002');
export const withoutTerminator = (r: MarcRecord): Uint8Array => writeIso2709(r).slice(0, -1);
export const withLineEnd = (r: MarcRecord): Uint8Array => join(writeIso2709(r), encodeUtf8('\r\n'));

/** The record as a system before Unicode wrote it: MARC-8, leader/09 blank. */
export function inMarc8(r: MarcRecord): Uint8Array {
  return writeIso2709(r, 'marc8');
}

/** Windows-1252 bytes under a leader that says UTF-8. */
export function inLatin1(r: MarcRecord): Uint8Array {
  return recoded(
    r,
    (text) => Uint8Array.from(text, (c) => (c.charCodeAt(0) <= 0xff ? c.charCodeAt(0) : 0x3f)),
    'a',
  );
}

/** Text encoded twice. */
export function twiceEncoded(r: MarcRecord): MarcRecord {
  const twice = (text: string) => Array.from(encodeUtf8(text), windows1252Character).join('');
  return {
    ...r,
    fields: r.fields.map((f) =>
      'value' in f ? f : { ...f, subfields: f.subfields.map((s) => ({ ...s, value: twice(s.value) })) },
    ),
  };
}

function recoded(r: MarcRecord, encode: (text: string) => Uint8Array, charset: string): Uint8Array {
  const parts: Uint8Array[] = [];
  let directory = '';
  let at = 0;
  for (const f of r.fields) {
    const body =
      'value' in f
        ? encode(f.value)
        : join(
            encodeUtf8(f.ind1 + f.ind2),
            ...f.subfields.map((s) => join(Uint8Array.from([0x1f]), encodeUtf8(s.code), encode(s.value))),
          );
    const bytes = join(body, Uint8Array.from([0x1e]));
    directory += f.tag + String(bytes.length).padStart(4, '0') + String(at).padStart(5, '0');
    at += bytes.length;
    parts.push(bytes);
  }
  const base = 25 + directory.length;
  const leader = `${String(base + at + 1).padStart(5, '0')}${r.leader.slice(5, 9)}${charset}22${String(base).padStart(5, '0')}${r.leader.slice(17, 20)}4500`;
  return join(encodeUtf8(leader + directory), Uint8Array.from([0x1e]), ...parts, Uint8Array.from([0x1d]));
}
