import { inPieces, type Pieces } from './in-pieces';
import { isControl, type Field, type MarcRecord, type Subfield } from './record';
import type { Repair } from './repair';

/** Where the text of a field begins in its line; a line that begins with so many blanks goes on with the one before. */
const INDENT = ' '.repeat(7);
const LEADER_LINE = /^LDR(?: {4}|$)/;

/**
 * A record as lines: the leader, then a line a field (`245 10 $aTitle /$cName.`), blank line after. A blank indicator is `#`,
 * a `$` in a text is `$$`, a line break in a text an indented line, so that the record can be read back.
 */
export function lineForm(record: MarcRecord): string {
  return `LDR    ${record.leader}\n${record.fields.map(lineOf).join('\n')}\n\n`;
}

/** One field as a line, as it is copied. */
export function lineOf(f: Field): string {
  const broken = (text: string) => text.replaceAll('\n', `\n${INDENT}`);
  if (isControl(f)) return `${f.tag}    ${broken(f.value)}`;
  const indicators = (f.ind1 + f.ind2).replaceAll(' ', '#');
  return `${f.tag} ${indicators} ${f.subfields.map((s) => `$${s.code}${broken(s.value.replaceAll('$', '$$$$'))}`).join('')}`;
}

/** One record of a text in lines. */
export interface LinesRead {
  readonly record: MarcRecord | null;
  /** Characters before it, and of it. */
  readonly offset: number;
  readonly length: number;
  readonly repairs: readonly Repair[];
}

/** Reads records as lines, fed in pieces. A record ends with a blank line, or where the next leader begins. */
export function linesReader(): Pieces<LinesRead> {
  let lines: string[] = [];
  let [began, length] = [0, 0];
  const close = (found: LinesRead[]) => {
    if (lines.length) found.push(readLines(lines, began, length));
    lines = [];
  };
  return inPieces((text, offset, last, found) => {
    let at = 0;
    for (;;) {
      let end = text.indexOf('\n', at);
      if (end < 0 && (!last || at >= text.length)) break;
      if (end < 0) end = text.length;
      const line = text.slice(at, end).replace(/\r$/, '');
      if (line === '' || LEADER_LINE.test(line)) close(found);
      if (line !== '') {
        if (lines.length === 0) began = offset + at;
        lines.push(line);
        length = offset + end - began;
      }
      at = Math.min(end + 1, text.length);
    }
    if (last) close(found);
    return at;
  });
}

type Tell = (code: Repair['code'], message: string, repaired?: boolean) => void;

/** A leader for fields that came without one: a book, catalogued by ISBD, in Unicode. */
const NO_LEADER = '00000nam a2200000 i 4500';

function readLines(lines: readonly string[], offset: number, length: number): LinesRead {
  const repairs: Repair[] = [];
  const tell: Tell = (code, message, repaired = true) => repairs.push({ code, offset, message, repaired });
  const whole: string[] = [];
  for (const line of lines)
    if (line.startsWith(INDENT) && whole.length) whole[whole.length - 1] += `\n${line.slice(INDENT.length)}`;
    else whole.push(line);
  let leader: string | null = null;
  const fields: Field[] = [];
  for (const line of whole) {
    if (leader === null && LEADER_LINE.test(line)) {
      leader = line.slice(INDENT.length).padEnd(24);
      if (leader.length > 24) tell('leader', `The leader has ${leader.length} of 24 characters; it was cut.`);
      continue;
    }
    const field = readField(line, tell);
    if (field) fields.push(field);
    else tell('unreadable', `“${line.slice(0, 60)}” is not a field and was left out.`, false);
  }
  if (leader === null && fields.length > 0)
    tell('leader', 'The fields came without a leader; they were taken for a book’s.');
  const said = (leader ?? NO_LEADER).slice(0, 24);
  const record = fields.length === 0 ? null : { leader: `${said.slice(0, 9)}a${said.slice(10)}`, fields };
  return { record, offset, length, repairs };
}

/** A field of a line: `001    text`, or tag, indicators (`#` or a blank for blank) and subfields; null when it is none. */
function readField(line: string, tell: Tell): Field | null {
  const parts = /^([0-9A-Za-z]{3}) (..) ?(.*)$/su.exec(line.length < 7 ? line.padEnd(7) : line);
  if (!parts) return null;
  const [, tag, indicators, text] = parts as unknown as [string, string, string, string];
  if (tag.startsWith('00') || (indicators.trim() === '' && !text.includes('$')))
    return { tag, value: line.slice(INDENT.length).normalize('NFC') };
  const [ind1, ind2] = indicators.replaceAll('#', ' ') as unknown as [string, string];
  return { tag, ind1, ind2, subfields: readSubfields(tag, text, tell) };
}

/** `$aText$bMore`; `$$` is a `$` of the text, and so is one at the end. */
function readSubfields(tag: string, text: string, tell: Tell): Subfield[] {
  const said = (part: string) => part.replaceAll('$$', '$').normalize('NFC');
  const before = /^(?:[^$]|\$\$)*/u.exec(text)![0];
  const subfields: Subfield[] = [];
  if (before !== '') {
    tell('no-delimiter', `Field ${tag} had text before its first subfield; it was kept as $a.`);
    subfields.push({ code: 'a', value: said(before) });
  }
  for (const [part] of text.slice(before.length).matchAll(/\$[^$](?:[^$]|\$\$|\$$)*/gsu))
    subfields.push({ code: part[1]!, value: said(part.slice(2)) });
  return subfields;
}
