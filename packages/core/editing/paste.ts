import { isControl, type Field, type Subfield } from '../marc';
import { indicatorMeaning } from '../format';

/** Fields read from text that was pasted, and what could not be taken. */
export interface Pasted {
  readonly fields: readonly Field[];
  readonly problems: readonly string[];
}

/** More is no record that anybody pastes. */
const MOST_FIELDS = 2000;
const MOST_TEXT = 99_999;

/** Signs that stand for the subfield delimiter in texts: `$`, a dagger, a bar, the delimiter of ISO 2709 itself. */
const DELIMITER = /[$‡ǂ|\u001f](?=[a-z0-9])/u;
const FIELD_LINE = /^(LDR|\d{3})(?:[ \t]|$)/;

/** Whether a text is one or more fields in lines, and not words that happen to be several. */
export const isFieldLines = (text: string): boolean => FIELD_LINE.test(text.trimStart());

/**
 * Fields written a line each: `245 10 $aTitle /$cName.`, with `#` or a blank for a blank indicator, with or without indicators
 * and subfield codes; what stands before the first code is $a, `$$` is a dollar of the text. A line that begins with no tag
 * goes on with the one before. A leader is left out and said.
 */
export function pastedFields(text: string): Pasted {
  const problems: string[] = [];
  const lines: string[] = [];
  for (const line of text.split(/\r\n|\n|\r/)) {
    if (line.trim() === '') continue;
    if (FIELD_LINE.test(line.trimStart())) lines.push(line.trimStart());
    else if (lines.length) lines[lines.length - 1] += ` ${line.trim()}`;
    else problems.push(`“${line.trim().slice(0, 40)}” does not begin with a tag and was left out.`);
  }
  const fields: Field[] = [];
  for (const line of lines) {
    if (fields.length >= MOST_FIELDS) {
      problems.push(`Only the first ${MOST_FIELDS.toLocaleString('en-GB')} fields were taken.`);
      break;
    }
    const tag = line.slice(0, 3);
    if (tag === 'LDR') {
      problems.push('The leader was left out: change it in the leader of this record.');
      continue;
    }
    const field = readLine(tag, line.slice(3));
    if (isEmptyField(field)) problems.push(`Field ${tag} was pasted without text and left out.`);
    else if (lengthOf(field) > MOST_TEXT)
      problems.push(
        `Field ${tag} is longer than ${MOST_TEXT.toLocaleString('en-GB')} characters and was left out.`,
      );
    else fields.push(field);
  }
  return { fields, problems };
}

/** Whether a field has no text at all. */
export const isEmptyField = (f: Field): boolean =>
  isControl(f) ? f.value === '' : f.subfields.every((s) => s.value.trim() === '');

const lengthOf = (f: Field): number =>
  isControl(f) ? f.value.length : f.subfields.reduce((n, s) => n + s.value.length, 0);

function readLine(tag: string, rest: string): Field {
  if (tag.startsWith('00')) return { tag, value: controlText(rest) };
  const [ind1, ind2, body] = indicatorsOf(tag, rest);
  return { tag, ind1, ind2, subfields: readSubfields(body) };
}

/** The text of a control field: blanks in it count, those between it and the tag do not. */
const controlText = (rest: string): string => rest.replace(/^(?: {4}|[ \t]+)/, '');

/** Indicators where there are any, and what follows them. */
function indicatorsOf(tag: string, rest: string): readonly [string, string, string] {
  const blank = (c: string | undefined) => (c === undefined || c === '#' || c === '_' || c === '·' ? ' ' : c);
  const coded = /^[ \t]([0-9a-z#_· ])([0-9a-z#_· ])[ \t]*(?=[$‡ǂ|\u001f])/u.exec(rest);
  if (coded) return [blank(coded[1]), blank(coded[2]), rest.slice(coded[0].length)];
  const worded = /^[ \t]+([0-9#_·])([0-9#_·])[ \t]+/u.exec(rest);
  if (worded) {
    const both = [blank(worded[1]), blank(worded[2])] as const;
    // Two digits that cannot be indicators of this field are the beginning of its text.
    const areDefined = both.every((c, i) => indicatorMeaning(tag, i === 0 ? 1 : 2, c) !== undefined);
    if (areDefined) return [...both, rest.slice(worded[0].length)];
  }
  return [' ', ' ', rest.trimStart()];
}

function readSubfields(body: string): Subfield[] {
  const KEPT = '\u0000';
  const subfields: Subfield[] = [];
  body
    .replaceAll('$$', KEPT)
    .split(new RegExp(DELIMITER, 'gu'))
    .forEach((part, i) => {
      const code = i === 0 ? 'a' : part[0]!;
      const value = (i === 0 ? part : part.slice(1)).replaceAll(KEPT, '$').normalize('NFC').trim();
      if (value !== '') subfields.push({ code, value });
    });
  return subfields;
}
