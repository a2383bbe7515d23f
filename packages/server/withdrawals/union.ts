import type { UnionBody, UnionFormat, UnionItem } from '@osier/contract';
import { creation } from '@osier/core/changes';
import type { StoredObject } from '@osier/core/kinds';
import { MARCXML_END, MARCXML_START, marcXmlElement, writeIso2709, type MarcRecord } from '@osier/core/marc';
import {
  toldRecords,
  type Telling,
  type ToldPart,
  type ToldStatus,
  type ToldTitle,
} from '@osier/core/withdrawals';
import { notFound, wrong } from '../http/problem';
import { countToTell, toTell, type ToTell } from '../projections/union-rows';
import { changesByKind } from '../store/changes-by-kind';
import { commitPlan } from '../store/commit';
import { entryIndex } from '../store/entry-index';
import { keptJson, keptValue } from '../store/kept-json';
import type { Store } from '../store/store';
import { entriesOfRegister, registerPlaces } from './queries';

/** Holdings of a page, and of one notice. */
const [PAGE, MOST] = [100, 20_000];

const rowsIn = (item: ToTell): number[] => keptJson<number[]>(item.rows);

/** A page of what the union catalogue is to be told, and how much it is in all. */
export async function unionPage(
  store: Store,
  after: number,
): Promise<{ rows: UnionItem[]; next: number | null; holdings: number; records: number; back: number }> {
  const items = await toTell(store, after, PAGE + 1);
  const rows = items.slice(0, PAGE).map((item): UnionItem => {
    const { title, callNumber, branch, location, withdrawnOn } = keptValue('withdrawn', item.value);
    return {
      ...{ holding: item.holding, record: item.record, title, callNumber, branch, location, withdrawnOn },
      what: item.isGone === 0 ? 'back' : item.hasRecord === 1 ? 'holding' : 'record',
      copies: rowsIn(item).length,
    };
  });
  const last = items.length > PAGE ? items[PAGE - 1] : undefined;
  return { rows, next: last ? last.first : null, ...(await countToTell(store)) };
}

/** The notices that were given, the newest first. */
export async function listTellings(
  store: Store,
): Promise<{ id: number; at: string; by: string; holdings: number; records: number; back: number }[]> {
  const all = await store.find('telling', { order: [['id', 'DESC']], limit: 100 });
  return all.map(({ id, value: { at, by, gone, back } }) => ({
    ...{ id, at, by, holdings: gone.holdings, records: gone.records.length, back: back.holdings },
  }));
}

/** Marks all that is to be told as told, so that its file can be sent; what that is, is decided in the transaction that does it. */
export const tellUnion = (
  store: Store,
  person: { readonly id: number; readonly name: string },
  { holdings }: UnionBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person.id, async (s) => {
    const items = await toTell(s, 0, MOST);
    if (items.length === 0)
      throw wrong('holdings', 'There is nothing that the union catalogue is to be told.');
    const now = await countToTell(s);
    if (holdings !== undefined && holdings !== now.holdings + now.back)
      throw wrong('holdings', 'There is more to tell by now, or less. Look at the list again.');
    const [gone, back] = [items.filter((i) => i.isGone === 1), items.filter((i) => i.isGone === 0)];
    const value: Telling = {
      ...{ at: new Date().toISOString(), by: person.name },
      gone: partOf(
        gone,
        gone.filter((i) => i.hasRecord === 0),
      ),
      back: partOf(back, back),
    };
    const id = await s.nextIds('telling', 1);
    return {
      id,
      did: {
        act: 'tell-union' as const,
        counts: { records: value.gone.records.length, holdings: gone.length, back: back.length },
      },
      changes: [creation('telling', id, value)],
    };
  });

const partOf = (items: readonly ToTell[], whole: readonly ToTell[]): ToldPart => ({
  holdings: items.length,
  rows: items.flatMap(rowsIn),
  records: [...new Set(whole.map((i) => i.record))],
});

/** The file of a notice: deleted records and holdings with record status d as they last stood, those that are back as new ones as they stand. */
export async function* unionFile(
  store: Store,
  id: number,
  as: UnionFormat,
): AsyncGenerator<string | Uint8Array> {
  const telling = await store.read('telling', id);
  if (!telling) throw notFound(`Notice ${id}`);
  const { gone, back, at } = telling.value;
  const { currency } = (await store.house()).value;
  if (as === 'marcxml') yield MARCXML_START;
  const written = (title: ToldTitle, status: ToldStatus) =>
    recordsAs(toldRecords(title, status, at.slice(0, 10)), as);
  for await (const title of goneTitles(store, gone, currency)) yield written(title, 'd');
  for await (const title of backTitles(store, back, currency)) yield written(title, 'n');
  if (as === 'marcxml') yield MARCXML_END;
}

const recordsAs = (records: readonly MarcRecord[], as: UnionFormat): string | Uint8Array =>
  as === 'marcxml'
    ? records.map((r) => marcXmlElement(r)).join('')
    : Buffer.concat(records.map((r) => writeIso2709(r)));

/** The titles of register rows with what went of them, as it last stood: read from the entries that withdrew them. */
async function* goneTitles(
  store: Store,
  { rows, records }: ToldPart,
  currency: string,
): AsyncGenerator<ToldTitle> {
  const entries = new Map<number, number[]>();
  for (const { id, entry } of await entriesOfRegister(store, rows))
    entries.set(entry, [...(entries.get(entry) ?? []), id]);
  for (const [entry, own] of entries) {
    const held = await registerPlaces(store, own);
    const wanted = new Set([
      ...held.flatMap((w) => [`holding ${w.holding}`, `copy ${w.copy}`]),
      ...records.map((id) => `record ${id}`),
    ]);
    const index = await entryIndex(store, [entry]);
    const was = changesByKind(
      await index.inverse(index.objects.filter((o) => wanted.has(`${o.kind} ${o.id}`))),
    );
    const stood = <K extends 'record' | 'holding' | 'copy'>(kind: K): StoredObject<K>[] =>
      was
        .of(kind)
        .flatMap(({ id, version, after }) => (after === null ? [] : [{ id, version, value: after }]));
    const [deleted, holdings, copies] = [stood('record'), stood('holding'), stood('copy')];
    const there = await store.readMany('record', [...new Set(held.map((w) => w.record))]);
    // One that is back since stands in the notice as it was told then, and once.
    const kept = there.filter((r) => !deleted.some((d) => d.id === r.id));
    for (const { id, value: record } of [...deleted, ...kept])
      yield {
        ...{ id, record, currency, copies, whole: deleted.some((r) => r.id === id) },
        holdings: holdings.filter((h) => h.value.record === id),
      };
  }
}

/** The titles of register rows whose holdings are back, as they stand. */
async function* backTitles(
  store: Store,
  { rows, records }: ToldPart,
  currency: string,
): AsyncGenerator<ToldTitle> {
  const held = await registerPlaces(store, rows);
  const holdings = await store.readMany('holding', [...new Set(held.map((w) => w.holding))]);
  const copies = await store.find('copy', { where: { holding: holdings.map((h) => h.id) } });
  for (const { id, value: record } of await store.readMany('record', [...new Set(held.map((w) => w.record))]))
    yield {
      ...{ id, record, currency, copies, whole: records.includes(id) },
      holdings: holdings.filter((h) => h.value.record === id),
    };
}
