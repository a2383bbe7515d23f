import type { Copy } from './objects';

/** What the loans desk counted of one copy: how often it was lent, and when last. */
export interface LoanFigure {
  /** As the file has it. */
  readonly barcode: string;
  readonly loans: number;
  /** ISO date; '' where it was never lent, or the file has no such column. */
  readonly lastLoan: string;
}

/** A line that could not be taken, and why. */
export interface UntakenLine {
  /** Counted from 1, the heads with them. */
  readonly line: number;
  readonly problem: string;
}

/** The figures of a table, or why there are none, as a sentence. */
export type LoanFigures =
  | {
      readonly figures: readonly LoanFigure[];
      readonly untaken: readonly UntakenLine[];
      readonly hasDays: boolean;
    }
  | { readonly problem: string };

/** How the columns may be headed (common practice, no source). */
const HEADED = {
  barcode: /^(?:item |copy )?(?:bar ?code|id|number)$/,
  loans:
    /^(?:(?:total |number of |no\.? of )?(?:loans|issues|check ?outs|circulations?|uses|charges)|(?:loan|issue|check ?out|use) count|times (?:lent|used|borrowed))$/,
  lastLoan:
    /^(?:(?:date )?last (?:loan|lent|issued?|check(?:ed)? ?out|borrowed|used?|charged?|circulation)(?: (?:date|day|on))?|date of last (?:loan|issue|check ?out|use))$/,
} as const;
type Part = keyof typeof HEADED;
const PARTS: readonly Part[] = ['barcode', 'loans', 'lastLoan'];

const WANTED = 'A table with a head line is expected: Barcode, Loans and, where it is known, Last loan.';
/** More loans than this are no number of loans. */
const MOST_LOANS = 999_999;

const headOf = (cell: string): string =>
  cell
    .toLowerCase()
    .replace(/[_\s-]+/g, ' ')
    .trim();

/**
 * Reads a table of loan figures: which column is which says its first line. Days are ISO dates, or with day and month in the one order in
 * which all of the file can be read; where both can, the file is refused, since nobody could tell. `on` is today: what was lent later was not.
 * A barcode that comes again is not taken again.
 */
export function loanFigures(rows: readonly (readonly string[])[], on: string): LoanFigures {
  const first = rows.findIndex((r) => r.some((c) => c.trim() !== ''));
  const heads = (rows[first] ?? []).map(headOf);
  const at = Object.fromEntries(PARTS.map((p) => [p, heads.findIndex((h) => HEADED[p].test(h))])) as Record<
    Part,
    number
  >;
  if (at.barcode < 0) return { problem: `There is no column of barcodes. ${WANTED}` };
  if (at.loans < 0) return { problem: `There is no column that says how often copies were lent. ${WANTED}` };
  const cell = (row: readonly string[], part: Part) => (at[part] < 0 ? '' : (row[at[part]] ?? '').trim());
  const body = rows.slice(first + 1);
  const order = orderOfDays(body.map((r) => cell(r, 'lastLoan')));
  if (order === null)
    return {
      problem: 'Day and month cannot be told apart in the column of last loans. Write days as 2026-11-30.',
    };
  const figures: LoanFigure[] = [];
  const untaken: UntakenLine[] = [];
  const seen = new Set<string>();
  body.forEach((row, i) => {
    if (row.every((c) => c.trim() === '')) return;
    const read = figureOf(cell(row, 'barcode'), cell(row, 'loans'), cell(row, 'lastLoan'), order);
    const problem = typeof read === 'string' ? read : problemOf(read, on, seen);
    if (problem !== null) untaken.push({ line: first + i + 2, problem });
    if (typeof read === 'string' || problem !== null) return;
    seen.add(read.barcode);
    figures.push(read);
  });
  if (figures.length === 0)
    return {
      problem: untaken[0]
        ? `No line could be read: ${untaken[0].problem}`
        : `The table has no lines. ${WANTED}`,
    };
  return { figures, untaken, hasDays: at.lastLoan >= 0 };
}

/** A line as figures, or what is wrong with it. */
function figureOf(barcode: string, count: string, day: string, order: DayOrder): LoanFigure | string {
  if (barcode === '') return 'It has no barcode.';
  const plain = count.replace(/^(\d{1,3})(?:[, ](\d{3}))$/, '$1$2');
  const loans = count === '' && day === '' ? 0 : /^\d+$/.test(plain) ? Number(plain) : NaN;
  if (!(loans <= MOST_LOANS)) return `“${count.slice(0, 30)}” is no number of loans.`;
  const lastLoan = day === '' ? '' : dayOf(day, order);
  if (lastLoan === null) return `“${day.slice(0, 30)}” is no day.`;
  return { barcode, loans, lastLoan };
}

/** What is wrong with figures that were read; null for nothing. */
function problemOf({ barcode, lastLoan }: LoanFigure, on: string, seen: ReadonlySet<string>): string | null {
  if (lastLoan > on) return `${lastLoan} is a day to come.`;
  return seen.has(barcode) ? `${barcode} stands further up already.` : null;
}

/** The order of day and month in days that do not begin with the year. */
type DayOrder = 'day first' | 'month first';
const BY_YEAR = /^(\d{4})[-./]?(\d\d)[-./]?(\d\d)(?:[T ].*)?$/;
const BY_DAY = /^(\d{1,2})[-./](\d{1,2})[-./](\d{4})(?: .*)?$/;

/** In which order all days can be read; null where both can and they are not the same days. */
function orderOfDays(days: readonly string[]): DayOrder | null {
  const short = days.map((d) => BY_DAY.exec(d)).filter((m) => m !== null);
  const orders = (['day first', 'month first'] as const).filter((order) =>
    short.every((m) => dayOf(m[0], order) !== null),
  );
  const isSure = short.every((m) => m[1]!.padStart(2, '0') === m[2]!.padStart(2, '0') || m[0].includes('.'));
  // With points between, the day comes first, as it is written where points are.
  if (orders.length === 2 && !isSure) return null;
  return orders[0] ?? 'day first';
}

/** A day as an ISO date; null where there is none such. */
function dayOf(text: string, order: DayOrder): string | null {
  const [, year, month, day] = BY_YEAR.exec(text) ?? [];
  const short = year === undefined ? BY_DAY.exec(text) : null;
  const [d, m] = order === 'day first' ? [short?.[1], short?.[2]] : [short?.[2], short?.[1]];
  const iso = [year ?? short?.[3], (month ?? m)?.padStart(2, '0'), (day ?? d)?.padStart(2, '0')].join('-');
  const time = Date.parse(`${iso}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(iso) ? iso : null;
}

/** A copy with what was counted of it; where the table says no days, the last one known stays. */
export function withLoanFigure(copy: Copy, { loans, lastLoan }: LoanFigure, hasDays: boolean): Copy {
  const { lastLoan: known, ...rest } = copy;
  const day = hasDays ? lastLoan : known;
  return { ...rest, loans, ...(day && { lastLoan: day }) };
}
