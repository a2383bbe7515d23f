import { codeName } from '../format';
import type { HouseRules } from '../house';
import { dataFields, firstValue, isData, type MarcRecord } from '../marc';
import { encodingLevel, recordDate } from './level';

/** What a cataloguer weighs in a record of another library. */
export interface Worth {
  /** From 0 to 100: how much of what a full record has is there. */
  readonly completeness: number;
  /** What a full record has and this one lacks, by name. */
  readonly lacks: readonly string[];
  /** Encoding level (leader/17) in words. */
  readonly level: string;
  /** MARC code of the language of cataloguing (040 $b); '' where it is not said. */
  readonly cataloguedIn: string;
  readonly subjects: number;
  /** Class numbers by scheme: `082 746.41`. */
  readonly classes: readonly string[];
  readonly hasSummary: boolean;
  /** Of its last change (005), else of its making (008), as an ISO date; '' where it is not said. */
  readonly date: string;
}

/** What a full record has, what each thing is called, and what it weighs (the weights are ours). */
const PARTS: readonly (readonly [name: string, weight: number, has: (record: MarcRecord) => boolean])[] = [
  ['main entry or added name', 10, (r) => r.fields.some((f) => /^[17](00|10|11|30)$/.test(f.tag))],
  ['statement of responsibility', 6, (r) => firstValue(r, '245', 'c') !== undefined],
  ['publisher', 8, (r) => (firstValue(r, '264', 'b') ?? firstValue(r, '260', 'b')) !== undefined],
  ['year of publication', 8, (r) => (firstValue(r, '264', 'c') ?? firstValue(r, '260', 'c')) !== undefined],
  ['extent', 10, (r) => firstValue(r, '300', 'a') !== undefined],
  ['size', 5, (r) => firstValue(r, '300', 'c') !== undefined],
  [
    'content, media and carrier types',
    5,
    (r) => ['336', '337', '338'].every((tag) => dataFields(r, tag).length > 0),
  ],
  ['standard number', 8, (r) => dataFields(r, /^02[024]$/).length > 0],
  ['class number', 12, (r) => dataFields(r, /^0[5-8][0-4]$/).length > 0],
  ['subject headings', 14, (r) => dataFields(r, /^6[0-5]\d$/).length > 0],
  ['summary', 6, (r) => dataFields(r, '520').length > 0],
  ['contents or bibliography note', 3, (r) => dataFields(r, /^50[45]$/).length > 0],
  ['source of cataloguing', 5, (r) => dataFields(r, '040').length > 0],
];
const WHOLE = PARTS.reduce((n, [, weight]) => n + weight, 0);

/** What there is to weigh in a record. */
export function worthOf(record: MarcRecord): Worth {
  const lacking = PARTS.filter(([, , has]) => !has(record));
  const lost = lacking.reduce((n, [, weight]) => n + weight, 0);
  return {
    completeness: Math.round((100 * (WHOLE - lost)) / WHOLE),
    lacks: lacking.map(([name]) => name),
    level: encodingLevel(record.leader),
    cataloguedIn: firstValue(record, '040', 'b') ?? '',
    subjects: dataFields(record, /^6[0-5]\d$/).length,
    classes: record.fields
      .filter(isData)
      .filter((f) => f.tag === '082' || f.tag === '050' || f.tag === '080' || f.tag === '084')
      .flatMap((f) => f.subfields.filter((s) => s.code === 'a').map((s) => `${f.tag} ${s.value}`)),
    hasSummary: dataFields(record, '520').length > 0,
    date: recordDate(record),
  };
}

/** A record that was found, with what it is weighed by. */
export interface Weighed {
  readonly worth: Worth;
  readonly material: string;
  readonly errors: number;
  readonly warnings: number;
  /** Of its neighbour. */
  readonly trust: number;
  readonly goodFor: readonly string[];
}

/** What the weighing of this house goes by. */
export interface HouseTaste {
  /** MARC code of the language that is catalogued in here. */
  readonly language: string;
  /** Tag of the class numbers that are used here: 082 or 050. */
  readonly classTag: string;
}

/** What a house weighs by: class numbers of the scheme of its first rule for call numbers, else Dewey's (MARC 21, 050 and 082). */
export const tasteOf = ({
  callNumbers,
  cataloguingLanguage,
}: Pick<HouseRules, 'callNumbers' | 'cataloguingLanguage'>): HouseTaste => ({
  language: cataloguingLanguage ?? 'eng',
  classTag: callNumbers[0]?.scheme === 'lc' ? '050' : '082',
});

/** How a record is rated, and why, the weightiest reason first. */
export interface Rating {
  readonly score: number;
  readonly reasons: readonly string[];
  readonly doubts: readonly string[];
}

/** Rates a record from 0 upwards; the weights are ours, and each that counted is said. */
export function ratingOf(found: Weighed, taste: HouseTaste): Rating {
  const { worth } = found;
  const counted: [score: number, said: string][] = [];
  const add = (score: number, said: string) => counted.push([score, said]);
  add(worth.completeness / 2, `${worth.completeness} % complete`);
  if (worth.level === 'full level' || worth.level === 'full level, material not examined')
    add(15, worth.level);
  else if (worth.level !== '') add(-15, worth.level);
  if (worth.cataloguedIn === taste.language) add(10, `catalogued in ${languageName(taste.language)}`);
  else if (worth.cataloguedIn !== '') add(-20, `catalogued in ${languageName(worth.cataloguedIn)}`);
  if (worth.classes.some((c) => c.startsWith(taste.classTag))) add(10, 'has a class number in our scheme');
  if (worth.subjects)
    add(
      Math.min(worth.subjects, 4) * 2,
      `${worth.subjects} subject ${worth.subjects === 1 ? 'heading' : 'headings'}`,
    );
  if (found.errors)
    add(
      -4 * Math.min(found.errors, 5),
      `${found.errors} ${found.errors === 1 ? 'error' : 'errors'} found by the checks`,
    );
  if (found.warnings)
    add(-Math.min(found.warnings, 8), `${found.warnings} ${found.warnings === 1 ? 'warning' : 'warnings'}`);
  add((found.trust - 3) * 5, found.trust > 3 ? 'a source held to be good' : 'a source held to be poor');
  if (found.goodFor.length && !found.goodFor.includes(found.material))
    add(-10, `its source is not good for ${found.material.toLowerCase()}`);
  const bySize = counted.filter(([n]) => n !== 0).sort((a, b) => Math.abs(b[0]) - Math.abs(a[0]));
  return {
    score: Math.max(0, Math.round(counted.reduce((n, [s]) => n + s, 0))),
    reasons: bySize.filter(([n]) => n > 0).map(([, said]) => said),
    doubts: bySize.filter(([n]) => n < 0).map(([, said]) => said),
  };
}

const languageName = (code: string): string => codeName('languages', code) ?? code;
