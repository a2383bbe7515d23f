/** A year that is known to lie between two years; negative before Christ. */
interface Span {
  readonly from: number;
  readonly to: number;
  /** It is an estimate: ca., approximately, a question mark, a century. */
  readonly isVague: boolean;
  /** Month, and day where it is said, of one year ("mar 3"); '' where neither is. */
  readonly day?: string;
}

/** The dates of a person's heading (X00 $d). */
export interface LifeDates {
  readonly born: Span | null;
  readonly died: Span | null;
  /** When somebody was at work, where that is all that is known. */
  readonly active: Span | null;
}

const MONTHS = /\b(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?(?:\s*\d{1,2}\b)?,?/g;
const MONTH =
  /\b(?:(\d{1,2})\s+)?(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?(?:\s*(\d{1,2})\b)?/;
/** Month and day beside a year: "1880 March 3", "3 Mar. 1880", "March 3, 1880". */
function dayIn(text: string): string {
  const found = MONTH.exec(text);
  return found ? `${found[2]} ${Number(found[1] ?? found[3] ?? 0) || ''}`.trim() : '';
}
/** Whether two days cannot be one: other months, or other days where both say one. */
function isOtherDay(a = '', b = ''): boolean {
  const [m, d] = a.split(' ');
  const [n, e] = b.split(' ');
  return Boolean(m && n && (m !== n || (d && e && d !== e)));
}
const VAGUE = /\b(?:approximately|approx|circa|ca|c|about|abt|before|after|ante|post)\b\.?\s*/g;
const CENTURY = /(\d{1,2})(?:st|nd|rd|th)\s*(?:(?:or|\/|-)\s*(\d{1,2})(?:st|nd|rd|th)\s*)?(?:century|cent)/;

/** One year as it is written: "1871", "1871?", "1871 or 1872", "1871/2", "384". */
function yearIn(text: string, isBefore: boolean): Span | null {
  const plain = text
    .replace(VAGUE, '')
    .replace(MONTHS, ' ')
    .replace(/\b\d{1,2}(?=\s+\d{3,4})/g, ' ');
  const found = /(\d{3,4}|\d{1,2}(?=\s*$))(?:\s*(?:or|\/)\s*(\d{1,4}))?/.exec(plain);
  if (!found) return null;
  const first = Number(found[1]);
  const second = found[2]
    ? Number(found[2].length < found[1]!.length ? found[1]!.slice(0, -found[2].length) + found[2] : found[2])
    : first;
  const isVague = VAGUE.test(text) || text.includes('?');
  VAGUE.lastIndex = 0;
  const [from, to] = isBefore ? [-Math.max(first, second), -Math.min(first, second)] : [first, second];
  return { from: Math.min(from, to), to: Math.max(from, to), isVague, day: dayIn(text) };
}

function centuryIn(text: string): Span | null {
  const found = CENTURY.exec(text);
  if (!found) return null;
  const [first, last] = [Number(found[1]), Number(found[2] ?? found[1])];
  const isBefore = /\bb\.?\s?c\b/.test(text);
  return isBefore
    ? { from: -first * 100, to: -(last - 1) * 100, isVague: true }
    : { from: (first - 1) * 100, to: last * 100, isVague: true };
}

/** As most dates are written: "1946-", "1880-1950". */
const YEARS = /^(\d{3,4})-(\d{3,4})?$/;
const yearAs = (year: string): Span => ({ from: Number(year), to: Number(year), isVague: false });

const ACTIVE = /\b(?:active|flourished|floruit|fl)\b\.?\s*/g;
// "b. c. 1750" is somebody born about that year.
const [BEFORE, AFTER] = [/\bb\.?\s?c\b(?!\.?\s*\d{4})/, /\ba\.?\s?d\b|\bc\.?\s?e\b/];
const withoutEra = (text: string): string =>
  text.replace(/\bb\.?\s?c\b(?!\.?\s*\d{4})\.?(?:\s?e\b\.?)?|\ba\.?\s?d\b\.?|\bc\.?\s?e\b\.?/g, ' ');

/** Reads the dates of a person; null where there are none, or none that can be read. */
export function readLifeDates(written: string): LifeDates | null {
  const text = written
    .toLowerCase()
    .replace(/[.,;:\s]+$/, '')
    .trim();
  if (text === '') return null;
  const years = YEARS.exec(text);
  if (years) return { born: yearAs(years[1]!), died: years[2] ? yearAs(years[2]) : null, active: null };
  const isActive = /\b(?:active|fl|flourished|floruit)\b/.test(text);
  const century = centuryIn(text);
  if (century) return { born: null, died: null, active: century };
  const [left = '', right] = text.replace(ACTIVE, '').split(/\s*[-–]\s*/);
  // "384-322 B.C." says it once of both, "63 B.C.-14 A.D." of each.
  const isBefore = (one: string, other = '') => BEFORE.test(one) || (BEFORE.test(other) && !AFTER.test(one));
  const [first, second] = [
    yearIn(withoutEra(left), isBefore(left, right)),
    right === undefined ? null : yearIn(withoutEra(right), isBefore(right, left)),
  ];
  if (isActive) {
    const from = first ?? second;
    const to = second ?? first;
    return from && to
      ? { born: null, died: null, active: { from: from.from, to: to.to, isVague: true } }
      : null;
  }
  if (right === undefined) {
    if (!first) return null;
    if (/\b(?:d|died)\b/.test(text)) return { born: null, died: first, active: null };
    // "b. 1871", "born 1871", and a single year, which as a rule is that of birth.
    return { born: first, died: null, active: null };
  }
  return first || second ? { born: first, died: second, active: null } : null;
}

/** How the dates of two headings stand to each other. */
export interface DatesCompared {
  readonly conflict: string | null;
  /** How many ends of the life are known of both, and agree; vague ones count half. */
  readonly agreeing: number;
}

/** How far apart two years may be and still be one: a year that is an estimate may be wrong by five. */
const gap = (a: Span, b: Span): number => Math.max(0, a.from - b.to, b.from - a.to);
const slack = (a: Span, b: Span): number => (a.isVague || b.isVague ? 5 : 0);

/** The same years of work speak as a year of a life does, one century written twice as an estimate; times that overlap are near each other. */
function timesAgreeing(a: Span, b: Span): number {
  if (a.from === b.from && a.to === b.to) return a.to - a.from < 100 ? 1 : 0.5;
  return gap(a, b) === 0 ? 0.25 : 0;
}

/** Compares the dates of two headings. Years that conflict are a veto. */
export function compareDates(a: LifeDates | null, b: LifeDates | null): DatesCompared {
  if (!a || !b) return { conflict: null, agreeing: 0 };
  let agreeing = 0;
  for (const [end, says] of [
    ['born', 'the years of birth differ'],
    ['died', 'the years of death differ'],
  ] as const) {
    const [x, y] = [a[end], b[end]];
    if (!x || !y) continue;
    if (gap(x, y) > slack(x, y) || isOtherDay(x.day, y.day)) return { conflict: says, agreeing: 0 };
    agreeing += x.isVague || y.isVague ? 0.5 : 1;
  }
  for (const [x, y] of [
    [a, b],
    [b, a],
  ] as const) {
    if (x.born && y.died && x.born.from > y.died.to + slack(x.born, y.died))
      return { conflict: 'one was born after the other had died', agreeing: 0 };
    if (!x.active) continue;
    if (y.born && x.active.to < y.born.from)
      return { conflict: 'one was at work before the other was born', agreeing: 0 };
    if (y.died && x.active.from > y.died.to + 5)
      return { conflict: 'one was at work after the other had died', agreeing: 0 };
    if (y.born && x.active.from > y.born.to + 100)
      return { conflict: 'they lived at different times', agreeing: 0 };
    if (y.active && gap(x.active, y.active) > 60)
      return { conflict: 'they were at work at different times', agreeing: 0 };
    if (y.active) agreeing = Math.max(agreeing, timesAgreeing(x.active, y.active));
    else if (y.born || y.died) agreeing = Math.max(agreeing, 0.25);
  }
  return { conflict: null, agreeing };
}

/** Whether years of publication can be those of a life: nothing appears before somebody is ten. Null where it is not known. */
export function isPlausible(dates: LifeDates | null, years: readonly number[]): boolean | null {
  const born = dates?.born?.to ?? (dates?.died ? dates.died.from - 100 : null);
  if (born === null || years.length === 0) return null;
  return Math.min(...years) >= born + 10;
}
