import type { JobState, LoanFiguresBody, Review, ReviewRow } from '@osier/contract';
import { leftMeanwhile } from '@osier/core/acts';
import { groupedBarcode } from '@osier/core/barcodes';
import { counted, update } from '@osier/core/changes';
import { withLoanFigure, type Copy, type LoanFigure, type UntakenLine } from '@osier/core/holdings';
import type { StoredObject } from '@osier/core/kinds';
import { readdir, rename, rm, stat } from 'node:fs/promises';
import type { IncomingMessage } from 'node:http';
import { basename, join } from 'node:path';
import { object, string } from 'yup';
import { today } from '../day';
import { keepFile } from '../deliveries/keep-file';
import { ProblemError, wrong } from '../http/problem';
import { beginReview, stillAsReviewed } from '../http/reviewed';
import { reviewPage } from '../http/review-page';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { keptWork, leftOut } from '../jobs/kept-work';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { figureIn } from '../workers/read-loan-figures';
import { scannedCodes } from './scanned';
import { copyTitles } from './queries.list';

const LARGEST = 64 * 1024 * 1024;
/** Milliseconds for which a table that was sent waits to be loaded. */
const WAITS = 24 * 60 * 60 * 1000;
/** Lines that are looked up at once. */
const AT_ONCE = 400;
/** Barcodes and lines that are named in a review. */
const NAMED = 5;
const START = 'loans-';
const fileAt = (data: string, sha256: string) => join(data, 'deliveries', START + basename(sha256));

/** Keeps a table until it is reviewed and loaded; those that nobody loaded within a day go. */
export async function takeLoanFigures(
  { settings }: Services,
  body: IncomingMessage,
): Promise<{ file: string }> {
  const { data } = settings;
  const kept = await keepFile(body, { data, largestFile: Math.min(LARGEST, settings.largestFile) });
  await rename(kept.path, fileAt(data, kept.sha256));
  const folder = join(data, 'deliveries');
  for (const name of await readdir(folder)) {
    if (!name.startsWith(START)) continue;
    const { mtimeMs } = await stat(join(folder, name)).catch(() => ({ mtimeMs: Infinity }));
    if (Date.now() - mtimeMs > WAITS) await rm(join(folder, name), { force: true });
  }
  return { file: kept.sha256 };
}

/** What a table says, each copy once. */
interface Table {
  readonly lines: readonly string[];
  /** The barcodes that the lines mean, as the library has them; null for one that stands further up already. */
  readonly codes: readonly (string | null)[];
  readonly untaken: { readonly count: number; readonly first: readonly UntakenLine[] };
  readonly hasDays: boolean;
}

async function readTable({ settings, pool, store }: Services, file: string): Promise<Table> {
  const path = fileAt(settings.data, file);
  if ((await stat(path).catch(() => null)) === null)
    throw wrong('file', 'The file is no longer there. Choose it again.');
  const read = await pool.readLoanFigures({ path, on: today() });
  if ('problem' in read) throw new ProblemError(422, read.problem);
  const lines = read.lines.split('\n');
  const seen = new Set<string>();
  const codes: (string | null)[] = [];
  for (let at = 0; at < lines.length; at += AT_ONCE) {
    const raw = lines.slice(at, at + AT_ONCE).map((line) => figureIn(line).barcode);
    // The same copy may be written in two ways.
    for (const code of await scannedCodes(store.aside, raw)) {
      // A scan of nothing is no copy’s, however often it comes.
      codes.push(code !== '' && seen.has(code) ? null : code);
      seen.add(code);
    }
  }
  return { lines, codes, untaken: read.untaken, hasDays: read.hasDays };
}

/** A line of the table, counted from 1, with the copy that it names. */
interface Line {
  readonly at: number;
  readonly figure: LoanFigure;
  readonly copy: StoredObject<'copy'> | null;
  /** Its copy stands further up already. */
  readonly isAgain: boolean;
}

/** Lines behind a place with their copies. */
async function linesBehind(store: Store, { lines, codes }: Table, after: number): Promise<Line[]> {
  const wanted = codes.slice(after, after + AT_ONCE);
  const copies = wanted.length
    ? await store.find('copy', { where: { barcode: wanted.filter((code) => code !== null) } })
    : [];
  const of = new Map(copies.map((c) => [c.value.barcode, c]));
  return wanted.map((code, i) => ({
    ...{ at: after + i + 1, figure: figureIn(lines[after + i] ?? '') },
    ...{ copy: of.get(code ?? '') ?? null, isAgain: code === null },
  }));
}

/** What becomes of a line: the copy as it will be, or null where nothing changes. */
function changed({ copy, figure }: Line, hasDays: boolean): Copy | null {
  if (copy === null) return null;
  const next = withLoanFigure(copy.value, figure, hasDays);
  return next.loans === copy.value.loans && next.lastLoan === copy.value.lastLoan ? null : next;
}

const inWords = ({ loans, lastLoan }: Copy): string =>
  [loans === undefined ? 'Loans not known' : counted(loans, 'loan'), lastLoan ? `last on ${lastLoan}` : '']
    .filter(Boolean)
    .join(', ');

/** Why a line is looked at first. */
const oddity = (was: Copy, is: Copy): string | null =>
  (is.loans ?? 0) < (was.loans ?? 0) || (is.lastLoan ?? '') < (was.lastLoan ?? '')
    ? 'More was known before: this table may be the older one.'
    : null;

/** What loading a table will do, worked out piece by piece. */
export async function reviewLoanFigures(
  services: Services,
  { file }: Pick<LoanFiguresBody, 'file'>,
  from = 0,
): Promise<Review> {
  const store = services.store.aside;
  const shown = await beginReview(store);
  const table = await readTable(services, file);
  const { untaken, hasDays } = table;
  const page = reviewPage<ReviewRow>(from);
  const totals = { changed: 0, same: 0, again: 0 };
  const unknown: string[] = [];
  for (let after = 0; after < table.lines.length; after += AT_ONCE) {
    const lines = await linesBehind(store, table, after);
    const of = await copyTitles(
      store,
      lines.flatMap((l) => l.copy?.id ?? []),
    );
    for (const line of lines) {
      const { copy, figure, isAgain } = line;
      const next = changed(line, hasDays);
      if (isAgain) totals.again++;
      else if (copy === null) unknown.push(figure.barcode);
      else if (next === null) totals.same++;
      if (copy === null || next === null) continue;
      totals.changed++;
      shown.see(copy.id, copy.version, next);
      const exception = oddity(copy.value, next);
      page.offer(exception !== null, () => ({
        ...{
          id: copy.id,
          label: of.get(copy.id) ?? '',
          detail: groupedBarcode(copy.value.barcode),
          exception,
        },
        ...{ before: { text: inWords(copy.value) }, after: { text: inWords(next) }, canLeaveOut: true },
      }));
    }
  }
  return {
    sentence: `${counted(totals.changed, 'copy', 'copies')} will have new loan figures.`,
    verb: 'Load',
    noun: { one: 'loan figure', many: 'loan figures' },
    count: totals.changed,
    consequences: [
      ...(totals.same
        ? [`${counted(totals.same, 'copy', 'copies')} will stay: these figures are known already.`]
        : []),
      ...(unknown.length ? [saysUnknown(unknown)] : []),
      ...(totals.again
        ? [`${counted(totals.again, 'line')} not taken: the copy stands further up already.`]
        : []),
      ...(untaken.count ? [saysUntaken(untaken)] : []),
      ...(hasDays ? [] : ['The table does not say when copies were lent last; what is known of it stays.']),
    ],
    ...page.take(),
    token: shown.token(),
  };
}

const saysNamed = (first: readonly string[], count: number): string =>
  first.join(', ') +
  (count > first.length ? ` and ${(count - first.length).toLocaleString('en-GB')} more` : '');

const saysUnknown = (codes: readonly string[]): string =>
  `${counted(codes.length, 'barcode')} of no copy here: ${saysNamed(codes.slice(0, NAMED).map(groupedBarcode), codes.length)}.`;

const saysUntaken = ({ first, count }: Table['untaken']): string =>
  `${counted(count, 'line')} not read: ${saysNamed(
    first.map((l) => `line ${l.line} (${l.problem})`),
    count,
  )}.`;

/** Starts loading a table that was reviewed. */
export async function beginLoanFigures(
  services: Services,
  person: number,
  { file, name, leaveOut, token }: LoanFiguresBody,
): Promise<JobState> {
  const asOf = await stillAsReviewed(services.store, token, () => reviewLoanFigures(services, { file }));
  const { lines } = await readTable(services, file);
  const called = name || 'a table';
  return services.jobs.begin(
    'load-loans',
    `Loading loan figures from ${called}`,
    person,
    { file, name: called, leaveOut, asOf },
    lines.length,
  );
}

const loadWork = object({
  file: string().required(),
  name: string().default(''),
  leaveOut: leftOut(),
});

/** Job: loads a table of loan figures, some hundred lines a transaction. */
export const loadLoanFigures =
  (services: Services): JobWork =>
  async (run) => {
    const { file, name, ...asked } = keptWork(loadWork, run.work);
    const leaveOut = new Set(asked.leaveOut);
    const store = services.store.aside;
    try {
      const table = await readTable(services, file);
      const totals = await inChunks<Line>({ ...services, store }, run, {
        did: ({ changed = 0, unknown = 0, meanwhile }) => ({
          ...{ act: 'load-loans', names: { file: name }, counts: { changed, unknown, meanwhile } },
        }),
        next: (after, s) => linesBehind(s, table, after),
        placeOf: (line) => line.at,
        objectsOf: ({ copy }) => (copy ? [['copy', copy.id] as const] : []),
        plan: (lines) => {
          const changes = lines.flatMap((line) => {
            const next = changed(line, table.hasDays);
            return next && line.copy && !leaveOut.has(line.copy.id) ? [update('copy', line.copy, next)] : [];
          });
          const unknown = lines.filter((l) => l.copy === null && !l.isAgain).length;
          return Promise.resolve({ changes, totals: { changed: changes.length, unknown } });
        },
      });
      if (run.cancelled()) return null;
      return totals.changed
        ? `Loaded loan figures of ${counted(totals.changed, 'copy', 'copies')}${leftMeanwhile(totals.meanwhile)}.`
        : 'There was nothing to change.';
    } finally {
      if (!run.stopping()) await rm(fileAt(services.settings.data, file), { force: true });
    }
  };
