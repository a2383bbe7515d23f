import { field, isControl, placeFor, withField, type DataField, type Field, type MarcRecord } from '../marc';
import { emptyFixedField, withPosition } from './fixed-field';

/** How much a field of a starter is wanted; one that is given stands there from the beginning, such as 336. */
export type Wanted = 'required' | 'usual' | 'possible' | 'given';

/** A field that a starter asks for, in the order in which it is asked for. */
export interface StarterField {
  readonly tag: string;
  readonly ind1: string;
  readonly ind2: string;
  /** Codes in their order with text that stands there already, often none. */
  readonly subfields: readonly { readonly code: string; readonly value: string }[];
  readonly wanted: Wanted;
  /** What goes in it, where the name of the field does not say it. */
  readonly prompt: string;
}

/** A prepared beginning for a kind of record. */
export interface Starter {
  readonly name: string;
  readonly leader: string;
  /** 008/18-34; positions that are not given are as in an empty 008 of the material. */
  readonly fixed: string;
  /** The first character of each 007 and 006 that belongs to it, with what follows: `vd` for a videodisc. */
  readonly physical: readonly string[];
  readonly fields: readonly StarterField[];
}

const isGiven = ({ wanted }: StarterField): boolean => wanted === 'given';

/** A field as it is opened to be filled in. */
export const fieldToFill = ({ tag, ind1, ind2, subfields }: StarterField): DataField => ({
  tag,
  ind1,
  ind2,
  subfields,
});

/** The record that a starter begins: leader, 007, 008 and what stands from the beginning. `day` is today, ISO. */
export function begunRecord(starter: Starter, day: string, language: string): MarcRecord {
  const { leader, fixed, physical, fields } = starter;
  const control: Field[] = physical.map((value) => ({
    tag: '007',
    value: value + emptyFixedField('007', leader, value[0]).slice(value.length),
  }));
  let of008 = emptyFixedField('008', leader);
  const put = (from: number, text: string) => {
    of008 = withPosition(of008, { from, to: from + text.length }, text);
  };
  put(0, day.replaceAll('-', '').slice(2));
  put(6, 's        xx ');
  put(18, fixed);
  put(35, language.padEnd(3).slice(0, 3));
  put(39, 'd');
  return fields.filter(isGiven).reduce((record, f) => withField(record, fieldToFill(f)), {
    leader,
    fields: [...control, { tag: '008', value: of008 }],
  } as MarcRecord);
}

/** A field of a starter that a record has not got yet, and where it will stand. */
export interface Prompt {
  readonly at: number;
  readonly asked: StarterField;
}

/** What of a starter is still to be filled in, in the order of the record; a tag that it asks for twice, with other indicators, is asked for twice. */
export function promptsOf(starter: Starter, record: MarcRecord): Prompt[] {
  const there = [...record.fields];
  const prompts = starter.fields.flatMap((asked): Prompt[] => {
    if (isGiven(asked)) return [];
    const at = there.findIndex((f) => f.tag === asked.tag);
    if (at < 0) return [{ at: placeFor(record, asked.tag), asked }];
    there.splice(at, 1);
    return [];
  });
  // Fields without a place yet stand in the order of their tags.
  return prompts.sort((a, b) => a.at - b.at || (a.asked.tag < b.asked.tag ? -1 : 1));
}

/** What a record lacks of a starter's required fields, by tag. */
export const lackingOf = (starter: Starter, record: MarcRecord): string[] =>
  promptsOf(starter, record).flatMap(({ asked }) => (asked.wanted === 'required' ? [asked.tag] : []));

/** Fields that are one thing's alone: numbers, and what is tied to the shelf. */
const OWN = /^(00[135]|01[0-8]|02[0-9]|03[0-7]|066|85[0-9]|86[0-8]|87[6-8]|9..)$/;

/** A new record like another one: without its numbers, links, holdings and local fields; 008 as of today. */
export function recordLike(record: MarcRecord, day: string): MarcRecord {
  const dated = day.replaceAll('-', '').slice(2);
  return {
    leader: `${record.leader.slice(0, 5)}n${record.leader.slice(6)}`,
    fields: record.fields
      .filter((f) => !OWN.test(f.tag))
      .map((f) => (f.tag === '008' && isControl(f) ? { ...f, value: dated + f.value.slice(6) } : f)),
  };
}

/**
 * Reads a starter's field written on a line: `100 1# $a $e author. * Name as in the headings`. Behind the codes `!` says that it is
 * required, `*` usual, `?` possible; without such a mark it is given as it stands, if each code has a text.
 */
export function starterField(line: string): StarterField | null {
  const parts = /^(\d{3}) ([0-9a-z#])([0-9a-z#])((?: ?\$[a-z0-9][^$!*?]*)+)(?:([!*?])\s*)?(.*)$/.exec(
    line.trim(),
  );
  if (!parts || line.startsWith('00')) return null;
  const [, tag, one, two, codes, mark, prompt] = parts;
  const subfields = [...codes!.matchAll(/\$([a-z0-9])([^$]*)/g)].map(([, code, value]) => ({
    code: code!,
    value: value!.trim(),
  }));
  const blank = (c: string) => (c === '#' ? ' ' : c);
  return {
    ...field(tag!, `${blank(one!)}${blank(two!)}`),
    subfields,
    wanted: WANTED[mark ?? ''] ?? (subfields.every((s) => s.value !== '') ? 'given' : 'possible'),
    prompt: prompt!.trim(),
  };
}

const WANTED: Readonly<Record<string, Wanted>> = { '!': 'required', '*': 'usual', '?': 'possible' };

/** A starter's field as it is written on a line. */
export function starterLine({ tag, ind1, ind2, subfields, wanted, prompt }: StarterField): string {
  const codes = subfields.map((s) => `$${s.code}${s.value ? ` ${s.value}` : ''}`).join(' ');
  const mark = Object.keys(WANTED).find((m) => WANTED[m] === wanted);
  return `${tag} ${(ind1 + ind2).replaceAll(' ', '#')} ${codes}${mark ? ` ${mark}` : ''}${prompt ? ` ${prompt}` : ''}`;
}
