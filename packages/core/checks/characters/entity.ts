import { ALL_FORMATS, safe, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

/** Entities that come over from web pages (HTML, character entity references), with the XML ones. */
const NAMED: Record<string, string> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: '\u00a0',
  eacute: 'é',
  egrave: 'è',
  ecirc: 'ê',
  agrave: 'à',
  aacute: 'á',
  acirc: 'â',
  auml: 'ä',
  ouml: 'ö',
  uuml: 'ü',
  Auml: 'Ä',
  Ouml: 'Ö',
  Uuml: 'Ü',
  szlig: 'ß',
  ccedil: 'ç',
  ntilde: 'ñ',
  oacute: 'ó',
  iacute: 'í',
  uacute: 'ú',
  oslash: 'ø',
  aring: 'å',
  aelig: 'æ',
  ndash: '–',
  mdash: '—',
  hellip: '…',
  lsquo: '‘',
  rsquo: '’',
  ldquo: '“',
  rdquo: '”',
  copy: '©',
};
const ENTITY = /&(?:#(\d{2,6})|#x([0-9A-Fa-f]{2,6})|([A-Za-z]{2,8}));/g;

export const entity: Check = {
  rule: 'entity',
  title: 'Undecoded character entity',
  group: 'Characters',
  source: 'HTML, character references; MARC 21 Specifications: Character Sets, part 4',
  formats: ALL_FORMATS,
  each: true,
  run({ data, text }, tell) {
    if (!text.includes('&')) return;
    for (const p of data)
      for (const { code, value, i } of subfieldsOf(p)) {
        if (code === 'u' || !value.includes('&')) continue;
        const found = [...value.matchAll(ENTITY)].find((m) => resolved(m) !== null);
        if (!found) continue;
        const corrected = value.replace(ENTITY, (...m: string[]) => resolved(m) ?? m[0]!).normalize('NFC');
        tell({
          severity: 'warning',
          where: inSubfield(p, i, found.index, found.index + found[0].length),
          message: `“${found[0]}” stands for “${resolved(found)}”.`,
          fix: safe(`Write “${resolved(found)}”`, setText(p, i, corrected)),
        });
      }
  },
};

function resolved([, decimal, hexadecimal, name]: readonly (string | undefined)[]): string | null {
  if (name) return NAMED[name] ?? null;
  const code = decimal ? Number(decimal) : parseInt(hexadecimal ?? '', 16);
  const isText =
    code >= 0x20 && code <= 0x10ffff && !(code >= 0x7f && code < 0xa0) && !(code >= 0xd800 && code < 0xe000);
  return isText ? String.fromCodePoint(code) : null;
}
