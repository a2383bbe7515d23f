import { nextSerial, rollNumber, serialIn, type LabelRoll } from '@osier/core/barcodes';
import {
  rulesWith,
  type AcceptContext,
  type DeliverySettings,
  type IncomingRecord,
} from '@osier/core/deliveries';
import { headingIdentity, withKeptForms, headingsOf } from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import { describe, findMatches, needsTarget, type Match } from '@osier/core/matching';
import type { StoredObject } from '@osier/core/kinds';
import { knownHeadingKeys } from '../catalogue/queries';
import { followedBy } from '../headings/follow';
import { rollUse } from '../projections/roll-numbers';
import type { Store } from '../store/store';
import { takenBarcodes } from './copies';
import { candidatesFor, keyKinds, keysOf } from './find-candidates';
import { keptJson } from '../store/kept-json';
import { barcodesBrought, copyNumbersOf, matchedBefore, matchesOf, replacedIn } from './queries';

type Rows = readonly IncomingRecord[];

/** What the plan of accepting needs to know of the catalogue, looked up for a whole chunk at once. */
export async function acceptContext(
  { store }: { readonly store: Store },
  rows: Rows,
  settings: DeliverySettings,
  nextBarcode: AcceptContext['nextBarcode'],
  nextId: AcceptContext['nextId'],
): Promise<AcceptContext> {
  const targets = [
    ...new Set(
      rows.flatMap(({ value: v }) => (needsTarget(v.decision) && v.target !== null ? [v.target] : [])),
    ),
  ];
  const delivery = rows[0]?.value.delivery ?? 0;
  const held = await store.readMany('record', targets);
  // What a record is merged into brings its own headings along.
  const marcs = [...rows.map((r) => r.fields.value.marc), ...held.map((h) => h.value)];
  const followed = await followedBy(store, marcs);
  // The kept forms that come in their place are known.
  const marcsKept = marcs.map((marc) => withKeptForms(marc, followed).record);
  const [holdings, numbers, headings, replaced, since, taken] = [
    await holdingsOf(store, targets),
    await copyNumbers(store, targets),
    await knownHeadings(store, marcsKept),
    await replacedBy(store, delivery, targets),
    await heldSince(
      store,
      rows.filter((r) => r.value.decision === 'add'),
      settings,
    ),
    await takenBarcodes(
      store,
      rows.flatMap((r) => r.value.copies.map((c) => c.barcode)),
    ),
  ];
  return {
    house: rulesWith((await store.house()).value, settings),
    today: new Date().toISOString().slice(0, 10),
    held: new Map(held.map((h) => [h.id, h])),
    holdings,
    copyNumbers: (record, part) => numbers.get(`${record} ${part}`) ?? [],
    followed,
    knowsHeading: (use) => headings.has(headingIdentity(use)),
    replacedBefore: (target) => replaced.has(target),
    heldSince: (row) => since.get(row.id) ?? null,
    barcodeTaken: (barcode) => taken.get(barcode) ?? null,
    nextBarcode,
    nextId,
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

async function knownHeadings(store: Store, marcs: readonly MarcRecord[]): Promise<ReadonlySet<string>> {
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
async function heldSince(store: Store, rows: Rows, { rule }: DeliverySettings): Promise<Map<number, number>> {
  const found = new Map<number, number>();
  if (rows.length === 0) return found;
  const kinds = keyKinds(rule);
  const described = rows.map((row) => {
    const description = describe(row.fields.value.marc);
    return { row, description, keys: keysOf(description).filter(([kind]) => kinds.has(kind)) };
  });
  const { delivery } = rows[0]!.value;
  const candidates = await candidatesFor(
    store,
    described.flatMap((d) => d.keys),
    { delivery, entry: await matchedBefore(store, delivery) },
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

/** The label roll of a delivery, with the highest of its numbers that waiting records bring. */
export interface RollInUse {
  readonly id: number;
  readonly roll: LabelRoll;
  readonly brought: number | null;
}

/** Looks once over all that waits, so that no number is given out that a record further on brings. */
export async function rollInUse(store: Store, id: number | null): Promise<RollInUse | null> {
  const held = id === null ? null : await store.read('roll', id);
  if (!held) return null;
  const { value: roll } = held;
  const brought = await barcodesBrought(store, {
    from: rollNumber(roll, roll.from),
    to: rollNumber(roll, roll.to),
    length: roll.length,
  });
  const serials = brought.flatMap((barcode) => serialIn(roll, barcode) ?? []);
  return {
    id: held.id,
    roll,
    brought: serials.reduce<number | null>((most, n) => Math.max(most ?? n, n), null),
  };
}

/** Gives the numbers of a roll, as it stands now, behind the last one that is or was on a copy or is brought, one after another. */
export async function numbersOf(store: Store, used: RollInUse | null): Promise<() => string | null> {
  const held = used && (await store.read('roll', used.id));
  if (!held) return () => null;
  const [{ value: roll }, { brought }] = [held, used];
  const { last } = await rollUse(store, held);
  const behind = last === null || brought === null ? (last ?? brought) : Math.max(last, brought);
  let serial = nextSerial(roll, behind);
  return () => {
    if (serial === null) return null;
    const number = rollNumber(roll, serial);
    serial = nextSerial(roll, serial);
    return number;
  };
}
