import { groupedBarcode } from '../barcodes';
import { callNumberText } from '../callnumbers';
import { creation, update, type ChangeOf, type Id, type Versioned } from '../changes';
import { headingFrom, headingIdentity, withKeptForms, type Heading } from '../headings';
import { partKey, type Copy, type Holding, type ProposedCopy } from '../holdings';
import type { MarcRecord } from '../marc';
import { mergeFields, needsTarget, replaceRecord } from '../matching';
import type { AcceptContext } from './accept-context';
import { NO_TOTALS, type AcceptTotals } from './accept-totals';
import type { Incoming, IncomingRecord } from './incoming';
import { NOTHING_UNWRITTEN, type Unwritten } from './unwritten';

/** What accepting changes. */
export type AcceptChange =
  | ChangeOf<'record', MarcRecord>
  | ChangeOf<'heading', Heading>
  | ChangeOf<'holding', Holding>
  | ChangeOf<'copy', Copy>
  | ChangeOf<'incoming', Incoming>;

/** What accepting a piece of a delivery does. */
export interface AcceptPlan {
  readonly changes: readonly AcceptChange[];
  readonly totals: AcceptTotals;
  /** Records that stay in the delivery, each with the sentence why. */
  readonly left: readonly { readonly incoming: number; readonly why: string }[];
  /** What it makes, for the plan behind it. */
  readonly unwritten: Unwritten;
}

/** What accepting these incoming records does; see `planning`. */
export const acceptPlan = (
  incoming: readonly IncomingRecord[],
  context: AcceptContext,
  before?: Unwritten,
): AcceptPlan => planning(before)(incoming, context);

/**
 * Plans accepting, piece by piece: new records and their new headings, replacements and merges that keep protected fields,
 * holdings and copies, and the mark on each incoming record. Headings, holdings and barcodes of one piece count as known
 * for the pieces after, and a record that one of them changed stands as it then would. Nothing of a record is done when
 * anything of it cannot be done. `before` is what stands before the first piece and is not written yet.
 */
export function planning(
  before: Unwritten = NOTHING_UNWRITTEN,
): (piece: readonly IncomingRecord[], context: AcceptContext) => AcceptPlan {
  const known: Known = {
    before,
    headings: new Set(),
    targets: new Set(),
    replaced: new Set(),
    barcodes: new Set(),
    places: new Map(),
    numbers: new Map(),
    standing: new Map(),
  };
  return (piece, context) => {
    const plan = new Planning(context, known);
    const left: { incoming: number; why: string }[] = [];
    for (const row of piece) {
      const { value } = row;
      if (value.state !== 'waiting') continue;
      if (value.decision === 'ask') plan.totals.asked++;
      else if (value.decision === 'skip') plan.skip(row);
      else {
        const why = plan.accept(row);
        if (why !== null) left.push({ incoming: row.id, why });
      }
    }
    return { changes: plan.changes, totals: plan.totals, left, unwritten: known };
  };
}

/** What has been planned so far, as the records after must know it. */
interface Known extends Unwritten {
  readonly before: Unwritten;
  readonly headings: Set<string>;
  readonly targets: Set<number>;
  readonly replaced: Set<number>;
  readonly barcodes: Set<string>;
  readonly places: Map<string, Id<'holding'>>;
  readonly numbers: Map<string, Set<number>>;
  readonly standing: Map<number, Versioned<MarcRecord, 'record'>>;
}

/** Leader/06 of an authority record (MARC 21 Authority, leader). */
const AUTHORITY = 'z';

class Planning {
  readonly changes: AcceptChange[] = [];
  readonly totals = { ...NO_TOTALS };
  private readonly merging = new Map<number, number>();

  constructor(
    private readonly context: AcceptContext,
    private readonly known: Known,
  ) {}

  skip(row: IncomingRecord): void {
    this.totals.skipped++;
    this.changes.push(update('incoming', row, { ...row.value, state: 'skipped' }));
  }

  /** Plans one record, or gives the sentence why it stays. */
  accept(row: IncomingRecord): string | null {
    const { value } = row;
    const { context } = this;
    if (row.fields.value.marc.leader[6] === AUTHORITY)
      return 'This is an authority record (leader/06 is z), not a bibliographic one.';
    const problem = value.copies.find((c) => c.problems.length > 0)?.problems[0];
    if (problem) return problem;
    const target = needsTarget(value.decision) ? this.targetOf(value) : null;
    if (typeof target === 'string') return target;
    if (value.decision === 'copies' && value.copies.length === 0) return 'It has no copies to attach.';
    if (value.decision === 'add') {
      const since = context.heldSince(row);
      if (since !== null)
        return `Record ${since} with the same number was added to the catalogue meanwhile; check it again.`;
    }
    const barcodes = this.barcodesFor(value.copies);
    if (typeof barcodes === 'string') return barcodes;
    const id = target?.id ?? context.nextId('record');
    if (target) this.known.targets.add(id);
    this.record(row, id, target);
    const copies = value.copies.map((c, i) => ({ ...c, barcode: barcodes[i]! }));
    for (const copy of copies) this.attach(id, copy);
    this.changes.push(update('incoming', row, { ...value, copies, state: 'accepted', record: id }));
    return null;
  }

  private targetOf({ target, decision }: Incoming): Versioned<MarcRecord, 'record'> | string {
    if (target === null) return 'No matching record is chosen.';
    const held = this.known.standing.get(target) ?? this.context.held.get(target);
    if (!held) return `Record ${target} is no longer there.`;
    if (decision === 'replace' && (this.known.replaced.has(target) || this.context.replacedBefore(target)))
      return `Another record of this delivery replaces record ${target} already.`;
    return held;
  }

  private record(
    row: IncomingRecord,
    id: Id<'record'>,
    target: Versioned<MarcRecord, 'record'> | null,
  ): void {
    const { context, totals } = this;
    const { decision } = row.value;
    const { record: marc, notes } = withKeptForms(row.fields.value.marc, context.followed);
    if (decision !== 'copies') totals.keptForms += notes.length;
    if (!target) {
      totals.added++;
      this.changes.push(creation('record', id, marc));
      this.addHeadings(marc);
      return;
    }
    if (decision === 'copies') {
      totals.copiesOnly++;
      return;
    }
    const replaces = decision === 'replace';
    const next = (replaces ? replaceRecord : mergeFields)(target.value, marc, context.house);
    if (replaces) {
      totals.replaced++;
      this.known.replaced.add(id);
    } else totals.merged++;
    this.become(id, context.held.get(id)!, next);
    this.addHeadings(next);
  }

  /** One change of a held record, also where several incoming ones are merged into it. */
  private become(id: Id<'record'>, held: Versioned<MarcRecord, 'record'>, next: MarcRecord): void {
    const at = this.merging.get(id);
    if (at === undefined) this.merging.set(id, this.changes.push(update('record', held, next)) - 1);
    else this.changes[at] = update('record', held, next);
    this.known.standing.set(id, { ...held, value: next });
  }

  private addHeadings(record: MarcRecord): void {
    for (const use of this.context.headingsOf(record)) {
      const key = headingIdentity(use);
      const { headings, before } = this.known;
      if (headings.has(key) || before.headings.has(key) || this.context.knowsHeading(use)) continue;
      this.known.headings.add(key);
      this.totals.newHeadings++;
      this.changes.push(creation('heading', this.context.nextId('heading'), headingFrom(use)));
    }
  }

  /** A barcode for each copy: its own, or the next of the roll; or why there is none. */
  private barcodesFor(copies: readonly ProposedCopy[]): string[] | string {
    const found: string[] = [];
    for (const copy of copies) {
      const barcode = copy.barcode || this.nextOfRoll(found);
      if (barcode === null) return 'The label roll has no number left for its copies.';
      const title = this.context.barcodeTaken(barcode);
      if (title !== null) return `Barcode ${groupedBarcode(barcode)} is already on “${title}”.`;
      const givenUp = copy.keepBarcode ? null : this.context.barcodeGivenUp(barcode);
      if (givenUp !== null) return givenUp;
      if (this.isGiven(barcode) || found.includes(barcode))
        return `Barcode ${groupedBarcode(barcode)} is on another copy of this delivery already.`;
      found.push(barcode);
    }
    for (const barcode of found) this.known.barcodes.add(barcode);
    return found;
  }

  /** The next number of the roll that no copy of this delivery brings by itself. */
  private nextOfRoll(found: readonly string[]): string | null {
    for (;;) {
      const barcode = this.context.nextBarcode();
      if (barcode === null || !(this.isGiven(barcode) || found.includes(barcode))) return barcode;
    }
  }

  private isGiven(barcode: string): boolean {
    return this.known.barcodes.has(barcode) || this.known.before.barcodes.has(barcode);
  }

  private attach(record: Id<'record'>, copy: ProposedCopy): void {
    const { context } = this;
    const { branch, location, scheme, prefix, class: cls, item, year, suffix } = copy;
    const call = { scheme, prefix, class: cls, item, ...(year && { year }), suffix };
    const keyOf = (h: Omit<Holding, 'record' | 'note'>) =>
      `${record} ${h.branch} ${h.location} ${callNumberText(h)}`;
    const key = keyOf({ ...call, branch, location });
    let place = this.known.places.get(key);
    if (place === undefined) {
      const there = context.holdings.get(record)?.find((h) => keyOf(h.value) === key);
      place = there?.id ?? context.nextId('holding');
      if (!there)
        this.changes.push(creation('holding', place, { record, branch, location, ...call, note: '' }));
      this.known.places.set(key, place);
    }
    this.totals.copies++;
    const { barcode, part, type, price, currency, fund, supplier, note, staffNote, loanRule, status } = copy;
    this.changes.push(
      creation('copy', context.nextId('copy'), {
        holding: place,
        barcode,
        ...(part && { part }),
        number: this.numberOf(record, partKey(part), copy.number),
        type,
        price,
        ...(currency && { currency }),
        fund,
        supplier,
        acquired: copy.acquired ?? context.today,
        condition: copy.condition ?? '',
        note,
        ...(staffNote && { staffNote }),
        ...(loanRule && { loanRule }),
        status,
        lastSeen: '',
      }),
    );
  }

  /** The number a copy brings if no other copy of the same part has it, else the next behind them. */
  private numberOf(record: number, part: string, wanted: number): number {
    const key = `${record} ${part}`;
    const taken = this.known.numbers.get(key) ?? new Set(this.context.copyNumbers(record, part));
    const number = wanted > 0 && !taken.has(wanted) ? wanted : Math.max(0, ...taken) + 1;
    this.known.numbers.set(key, taken.add(number));
    return number;
  }
}
