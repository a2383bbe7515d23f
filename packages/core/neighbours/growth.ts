import { isbns, issns, lccns } from '../access';
import { isBriefRecord, withPosition } from '../editing';
import { materialOf } from '../format';
import type { HouseRules } from '../house';
import {
  controlValue,
  dataFields,
  fieldText,
  first,
  isControl,
  withField,
  type Field,
  type MarcRecord,
} from '../marc';
import { DEFAULT_RULE, describe, replaceRecord, titlesAgree, weigh, type Description } from '../matching';
import type { BookRecord } from './book-list';
import { groupedByWork } from './editions';
import { isSought, readSought, type Sought } from './sought';
import { ratingOf, worthOf, type HouseTaste } from './worth';

/** How a brief record stands: nothing was found for it; a person is to look at what was; what was offered last was refused. */
export const BRIEF_STATES = ['waiting', 'offered', 'refused'] as const;
export type BriefState = (typeof BRIEF_STATES)[number];
/** Days after which one is told as waiting long, where the house says nothing else. */
export const BRIEF_DAYS = 60;

/** What would be typed to find a record: its numbers, and where it has none the words of its title and the surname. */
function allTyped(record: MarcRecord): string[] {
  const numbers = [
    ...isbns(record),
    ...issns(record).map((n) => `issn ${n.slice(0, 4)}-${n.slice(4)}`),
    ...lccns(record).map((n) => `lccn ${n}`),
  ];
  const asked = [...new Set(numbers)].slice(0, MOST_NUMBERS);
  const { main, author } = describe(record);
  const words = [main, author.split(' ')[0] ?? ''].filter(Boolean).join(' / ');
  return asked.length ? asked : [words];
}

/** The first of what would be typed to find a record; '' for one that says nothing of itself. */
export const typedFor = (record: MarcRecord): string => allTyped(record)[0] ?? '';

/** What the neighbours are asked for a record. */
export const soughtFor = (record: MarcRecord): Sought[] => allTyped(record).map(readSought).filter(isSought);
const MOST_NUMBERS = 3;

/** What marks a record of a neighbour, so that one that was refused is known again: its control numbers of 035, else what it says of itself. */
export function sourceMarks(record: MarcRecord): string[] {
  const numbers = systemNumbers(record);
  return numbers.length ? numbers : [described(record)];
}

/** All that a record which was refused, or taken and undone, may be known again by. */
export const refusedMarks = (record: MarcRecord): string[] => [...systemNumbers(record), described(record)];

const systemNumbers = (record: MarcRecord): string[] =>
  dataFields(record, '035').flatMap((f) => first(f, 'a')?.trim() || []);

function described(record: MarcRecord): string {
  const { title, year, publisher } = describe(record);
  return ['described', title, year ?? '', publisher, ...isbns(record)].join('|');
}

/** The full record that was found for a brief one. */
export interface Growth {
  /** Sure: it is put in its place; else a person looks at it first. */
  readonly isSure: boolean;
  readonly best: BookRecord;
  /** What speaks for it, and why a person must look, as a sentence. */
  readonly reason: string;
}

/**
 * The best of the records that were found in place of a brief one; null for none that says more than it. It is sure where number and
 * title agree, nothing speaks against it, all that is found so is one edition, and the checks find no error in it.
 */
export function growthOf(
  brief: MarcRecord,
  found: readonly BookRecord[],
  taste: HouseTaste,
  refused: ReadonlySet<string>,
): Growth | null {
  const ours = describe(brief);
  const has = worthOf(brief).completeness;
  const offered = found
    .filter(({ marc }) => !isBriefRecord(marc) && worthOf(marc).completeness > has)
    .filter(({ marc }) => !sourceMarks(marc).some((m) => refused.has(m)))
    .map((record) => candidateOf(record, ours, taste))
    .filter((c) => c.sharesNumber || c.agrees);
  const sure = offered.filter((c) => c.isSure);
  const [first] = groupedByWork(
    (sure.length ? sure : offered).map(({ description, score }) => ({ description, score })),
  );
  const best = first && (sure.length ? sure : offered)[first.editions[0]!.records[0]!];
  if (!best) return null;
  const why = whyUnsure(best, sure);
  const said = `${best.record.neighbour.name}: ${best.shared}`;
  return { isSure: why === null, best: best.record, reason: why === null ? `${said}.` : `${said}. ${why}` };
}

interface Candidate {
  readonly record: BookRecord;
  readonly description: Description;
  readonly score: number;
  readonly sharesNumber: boolean;
  readonly agrees: boolean;
  readonly isSure: boolean;
  readonly shared: string;
  readonly doubts: readonly string[];
}

function candidateOf(record: BookRecord, ours: Description, taste: HouseTaste): Candidate {
  const { marc, errors, warnings, neighbour } = record;
  const description = describe(marc);
  // A brief record names no edition; that is nothing against one that does.
  const stated = ours.edition === '' ? { ...ours, edition: description.edition } : ours;
  const match = weigh(description, stated, 0, DEFAULT_RULE);
  const numbers = match?.points.filter((p) => p.by !== 'likeness' && p.by !== 'control') ?? [];
  const { score } = ratingOf(
    {
      worth: worthOf(marc),
      material: materialOf(marc.leader),
      ...{ errors, warnings, trust: neighbour.trust, goodFor: neighbour.materials },
    },
    taste,
  );
  const agrees = titlesAgree(description, ours) && surnamesAgree(description, ours);
  return {
    ...{ record, description, score, agrees },
    sharesNumber: numbers.length > 0,
    isSure: numbers.length > 0 && agrees && match!.doubts.length === 0,
    shared: numbers.length ? `the same ${numbers.map((p) => p.said).join(', ')}` : 'the same title',
    doubts: match?.doubts ?? [],
  };
}

/** A brief record may name nobody, or an editor whom the full one has behind others. */
function surnamesAgree(full: Description, brief: Description): boolean {
  const [surname = ''] = brief.author.split(' ');
  return surname === '' || full.author === '' || `${full.author} ${full.others}`.split(' ').includes(surname);
}

function whyUnsure(best: Candidate, sure: readonly Candidate[]): string | null {
  if (sure.length === 0)
    return (
      best.doubts[0] ??
      (best.sharesNumber ? 'Title or name is not the same.' : 'No number says that it is the same edition.')
    );
  const editions = groupedByWork(sure.map(({ description, score }) => ({ description, score }))).flatMap(
    (w) => w.editions,
  ).length;
  if (editions > 1) return `${editions} different things have this number.`;
  const { errors } = best.record;
  if (errors) return `The checks find ${errors === 1 ? 'an error' : `${errors} errors`} in it.`;
  return null;
}

/** Fields that stand for one another: where the full record has one of a family, ours of that family are not kept beside it. */
const FAMILIES: readonly RegExp[] = [/^1..$/, /^26[04]$/, /^24[05]$/];

/**
 * A brief record that gives way to its full one. What is ours stays: the control number, the day it was entered (008/00-05), protected
 * fields, numbers that the full one has not, and fields of which it has none of the kind.
 */
export function grownRecord(brief: MarcRecord, full: MarcRecord, house: HouseRules): MarcRecord {
  const taken = replaceRecord(brief, full, house);
  const entered = controlValue(brief, '008')?.slice(0, 6) ?? '';
  let grown: MarcRecord = {
    ...taken,
    fields: taken.fields.map((f) =>
      f.tag === '008' && isControl(f) && /^\d{6}$/.test(entered)
        ? { ...f, value: withPosition(f.value, { from: 0, to: 6 }, entered) }
        : f,
    ),
  };
  for (const f of brief.fields) if (isKept(f, brief, grown)) grown = withField(grown, f);
  return grown;
}

function isKept(f: Field, brief: MarcRecord, grown: MarcRecord): boolean {
  if (f.tag.startsWith('00')) return false;
  if (f.tag === '020')
    return (
      !sharesOne(isbns({ ...brief, fields: [f] }), isbns(grown)) &&
      !grown.fields.some((g) => fieldText(g) === fieldText(f))
    );
  const family = FAMILIES.find((p) => p.test(f.tag));
  return !grown.fields.some((g) => g.tag === f.tag || family?.test(g.tag));
}

const sharesOne = (a: readonly string[], b: readonly string[]): boolean => a.some((n) => b.includes(n));
