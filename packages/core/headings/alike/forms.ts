import { controlValue, dataFields, first, isData, type DataField, type MarcRecord } from '../../marc';
import { fold } from '../../text';
import { headingKey, standingAlone } from '../normal-form';
import { vocabularyOfAuthority, vocabularyOfField } from '../vocabulary';
import { readBody, type Body } from './body';
import { readPerson, type NamedPerson } from './person';
import { readSubject, readTitle, type TitledWork } from './work';

/** What kind of heading a form is. */
export const FORM_TYPES = ['personal', 'corporate', 'meeting', 'title', 'subject'] as const;
export type FormType = (typeof FORM_TYPES)[number];

/** What a form is compared by. */
export type FormParts =
  | { readonly as: 'person'; readonly person: NamedPerson; readonly more: string }
  | { readonly as: 'body'; readonly body: Body; readonly more: string }
  | { readonly as: 'work'; readonly work: TitledWork; readonly by: NamedPerson | Body | null };

/** A heading as it is written in a field, the punctuation behind it left out. */
export interface Form {
  readonly type: FormType;
  readonly vocabulary: string;
  readonly text: string;
  /** Normal form; forms with one key are one heading. */
  readonly key: string;
  readonly parts: FormParts;
}

const isLetter = (code: string) => code >= 'a' && code <= 'z';

/** The subfields of a heading that count, by its tag. */
function ownSubfields(
  f: DataField,
): { type: FormType; own: DataField['subfields']; name: DataField['subfields'] } | null {
  const family = f.tag.slice(1);
  const codes = f.subfields.filter(
    (s) => isLetter(s.code) && !'iuw'.includes(s.code) && s.code !== (family === '11' ? 'j' : 'e'),
  );
  if (/^(48|50|51|55)$/.test(family)) return { type: 'subject', own: codes, name: [] };
  const plain = codes.filter((s) => !'vxyz'.includes(s.code));
  if (family === '30') return { type: 'title', own: plain, name: [] };
  if (!/^(00|10|11)$/.test(family)) return null;
  const at = plain.findIndex((s) => s.code === 't');
  const name = at < 0 ? plain : plain.slice(0, at);
  if (at >= 0) return { type: 'title', own: plain, name };
  const type = family === '00' ? 'personal' : family === '10' ? 'corporate' : 'meeting';
  return { type, own: name, name: [] };
}

const TAKEN = /^(?:[1678](?:00|10|11|30)|6(?:48|50|51|55)|1(?:48|50|51|55))$/;

const IS_WORD = /[\p{L}\p{N}]/u;

/** A form without its text, and the subfields that it is made of, as they stand by themselves. */
function formOf(
  f: DataField,
  vocabulary: string,
): { form: Omit<Form, 'text'>; own: DataField['subfields'] } | null {
  if (!TAKEN.test(f.tag)) return null;
  const found = ownSubfields(f);
  if (!found?.own.some((s) => s.code === 'a')) return null;
  const own = standingAlone(found.own);
  if (!own.some((s) => IS_WORD.test(s.value))) return null;
  const key = headingKey(own.map((s) => (s.code === 'v' ? { ...s, code: 'x' } : s)));
  const parts = partsOf({ ...f, subfields: own }, found.type, found.name);
  return { form: { type: found.type, vocabulary, key, parts }, own };
}

/** The form in a field; null for fields that are not taken, and where there is none. `vocabulary` is given for an authority's. */
export function formIn(f: DataField, vocabulary = vocabularyOfField(f)): Form | null {
  const found = formOf(f, vocabulary);
  if (!found) return null;
  const text = found.own
    .map((s) => s.value)
    .join(' ')
    .replace(/\s+/g, ' ')
    .replace(/[\s,;:/]+$/, '')
    .trim();
  return { ...found.form, text };
}

/** The same without its text. */
export const comparedForm = (f: DataField, vocabulary: string): Omit<Form, 'text'> | null =>
  formOf(f, vocabulary)?.form ?? null;

function partsOf(f: DataField, type: FormType, name: DataField['subfields']): FormParts {
  // What may stand behind a name without being a title of its own ($k Treaties, etc.) tells it apart.
  const more = f.subfields
    .flatMap((s) => ('fhklmoprs'.includes(s.code) ? [`${s.code} ${fold(s.value)}`] : []))
    .join(' ');
  if (type === 'personal') return { as: 'person', person: readPerson(f), more };
  if (type === 'corporate' || type === 'meeting') return { as: 'body', body: readBody(f), more };
  if (type === 'subject') return { as: 'work', work: readSubject(f), by: null };
  const behind = f.subfields.slice(name.length);
  const named = { ...f, subfields: standingAlone(name) };
  const by = name.length === 0 ? null : f.tag.endsWith('00') ? readPerson(named) : readBody(named);
  return { as: 'work', work: readTitle(behind), by };
}

/** What is known of a heading from the records that carry it. */
export interface FormUse {
  /** Distinctive titles, folded. */
  readonly titles: Set<string>;
  /** Other names of the same records, by key. */
  readonly names: Set<string>;
  readonly publishers: Set<string>;
  readonly subjects: Set<string>;
  readonly years: Set<number>;
  /** Headings of the same type in one record, but for those of a record about its author. */
  readonly together: Set<string>;
  /** Forms that a see-from of an authority gives it. */
  readonly seeFroms: Set<string>;
  records: number;
  /** Its authority record stands for several persons of one name (MARC 21 Authority, 008/32 `b`). */
  isUndifferentiated: boolean;
}
/** Nothing is known yet. */
export const emptyUse = (): FormUse => ({
  titles: new Set(),
  names: new Set(),
  publishers: new Set(),
  subjects: new Set(),
  years: new Set(),
  together: new Set(),
  seeFroms: new Set(),
  records: 0,
  isUndifferentiated: false,
});

/** Titles that many works have: they say nothing of who wrote them. */
const GENERIC =
  /^(?:(?:the |a |his |her |selected |collected |complete |new |other )*(?:poems?|poetry|verse|letters?|works?|essays?|plays?|stories|short stories|novels?|speeches|sermons|songs|writings|papers|memoirs?|autobiography|diary|diaries|journals?|lectures|sonnets|fables|reports?|annual report|proceedings|bulletin|catalogue|catalog|laws etc|treaties etc|symphonies|sonatas|string quartets?|correspondence|introduction|notes))(?: (?:and|of|with) (?:poems?|letters?|prose|verse|essays|plays|stories|other writings))*(?: \d+)*$/;
/** Whether a title, folded, tells works apart. */
export const isDistinctive = (title: string): boolean => title.length > 5 && !GENERIC.test(title);

/** The title of a bibliographic record, folded, without its article and its part. */
function titleOf(record: MarcRecord): string {
  const f = dataFields(record, '245')[0];
  if (!f) return '';
  const skip = Number(f.ind2) || 0;
  return fold([(first(f, 'a') ?? '').slice(skip), first(f, 'b') ?? ''].join(' '));
}

function yearsOf(record: MarcRecord): number[] {
  const fixed = record.fields.find((f) => f.tag === '008');
  const written = fixed && !isData(fixed) ? fixed.value.slice(7, 11) : '';
  const year = /^[12]\d{3}$/.test(written)
    ? written
    : ['264', '260']
        .flatMap((t) => dataFields(record, t).map((f) => first(f, 'c') ?? ''))
        .map((c) => /[12]\d{3}/.exec(c)?.[0])
        .find(Boolean);
  return year ? [Number(year)] : [];
}

const isAuthority = (record: MarcRecord) => record.leader[6] === 'z';

/** What is gathered from records: forms in the order in which they come, and what is known of each heading. */
export interface Gathered {
  /** By type, vocabulary and key: the forms written so, each text once. */
  readonly headings: Map<string, { readonly forms: Map<string, Form>; readonly use: FormUse }>;
}

/** The name under which a heading is gathered. */
export const headingName = (f: Pick<Form, 'type' | 'vocabulary' | 'key'>): string =>
  `${f.type} ${f.vocabulary} ${f.key}`;

/** Gathers the headings of a record. `isEvidence`: it only says more of headings that are there. */
export function gather(into: Gathered, record: MarcRecord, isEvidence = false): void {
  const at = (form: Form) => {
    const name = headingName(form);
    let found = into.headings.get(name);
    if (!found && !isEvidence) into.headings.set(name, (found = { forms: new Map(), use: emptyUse() }));
    if (found && !isEvidence && !found.forms.has(textKey(form.text)))
      found.forms.set(textKey(form.text), form);
    return found?.use;
  };
  if (isAuthority(record)) return gatherAuthority(record, at);
  const carried = record.fields.flatMap((f) => {
    const form = isData(f) && TAKEN.test(f.tag) ? formIn(f) : null;
    return form && isData(f) ? [{ form, f }] : [];
  });
  const title = titleOf(record);
  const years = yearsOf(record);
  const publishers = ['260', '264']
    .flatMap((t) => dataFields(record, t).map((f) => fold(first(f, 'b') ?? '')))
    .filter(Boolean);
  const subjects = carried.filter((c) => c.form.type === 'subject').map((c) => c.form.key);
  for (const { form, f } of carried) {
    const use = at(form);
    if (!use) continue;
    use.records++;
    const isAbout = f.tag[0] === '6';
    if (!isAbout && title && isDistinctive(title)) use.titles.add(title);
    if (!isAbout) for (const y of years) use.years.add(y);
    for (const p of publishers) use.publishers.add(p);
    for (const s of subjects) if (s !== form.key) use.subjects.add(s);
    for (const other of carried) {
      if (
        other.form.type === form.type &&
        other.form.key !== form.key &&
        (other.f.tag[0] === '6') === isAbout &&
        form.type !== 'subject'
      )
        use.together.add(other.form.key);
      if (other.form.type === 'personal' && other.form.key !== form.key && other.f.tag[0] !== '6')
        use.names.add(other.form.key);
    }
  }
}

/** Texts that are not told apart: composed and decomposed letters, runs of blanks, closing marks. */
const textKey = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/\s+/g, ' ')
    .replace(/[\s.,;:/]+$/, '');

/** Kinds of authority records that are no established heading: references, subdivisions, node labels (008/09). */
const NO_HEADING = 'bcdeg';

function gatherAuthority(record: MarcRecord, at: (form: Form) => FormUse | undefined): void {
  const fixed = controlValue(record, '008') ?? '';
  if (NO_HEADING.includes(fixed[9] ?? ' ')) return;
  const vocabulary = vocabularyOfAuthority(record);
  const heading = record.fields.find((f): f is DataField => isData(f) && TAKEN.test(f.tag));
  const form = heading && formIn(heading, vocabulary);
  const use = form && at(form);
  if (!use) return;
  if (fixed[32] === 'b') use.isUndifferentiated = true;
  for (const f of record.fields) {
    if (!isData(f)) continue;
    if (f.tag[0] === '4') {
      const from = formIn({ ...f, tag: `1${f.tag.slice(1)}` }, vocabulary);
      if (from) use.seeFroms.add(from.key);
    }
    // A source names a work by it: "His Tools, 1948: t.p. (A. Reedman)".
    if (f.tag === '670') {
      const cited = fold(
        (first(f, 'a') ?? '')
          .replace(/^(?:his|her|their|its|nuc\S*)\s+/i, '')
          .replace(/,?\s*(?:c|©|p)?\d{4}.*$/, ''),
      );
      if (isDistinctive(cited)) use.titles.add(cited);
    }
  }
}
