import type { VersionRow } from '@osier/contract';
import type { MarcRecord } from '@osier/core/marc';
import { notFound } from '../http/problem';
import type { Services } from '../services';
import { sentenceOfEntry } from '../store/kept-acts';
import { readChanges } from '../store/read-changes';
import { entriesOfVersions, historyOfRecord, nextEntryOf, partWithRecord } from './queries.versions';

/** Versions on a page. */
const PAGE = 50;

/** What was done to a record and to what hangs on it, newest first, each told by its entry. */
export async function listVersions(
  { store }: Services,
  id: number,
  before: number | undefined,
): Promise<{ rows: VersionRow[]; next: number | null }> {
  const entries = await historyOfRecord(store, id, before ?? null, PAGE + 1);
  if (entries.length === 0 && before === undefined) throw notFound(`Record ${id}`);
  const rows = entries.slice(0, PAGE).map((e): VersionRow => ({
    entry: e.id,
    at: e.at,
    person: e.name ?? 'Osier',
    sentence: sentenceOfEntry(e),
    isVersion: e.isVersion === 1,
  }));
  return { rows, next: entries.length > PAGE ? rows.at(-1)!.entry : null };
}

/**
 * A record as an entry left it: what the next entry that touched it found, or the record as it stands. The first entries of a library
 * are large, later ones small, so that this reads little.
 */
export async function versionOf(
  { store }: Services,
  id: number,
  entry: number,
): Promise<{ entry: number; marc: MarcRecord | null }> {
  const [own] = await entriesOfVersions(store, id, entry + 1, 1);
  if (own?.id !== entry) throw notFound(`Version ${entry} of record ${id}`);
  const next = await nextEntryOf(store, id, entry);
  if (next === undefined) return { entry, marc: (await store.read('record', id))?.value ?? null };
  const part = await partWithRecord(store, id, next);
  for (const change of part ? readChanges(part) : [])
    if (change.kind === 'record' && change.id === id) return { entry, marc: change.before };
  throw new Error(`Entry ${next} touched record ${id} and has no change of it.`);
}
