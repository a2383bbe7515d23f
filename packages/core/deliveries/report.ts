import { csvLine } from '../address';

/** What became of one incoming record. */
export interface ReportRow {
  readonly seq: number;
  readonly title: string;
  readonly author: string;
  readonly isbn: string;
  readonly year: string;
  readonly state: 'waiting' | 'accepted' | 'skipped';
  readonly decision: string;
  /** Number of the record of the catalogue. */
  readonly record: number | null;
  /** Barcodes that came with it. */
  readonly barcodes: readonly string[];
  readonly repairs: number;
  readonly errors: number;
  readonly warnings: number;
  readonly advice: number;
  readonly note: string;
}

const HEAD = [
  'no.',
  'outcome',
  'record',
  'title',
  'author',
  'year',
  'ISBN',
  'barcodes',
  'repairs in reading',
  'errors',
  'warnings',
  'advice',
  'note',
];

/** The first line of the report: the names of its columns. */
export const reportHead = (): string => csvLine(HEAD);

/** One record of a delivery as a line of its report. */
export const reportLine = (r: ReportRow): string =>
  csvLine([
    String(r.seq),
    outcomeOf(r),
    r.record === null ? '' : String(r.record),
    r.title,
    r.author,
    r.year,
    r.isbn,
    r.barcodes.join(' | '),
    ...[r.repairs, r.errors, r.warnings, r.advice].map(String),
    r.note,
  ]);

const DONE: Record<string, string> = {
  add: 'added',
  replace: 'replaced',
  merge: 'merged',
  copies: 'copies only',
};
/** What became of a record, in words. */
export function outcomeOf({ state, decision }: Pick<ReportRow, 'state' | 'decision'>): string {
  if (state === 'waiting') return `waiting (${decision})`;
  if (state === 'skipped') return 'skipped';
  return DONE[decision] ?? decision;
}
