import type { DaybookEntry, EntriesQuery } from '@osier/contract';
import { actsOfArea } from '@osier/core/acts';
import { recogniseInput } from '@osier/core/query';
import { wrong } from '../http/problem';
import type { Services } from '../services';
import { sentenceOfEntry } from '../store/kept-acts';
import type { Store } from '../store/store';
import {
  copiesOn,
  copiesThatHad,
  entriesBefore,
  entriesOfHeading,
  entriesOfRecord,
  type EntryRow,
  type Touched,
} from './queries';

/** An entry as it is told. */
export const entryOf = (r: EntryRow): DaybookEntry => ({
  id: r.id,
  at: r.at,
  person: r.name ?? 'Osier',
  act: r.act,
  sentence: sentenceOfEntry(r),
  undoneBy: r.undone_by,
  undoes: r.undoes,
  undoable: r.undone_by === null && r.objects > 0,
  objects: r.objects,
});

/** A page of entries newest first, narrowed as asked; `mine` is whose own they are. */
export async function listEntries(
  { store }: { readonly store: Store },
  query: EntriesQuery = {},
  limit = 100,
  mine?: number,
): Promise<{ rows: DaybookEntry[]; next: number | null }> {
  const { before, person, area, act, from, to, object } = query;
  const rows = await entriesBefore(
    store,
    before ?? null,
    {
      person: mine ?? (person || undefined),
      acts: act ? [act] : area ? actsOfArea(area) : undefined,
      from: from || undefined,
      to: to || undefined,
      touched: object ? await touchedBy(store, object) : undefined,
    },
    limit + 1,
  );
  return { rows: rows.slice(0, limit).map(entryOf), next: rows.length > limit ? rows[limit - 1]!.id : null };
}

/** What an input names: a record, a heading, a holding with the copies on it, or the copies that have or had a barcode. */
async function touchedBy(store: Store, input: string): Promise<Touched[]> {
  // A barcode need not look like one: what a copy has or had comes first.
  const had = await copiesThatHad(store, input.trim());
  if (had.length) return had.map(({ id }) => ({ kind: 'copy', id }));
  const holding = /^holding\s*(\d{1,9})$/i.exec(input.trim())?.[1];
  if (holding !== undefined) {
    const copies = await copiesOn(store, Number(holding));
    return [
      { kind: 'holding', id: Number(holding) },
      ...copies.map(({ id }) => ({ kind: 'copy' as const, id })),
    ];
  }
  const named = recogniseInput(input, (await store.house()).value.barcodes);
  if (named.as === 'record' || named.as === 'heading') return [{ kind: named.as, id: named.id }];
  if (named.as === 'barcode')
    return (await copiesThatHad(store, named.code)).map(({ id }) => ({ kind: 'copy', id }));
  throw wrong(
    'object',
    'Type a record number (r12), a heading number (h3), a holding (holding 4) or a barcode.',
  );
}

/** What was ever done with a record, its holdings and its copies, newest first; withdrawn copies among them. */
export async function historyOf({ store }: Services, record: number): Promise<DaybookEntry[]> {
  const rows = await entriesOfRecord(store, record);
  return rows.map(entryOf);
}

/** What happened to a heading, the newest first. */
export const historyOfHeading = async (store: Store, heading: number): Promise<DaybookEntry[]> =>
  (await entriesOfHeading(store, heading)).map(entryOf);
