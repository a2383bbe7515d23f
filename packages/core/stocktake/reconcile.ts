import { nearMisses } from '../barcodes';
import { byKey } from '../callnumbers';
import { outOfOrder } from './shelf-order';
import { firstAfter, jumpsIn, spines, type Jump, type Spine } from './spines';
import { stretchTest, type Outside, type ShelfCopy, type Stretch } from './stretch';

export type StockFindingKind = 'not-found' | 'should-not-be-here' | 'unknown' | 'out-of-order';
export type Settlement = 'mark-missing' | 'mark-found' | 'correct-location';

/** One thing that books and shelf do not agree on. */
export interface StockFinding {
  readonly kind: StockFindingKind;
  readonly code: string;
  readonly copy: ShelfCopy | null;
  readonly message: string;
  /** The acts that mend it; empty when it is mended at the shelf. */
  readonly settlements: readonly Settlement[];
  /** For an unknown code: copies not found here whose barcode is nearly this one. */
  readonly near?: readonly string[];
  /** For one out of order: the barcodes it should stand between. */
  readonly between?: readonly [string | null, string | null];
}

/** What comparing shelf and books gives. */
export interface Reconciliation {
  readonly expected: number;
  readonly found: number;
  readonly scans: number;
  readonly scannedTwice: number;
  /** Expected copies not scanned that are on loan, in transit, in repair, recorded missing or lost since, or seen since the given date. */
  readonly accountedFor: number;
  readonly findings: readonly StockFinding[];
  readonly spines: readonly Spine[];
  readonly jumps: readonly Jump[];
}

/** What of the house and the desk a comparison goes by. */
export interface ReconcileOptions {
  readonly jumpLength: number;
  /** ISO date: a copy seen on or after it counts as accounted for; '' for none. */
  readonly seenSince: string;
  readonly branchName: (code: string) => string;
  readonly locationName: (code: string) => string;
}

/** What is compared: the copies, and what was scanned. */
export interface ScannedShelf {
  /** The copies that are expected and every other copy that a scan may mean. */
  readonly copies: readonly ShelfCopy[];
  /** The numbers of the copies that are expected; those of the stretch that are not missing or lost when it is not given. */
  readonly expected?: ReadonlySet<number>;
  /** The codes in the order of the walk, each as often as it was scanned. */
  readonly scans: readonly string[];
  /** When a code was withdrawn (ISO date). */
  readonly withdrawn: ReadonlyMap<string, string>;
}

/** Whether a copy is expected to be somewhere: not one that is known to be missing or lost. */
export const isExpected = ({ status }: Pick<ShelfCopy, 'status'>): boolean =>
  status !== 'missing' && status !== 'lost' && status !== 'on order';

/**
 * Compares what was scanned, in the order of the walk, with what should stand in the stretch. Growth n log n.
 */
export function reconcile(
  stretch: Stretch,
  { copies, expected: numbers, scans, withdrawn }: ScannedShelf,
  options: ReconcileOptions,
): Reconciliation {
  const byBarcode = new Map(copies.map((c) => [c.barcode, c]));
  const outside = stretchTest(stretch);
  const order = [...new Set(scans)];
  const scanned = new Set(order);
  const expected = copies
    .filter((c) => (numbers ? numbers.has(c.copyId) : outside(c) === null && isExpected(c)))
    .sort((a, b) => byKey(a.shelfKey, b.shelfKey) || byKey(a.barcode, b.barcode));
  const absent = expected.filter((c) => !scanned.has(c.barcode));
  const excused = absent.filter((c) => isAccountedFor(c, options.seenSince));
  const notFound = absent.filter((c) => !isAccountedFor(c, options.seenSince));
  const notFoundCodes = new Set(notFound.map((c) => c.barcode));
  const findings: StockFinding[] = notFound.map((copy) => ({
    kind: 'not-found',
    code: copy.barcode,
    copy,
    message: 'Expected here and not scanned.',
    settlements: ['mark-missing'],
  }));
  const standing: ShelfCopy[] = [];
  const states = new Map<string, Spine['state']>();
  for (const code of order) {
    const copy = byBarcode.get(code);
    if (!copy) {
      findings.push(unknownCode(code, withdrawn, (c) => notFoundCodes.has(c)));
      states.set(code, withdrawn.has(code) ? 'should-not-be-here' : 'unknown');
      continue;
    }
    const wrong = shouldNotBeHere(copy, outside(copy), options);
    if (wrong) {
      findings.push(wrong);
      states.set(code, 'should-not-be-here');
    }
    if (outside(copy) === null) standing.push(copy);
  }
  const lifted = new Set(outOfOrder(standing.map((c) => c.shelfKey)));
  const inPlace = standing.filter((_, i) => !lifted.has(i));
  for (const i of lifted) {
    const copy = standing[i]!;
    const at = firstAfter(inPlace, copy.shelfKey);
    const between = [inPlace[at - 1]?.barcode ?? null, inPlace[at]?.barcode ?? null] as const;
    const name = (c: ShelfCopy | undefined) => (c ? c.callNumber : null);
    const [left, right] = [name(inPlace[at - 1]), name(inPlace[at])];
    const place =
      left && right
        ? `between ${left} and ${right}`
        : left
          ? `after ${left}`
          : right
            ? `before ${right}`
            : 'elsewhere';
    findings.push({
      kind: 'out-of-order',
      code: copy.barcode,
      copy,
      message: `Out of order: it belongs ${place}.`,
      settlements: [],
      between,
    });
    if (!states.has(copy.barcode)) states.set(copy.barcode, 'out-of-order');
  }
  const liftedAfter = new Map(
    findings.filter((f) => f.kind === 'out-of-order').map((f) => [f.code, f.between![0]]),
  );
  const jumps = jumpsIn(expected, scanned, notFoundCodes, options.jumpLength);
  return {
    expected: expected.length,
    found: expected.filter((c) => scanned.has(c.barcode)).length,
    scans: scans.length,
    scannedTwice: scans.length - order.length,
    accountedFor: excused.length,
    findings,
    spines: spines(order, byBarcode, states, liftedAfter, inPlace, notFound, jumps),
    jumps,
  };
}

function isAccountedFor(copy: ShelfCopy, seenSince: string): boolean {
  return (
    copy.onLoan ||
    !isExpected(copy) ||
    copy.status === 'in transit' ||
    copy.status === 'in process' ||
    copy.status === 'in repair' ||
    (seenSince !== '' && copy.lastSeen >= seenSince)
  );
}

/** What is said of a code that no copy has; `isMissingHere` tells which near ones are not found. */
export function unknownCode(
  code: string,
  withdrawn: ReadonlyMap<string, string>,
  isMissingHere: (code: string) => boolean,
): StockFinding {
  const on = withdrawn.get(code);
  if (on !== undefined)
    return {
      kind: 'should-not-be-here',
      code,
      copy: null,
      message: `Withdrawn on ${on}; it should not be on the shelf.`,
      settlements: [],
    };
  const near = nearMisses(code, isMissingHere);
  const hint = near.length
    ? ` It may be a misread of ${near.length === 1 ? 'a copy' : 'copies'} not found here.`
    : '';
  return {
    kind: 'unknown',
    code,
    copy: null,
    message: `No copy has this barcode.${hint}`,
    settlements: [],
    near,
  };
}

/** Why a copy that was scanned should not stand here; null when it may. `outside` says what of its place is not in the stretch. */
export function shouldNotBeHere(
  copy: ShelfCopy,
  outside: Outside | null,
  options: Pick<ReconcileOptions, 'branchName' | 'locationName'>,
): StockFinding | null {
  const finding = (message: string, settlements: Settlement[]): StockFinding => ({
    kind: 'should-not-be-here',
    code: copy.barcode,
    copy,
    message,
    settlements,
  });
  if (copy.status === 'lost')
    return finding('Recorded lost but on the shelf. A reader may have been billed for it.', ['mark-found']);
  if (copy.status === 'missing') return finding('Recorded missing but on the shelf.', ['mark-found']);
  if (copy.onLoan) return finding('Recorded on loan but on the shelf. The loans desk must check it in.', []);
  if (copy.status === 'in transit') return finding('Recorded in transit but on the shelf.', ['mark-found']);
  if (copy.status === 'in process') return finding('Recorded in process but on the shelf.', ['mark-found']);
  if (outside === 'branch')
    return finding(`Belongs to ${options.branchName(copy.branch)}.`, ['correct-location']);
  if (outside === 'location')
    return finding(`Belongs to ${options.locationName(copy.location)}.`, ['correct-location']);
  if (outside === 'type') return finding(`A copy of type ${copy.type}, which this stocktake leaves out.`, []);
  if (outside === 'range') return finding(`Its call number ${copy.callNumber} is outside this stretch.`, []);
  return null;
}
