import type { Change, StoredObject } from '@osier/core/kinds';
import { headingIdentity, identityOf } from '@osier/core/headings';
import type { Services } from '../services';
import { entryIndex, type EntryIndex, type Indexed } from '../store/entry-index';
import { keyOf } from '../store/entry-parts';
import type { Store } from '../store/store';
import { acceptingEntries, incomingBehind } from './queries';

/**
 * What accepting a delivery did, found by the incoming record that it belongs to. Only where each change stands in the
 * daybook is kept: the changes of a hundred thousand records are too many to hold at once.
 */
export interface Acceptance {
  readonly index: EntryIndex;
  /** What was done with each incoming record. */
  readonly of: ReadonlyMap<number, readonly Indexed[]>;
  /** The incoming records that an object (`kind id`) belongs to. */
  readonly owners: ReadonlyMap<string, readonly number[]>;
  /** New headings by what they are known by (`headingIdentity`): they go when no record has them any more. */
  readonly headings: ReadonlyMap<string, Indexed>;
}

/** The copies that were made with a record; those of a skipped one were never made. */
export const madeCopies = ({ value }: StoredObject<'incoming'>) =>
  value.state === 'accepted' ? value.copies : [];

type About =
  | { readonly kind: 'incoming' | 'record' | 'other'; readonly id: number }
  | { readonly kind: 'holding'; readonly id: number; readonly record: number }
  | { readonly kind: 'copy'; readonly id: number; readonly barcode: string; readonly holding: number }
  | { readonly kind: 'heading'; readonly identity: string };

/** What accepting a delivery has made that stands now, by the incoming record that it came with. */
export async function acceptance({ store }: Services, delivery: number): Promise<Acceptance> {
  const entries = await acceptingEntries(store, delivery);
  const index = await entryIndex<About>(store, entries, { about: aboutOf });
  return { index, ...(await grouped(store, delivery, index.objects)) };
}

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
  if (change.kind === 'heading') {
    const value = change.after ?? change.before;
    return value ? { kind: 'heading', identity: headingIdentity(identityOf(value)) } : { kind: 'other', id };
  }
  return { kind: change.kind === 'incoming' || change.kind === 'record' ? change.kind : 'other', id };
}

/**
 * Which of the changes belong to which record: its mark, the record of the catalogue that it became, its holdings and
 * copies.
 */
async function grouped(store: Store, delivery: number, objects: readonly Indexed<About | undefined>[]) {
  const byRecord = new Map<number, number[]>();
  const byBarcode = new Map<string, number>();
  for await (const rows of acceptedRows(store, delivery))
    for (const r of rows) {
      if (r.value.record !== null) push(byRecord, r.value.record, r.id);
      for (const c of madeCopies(r)) byBarcode.set(c.barcode, r.id);
    }
  const owners = new Map<string, readonly number[]>();
  const headings = new Map<string, Indexed>();
  const inHolding = new Map<number, Set<number>>();
  for (const o of objects) {
    const { about } = o;
    if (about?.kind === 'incoming') owners.set(keyOf(o), [about.id]);
    else if (about?.kind === 'record') owners.set(keyOf(o), byRecord.get(about.id) ?? []);
    else if (about?.kind === 'copy') {
      const owner = byBarcode.get(about.barcode);
      owners.set(keyOf(o), owner === undefined ? [] : [owner]);
      if (owner !== undefined)
        inHolding.set(about.holding, (inHolding.get(about.holding) ?? new Set()).add(owner));
    } else if (about?.kind === 'heading') headings.set(about.identity, o);
  }
  for (const o of objects)
    if (o.about?.kind === 'holding')
      owners.set(keyOf(o), [...(inHolding.get(o.about.id) ?? byRecord.get(o.about.record) ?? [])]);
  const of = new Map<number, Indexed[]>();
  for (const o of objects) for (const id of owners.get(keyOf(o)) ?? []) push(of, id, o);
  return { of, owners, headings };
}

function push<K, V>(lists: Map<K, V[]>, key: K, value: V): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
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
