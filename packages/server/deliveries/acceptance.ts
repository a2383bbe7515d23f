import { joinChanges } from '@osier/core/changes';
import type { Change, StoredObject } from '@osier/core/kinds';
import { headingIdentity, identityOf } from '@osier/core/headings';
import type { Services } from '../services';
import { contentNumber, entryParts, joined, partsAtHand, type PartOf } from '../store/entry-parts';
import type { Store } from '../store/store';
import { acceptingEntries, incomingBehind } from './queries';

/**
 * What accepting a delivery did, found by the incoming record that it belongs to. Only where each change stands in the
 * daybook is kept: the changes of a hundred thousand records are too many to hold at once.
 */
export interface Acceptance {
  /** Changes (`kind id`) of each incoming record. */
  readonly of: ReadonlyMap<number, readonly string[]>;
  /** The incoming records that a change belongs to. */
  readonly owners: ReadonlyMap<string, readonly number[]>;
  /** New headings by what they are known by (`headingIdentity`): they go when no record has them any more. */
  readonly headings: ReadonlyMap<string, Change<'heading'>>;
  /** The changes themselves. */
  changes(keys: readonly string[]): Promise<Map<string, Change>>;
}

/** The copies that were made with a record; those of a skipped one were never made. */
export const madeCopies = ({ value }: StoredObject<'incoming'>) =>
  value.state === 'accepted' ? value.copies : [];

/** A change that stands: where it begins and where it ends, and what it is about. */
interface Standing {
  readonly first: number;
  readonly last: number;
  readonly before: number;
  readonly about: About;
}
type About =
  | { readonly kind: 'incoming' | 'record' | 'other'; readonly id: number }
  | { readonly kind: 'holding'; readonly id: number; readonly record: number }
  | { readonly kind: 'copy'; readonly id: number; readonly barcode: string; readonly holding: number }
  | { readonly kind: 'heading'; readonly id: number; readonly change: Change<'heading'> };

/** What accepting a delivery has made that stands now, by the incoming record that it came with. */
export async function acceptance({ store }: Services, delivery: number): Promise<Acceptance> {
  const entries = await acceptingEntries(store, delivery);
  const parts: PartOf[] = [];
  const standing = new Map<string, Standing>();
  for (const entry of entries) await addEntry(store, entry, parts, standing);
  return { ...(await grouped(store, delivery, standing)), changes: changesIn(store, parts, standing) };
}

/** Adds what an entry changed to what stands; an entry that accepts nothing, and takes nothing back, is passed over. */
async function addEntry(store: Store, entry: number, parts: PartOf[], standing: Map<string, Standing>) {
  const own = new Map<string, Standing & { after: number }>();
  let accepting = false;
  for await (const { part, changes } of entryParts(store, entry)) {
    const at = parts.push({ entry, part }) - 1;
    for (const [key, change] of joined(changes)) {
      accepting ||= accepts(change);
      const earlier = own.get(key);
      const now = { last: at, after: contentNumber(change.after), about: aboutOf(change) };
      own.set(key, {
        ...now,
        first: earlier?.first ?? at,
        before: earlier?.before ?? contentNumber(change.before),
      });
    }
  }
  if (!accepting) return;
  for (const [key, { after, ...change }] of own) {
    if (change.before === after) continue;
    const first = standing.get(key);
    // What brings an object back to where they began leaves nothing standing.
    if (first?.before === after) standing.delete(key);
    else standing.set(key, first ? { ...change, first: first.first, before: first.before } : change);
  }
}

/** Whether a change accepts an incoming record, or takes that back. */
const accepts = (change: Change): boolean =>
  change.kind === 'incoming' && change.before?.state !== change.after?.state;

function aboutOf(change: Change): About {
  const { id } = change;
  if (change.kind === 'holding') {
    const value = change.after ?? change.before;
    return value ? { kind: 'holding', id, record: value.record } : { kind: 'other', id };
  }
  if (change.kind === 'copy') {
    const value = change.after ?? change.before;
    return value
      ? { kind: 'copy', id, barcode: value.barcode, holding: value.holding }
      : { kind: 'other', id };
  }
  if (change.kind === 'heading') return { kind: 'heading', id, change };
  return { kind: change.kind === 'incoming' || change.kind === 'record' ? change.kind : 'other', id };
}

/**
 * Which of the changes belong to which record: its mark, the record of the catalogue that it became, its holdings and
 * copies.
 */
async function grouped(store: Store, delivery: number, standing: ReadonlyMap<string, Standing>) {
  const byRecord = new Map<number, number[]>();
  const byBarcode = new Map<string, number>();
  for await (const rows of acceptedRows(store, delivery))
    for (const r of rows) {
      if (r.value.record !== null) push(byRecord, r.value.record, r.id);
      for (const c of madeCopies(r)) byBarcode.set(c.barcode, r.id);
    }
  const owners = new Map<string, readonly number[]>();
  const headings = new Map<string, Change<'heading'>>();
  const inHolding = new Map<number, Set<number>>();
  for (const [key, { about }] of standing) {
    if (about.kind === 'incoming') owners.set(key, [about.id]);
    else if (about.kind === 'record') owners.set(key, byRecord.get(about.id) ?? []);
    else if (about.kind === 'copy') {
      const owner = byBarcode.get(about.barcode);
      owners.set(key, owner === undefined ? [] : [owner]);
      if (owner !== undefined)
        inHolding.set(about.holding, (inHolding.get(about.holding) ?? new Set()).add(owner));
    } else if (about.kind === 'heading') {
      const heading = about.change.after ?? about.change.before;
      if (heading) headings.set(headingIdentity(identityOf(heading)), about.change);
    }
  }
  for (const [key, { about }] of standing)
    if (about.kind === 'holding')
      owners.set(key, [...(inHolding.get(about.id) ?? byRecord.get(about.record) ?? [])]);
  const of = new Map<number, string[]>();
  for (const [key, ids] of owners) for (const id of ids) push(of, id, key);
  return { of, owners, headings };
}

function push<K, V>(lists: Map<K, V[]>, key: K, value: V): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}

/** Reads changes from the parts in which they begin and end. */
function changesIn(store: Store, parts: readonly PartOf[], standing: ReadonlyMap<string, Standing>) {
  const partAt = partsAtHand(store, parts);
  return async (keys: readonly string[]): Promise<Map<string, Change>> => {
    const found = new Map<string, Change>();
    const byPlace = [...new Set(keys)]
      .map((key) => ({ key, ...standing.get(key)! }))
      .sort((a, b) => a.first - b.first || a.last - b.last);
    for (const { key, first, last } of byPlace) {
      const change = (await partAt(first)).get(key)!;
      found.set(key, last === first ? change : joinChanges(change, (await partAt(last)).get(key)!));
    }
    return found;
  };
}

/** The records of a delivery that do not wait any more, in the order of the file, a piece at a time. */
export async function* acceptedRows(
  store: Store,
  delivery: number,
): AsyncGenerator<StoredObject<'incoming'>[]> {
  for (let seq = 0; ;) {
    const rows = await incomingBehind(store, delivery, { waits: false, after: seq, atMost: PIECE });
    if (rows.length === 0) return;
    yield rows;
    seq = rows.at(-1)!.value.seq;
  }
}
const PIECE = 200;
