import { spoiledIn } from '@osier/core/barcodes';
import {
  rulesWith,
  type AcceptContext,
  type DeliverySettings,
  type IncomingRecord,
} from '@osier/core/deliveries';
import { headingIdentity, headingReader, withKeptForms, type HeadingReader } from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import { describe, findMatches, needsTarget, type Match } from '@osier/core/matching';
import type { StoredObject } from '@osier/core/kinds';
import { knownHeadingKeys } from '../catalogue/queries';
import { followedBy } from '../headings/follow';
import type { Store } from '../store/store';
import { withdrawnBarcodes } from '../copies/barcodes';
import { takenBarcodes } from './copies';
import { candidatesFor, keyKinds } from './find-candidates';
import { keysOf } from './keys';
import { keptJson } from '../store/kept-json';
import { copyNumbersOf, matchedBefore, matchesOf, recordsWrittenSince, replacedIn } from './queries';

type Rows = readonly IncomingRecord[];

/** What the plan of accepting needs to know of the catalogue, looked up for a whole chunk at once; `own` is the entry of what it has accepted so far. */
export async function acceptContext(
  { store }: { readonly store: Store },
  rows: Rows,
  settings: DeliverySettings,
  nextBarcode: AcceptContext['nextBarcode'],
  own?: number,
): Promise<Omit<AcceptContext, 'nextId'>> {
  const targets = [
    ...new Set(
      rows.flatMap(({ value: v }) => (needsTarget(v.decision) && v.target !== null ? [v.target] : [])),
    ),
  ];
  const delivery = rows[0]?.value.delivery ?? 0;
  const held = await store.readMany('record', targets);
  // What a record is merged into brings its own headings along.
  const marcs = [...rows.map((r) => r.fields.value.marc), ...held.map((h) => h.value)];
  const read = headingReader();
  const followed = await followedBy(store, marcs, read);
  // The kept forms that come in their place are known.
  const marcsKept = marcs.map((marc) => withKeptForms(marc, followed).record);
  const barcodes = rows.flatMap((r) => r.value.copies.map((c) => c.barcode)).filter(Boolean);
  const [holdings, numbers, headings, replaced, since, taken, withdrawn, rolls] = [
    await holdingsOf(store, targets),
    await copyNumbers(store, targets),
    await knownHeadings(store, marcsKept, read),
    await replacedBy(store, delivery, targets),
    await heldSince(
      store,
      rows.filter((r) => r.value.decision === 'add'),
      settings,
      own,
    ),
    await takenBarcodes(store, barcodes),
    await withdrawnBarcodes(store, barcodes),
    barcodes.length ? await store.find('roll') : [],
  ];
  return {
    house: rulesWith((await store.house()).value, settings),
    today: new Date().toISOString().slice(0, 10),
    held: new Map(held.map((h) => [h.id, h])),
    holdings,
    copyNumbers: (record, part) => numbers.get(`${record} ${part}`) ?? [],
    headingsOf: read,
    followed,
    knowsHeading: (use) => headings.has(headingIdentity(use)),
    replacedBefore: (target) => replaced.has(target),
    heldSince: (row) => since.get(row.id) ?? null,
    barcodeTaken: (barcode) => taken.get(barcode) ?? null,
    barcodeGivenUp: (barcode) =>
      withdrawn.get(barcode) ??
      rolls.map((r) => spoiledIn(r.value, barcode)).find((told) => told !== null) ??
      null,
    nextBarcode,
  };
}

async function holdingsOf(store: Store, records: readonly number[]): Promise<AcceptContext['holdings']> {
  const found = new Map<number, StoredObject<'holding'>[]>();
  if (records.length === 0) return found;
  const held = await store.find('holding', { where: { record: [...records] }, order: [['id', 'ASC']] });
  for (const h of held) found.set(h.value.record, [...(found.get(h.value.record) ?? []), h]);
  return found;
}

/** The numbers that copies of these records have, by record and part. */
async function copyNumbers(store: Store, records: readonly number[]): Promise<Map<string, number[]>> {
  const found = new Map<string, number[]>();
  if (records.length === 0) return found;
  const rows = await copyNumbersOf(store, records);
  for (const { record, part, number } of rows) {
    const key = `${record} ${part}`;
    found.set(key, [...(found.get(key) ?? []), number]);
  }
  return found;
}

async function knownHeadings(
  store: Store,
  marcs: readonly MarcRecord[],
  headingsOf: HeadingReader,
): Promise<ReadonlySet<string>> {
  const keys = [...new Set(marcs.flatMap((marc) => headingsOf(marc).map((u) => u.key)))];
  const known = keys.length ? await knownHeadingKeys(store, keys) : [];
  return new Set(known.map((k) => `${k.kind} ${k.key}`));
}

/** Which of these records an accepted one of the delivery has replaced. */
async function replacedBy(
  store: Store,
  delivery: number,
  targets: readonly number[],
): Promise<ReadonlySet<number>> {
  if (targets.length === 0) return new Set();
  return new Set(await replacedIn(store, delivery, targets));
}

/** Records that are surely the same, were written since the delivery was matched, and are not from it. */
async function heldSince(
  store: Store,
  rows: Rows,
  { rule }: DeliverySettings,
  own?: number,
): Promise<Map<number, number>> {
  const found = new Map<number, number>();
  if (rows.length === 0) return found;
  const { delivery } = rows[0]!.value;
  const entry = await matchedBefore(store, delivery);
  if (!(await recordsWrittenSince(store, entry, own))) return found;
  const kinds = keyKinds(rule);
  const described = rows.map((row) => {
    const description = describe(row.fields.value.marc);
    return { row, description, keys: keysOf(description).filter(([kind]) => kinds.has(kind)) };
  });
  const candidates = await candidatesFor(
    store,
    described.flatMap((d) => d.keys),
    { delivery, entry },
  );
  if (candidates.size === 0) return found;
  const reads = await matchesOf(
    store,
    rows.map((r) => r.id),
  );
  const seen = new Map(
    reads.map((r) => [r.incoming, new Set(keptJson<Match[]>(r.matches).map((m) => m.record))]),
  );
  for (const { row, description, keys } of described) {
    const among = keys.flatMap(([kind, key]) => candidates.get(`${kind} ${key}`) ?? []);
    const fresh = among.filter((c) => !seen.get(row.id)?.has(c.record));
    const match = findMatches(description, fresh, rule).find((m) => m.sure);
    if (match) found.set(row.id, match.record);
  }
  return found;
}
