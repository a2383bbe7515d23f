import type { CopyBody, HoldingBody } from '@osier/contract';
import { barcodeProblem, cleanScan, groupedBarcode, serialIn } from '@osier/core/barcodes';
import { briefOf } from '@osier/core/access';
import { callNumberText } from '@osier/core/callnumbers';
import { creation, update } from '@osier/core/changes';
import type { Change } from '@osier/core/kinds';
import {
  codeProblem,
  copyName,
  partKey,
  placeProblems,
  sourceProblems,
  type Copy,
  type CopyStatus,
  type Holding,
} from '@osier/core/holdings';
import { quoted, type Act } from '@osier/core/acts';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { copyNamed, copyWithNumber, lastNumber } from './queries';

/** Adds a holding to a record. */
export const addHolding = (
  { store }: Services,
  person: number,
  body: HoldingBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, (s) => planHolding(s, body));

async function planHolding(store: Store, body: HoldingBody) {
  const record = await store.read('record', body.record);
  if (!record) throw notFound(`Record ${body.record}`);
  const { title } = briefOf(record.value);
  const { place, ...change } = await newHolding(store, body);
  const names = { title, callNumber: callNumberText(body), location: place };
  return { did: { act: 'add-holding', names } satisfies Act, id: change.id, changes: [change] };
}

/** The change that makes a holding, with the name of its location; throws what is wrong with it by field. */
export async function newHolding(
  store: Store,
  body: HoldingBody,
): Promise<Change<'holding'> & { readonly after: Holding; readonly place: string }> {
  const lists = (await store.lists()).value;
  const problems = placeProblems(body, lists);
  if (problems.length) throw wrongFields(problems);
  const same = (
    await store.find('holding', {
      where: { record: body.record, branch: body.branch, location: body.location },
    })
  ).find((h) => callNumberText(h.value) === callNumberText(body));
  if (same)
    throw wrong(
      'location',
      `This title already has a holding there under ${callNumberText(body)}. Add the copy to it.`,
    );
  const { record: of, branch, location, scheme, prefix, class: cls, item, suffix, note } = body;
  const value: Holding = { record: of, branch, location, scheme, prefix, class: cls, item, suffix, note };
  const place = lists.locations.find((l) => l.code === location)!.name;
  return { ...creation('holding', await store.nextIds('holding', 1), value), after: value, place };
}

/** What has a barcode, as a sentence; null when it is free. */
export async function barcodeHolder(
  store: Store,
  barcode: string,
): Promise<{ copy: number; record: number; sentence: string } | null> {
  const row = await copyNamed(store, barcode);
  if (!row) return null;
  if (row.record === null || row.title === null)
    return {
      copy: row.copy,
      record: 0,
      sentence: `Barcode ${groupedBarcode(barcode)} is already on copy ${row.copy}, which belongs to no title. See Needs attention.`,
    };
  const branch = (await store.lists()).value.branches.find((b) => b.code === row.branch)?.name ?? row.branch;
  return {
    copy: row.copy,
    record: row.record,
    sentence: `Barcode ${groupedBarcode(barcode)} is already on ${quoted(row.title)}, ${copyName({ number: row.number, part: row.part ?? undefined })}, ${branch}.`,
  };
}

/** What is known of a scanned barcode. */
export interface BarcodeAnswer {
  barcode: string;
  problem: string | null;
  holder: { copy: number; record: number; sentence: string } | null;
  withdrawn: string | null;
}

/** Looks at a scanned barcode before it is used: its form, what has it, whether it was withdrawn before. */
export async function lookAtBarcode(
  { store }: { readonly store: Store },
  raw: string,
): Promise<BarcodeAnswer> {
  const barcode = cleanScan(raw);
  const gone = (await store.find('withdrawn', { where: { barcode }, limit: 1 }))[0];
  return {
    barcode,
    problem: barcodeProblem(barcode, (await store.house()).value.barcode),
    holder: await barcodeHolder(store, barcode),
    withdrawn: gone
      ? `This barcode was on ${quoted(gone.value.title)}, withdrawn on ${gone.value.withdrawnOn}.`
      : null,
  };
}

/** Adds a copy to a holding, numbered behind the title's other copies. */
export const addCopy = (
  { store }: Services,
  person: number,
  body: CopyBody,
): Promise<{ id: number; entry: number; sentence: string }> =>
  commitPlan(store, person, (s) => planCopy(s, body));

async function planCopy(store: Store, body: CopyBody) {
  const holding = await store.read('holding', body.holding);
  if (!holding) throw notFound(`Holding ${body.holding}`);
  const change = await newCopy(store, body, holding.value.record);
  const record = await store.read('record', holding.value.record);
  const { barcode, number } = change.after;
  const did: Act = {
    act: 'add-copy',
    names: { title: briefOf(record!.value).title, barcode, part: body.part },
    counts: { number },
  };
  return { did, id: change.id, changes: [change] };
}

/** The change that makes a copy of a record, numbered behind its other ones; throws what is wrong with it by field. */
export async function newCopy(
  store: Store,
  body: CopyBody,
  record: number,
  status: CopyStatus = 'available',
): Promise<Change<'copy'> & { readonly after: Copy }> {
  const lists = (await store.lists()).value;
  const { barcode, problem, holder } = await lookAtBarcode({ store }, body.barcode);
  const type = codeProblem('type', 'type', body.type, lists.types);
  const problems = [
    ...(holder ? [{ field: 'barcode', message: holder.sentence }] : []),
    ...(problem && !body.keepBarcode ? [{ field: 'barcode', message: problem }] : []),
    ...(type ? [type] : []),
    ...sourceProblems(body, lists),
    ...(await rollProblems(store, barcode, [
      body.supplier,
      lists.suppliers.find((l) => l.code === body.supplier)?.name ?? body.supplier,
    ])),
  ];
  if (problems.length) throw wrongFields(problems);
  const { fund, supplier, acquired, condition, note } = body;
  const value: Copy = {
    holding: body.holding,
    barcode,
    ...(body.part && { part: body.part }),
    number: await nextNumber(store, record, body.part),
    type: body.type,
    price: body.price ?? lists.types.find((t) => t.code === body.type)?.price ?? null,
    fund,
    supplier,
    acquired,
    condition,
    note,
    status,
    lastSeen: '',
  };
  return { ...creation('copy', await store.nextIds('copy', 1), value), after: value };
}

/** The number behind those of a title's copies of the same part. */
async function nextNumber(store: Store, record: number, part: string): Promise<number> {
  return (await lastNumber(store, record, partKey(part))) + 1;
}

/** Numbers of a roll that is reserved for a supplier are for what comes from that supplier. */
async function rollProblems(store: Store, barcode: string, supplier: readonly string[]) {
  const rolls = (await store.find('roll')).filter((r) => r.value.supplier !== '');
  const of = rolls.find((r) => serialIn(r.value, barcode) !== null)?.value;
  if (!of || supplier.includes(of.supplier)) return [];
  const message = `Barcode ${groupedBarcode(barcode)} belongs to the label roll ${quoted(of.name)}, which is reserved for ${of.supplier}.`;
  return [{ field: 'barcode', message }];
}

interface CopyChange {
  readonly status?: CopyStatus;
  readonly note?: string;
  readonly part?: string;
  readonly number?: number;
}

/** Changes status, note, part or number of a copy that is still as the person saw it. */
export const changeCopy = (
  { store }: Services,
  person: number,
  id: number,
  version: number,
  change: CopyChange,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, (s) => planCopyChange(s, id, version, change));

async function planCopyChange(store: Store, id: number, version: number, change: CopyChange) {
  const copy = await store.read('copy', id);
  if (!copy) throw notFound(`Copy ${id}`);
  const next: Copy = {
    ...copy.value,
    status: change.status ?? copy.value.status,
    note: change.note ?? copy.value.note,
    number: change.number ?? copy.value.number,
    ...(change.part !== undefined && { part: change.part }),
  };
  await refuseTakenNumber(store, id, next);
  const did: Act = {
    act: 'change-copy',
    names: { barcode: next.barcode },
    status: next.status === copy.value.status ? null : { from: copy.value.status, to: next.status },
  };
  return { did, changes: [update('copy', { ...copy, version }, next)] };
}

/** Two copies of one part cannot have the same number. */
async function refuseTakenNumber(store: Store, id: number, { holding, part, number }: Copy): Promise<void> {
  const other = await copyWithNumber(store, { id, holding, part: partKey(part), number });
  if (!other) return;
  throw wrong(
    'number',
    `Copy ${groupedBarcode(other.barcode)} of this title is ${copyName({ part, number })} already.`,
  );
}
