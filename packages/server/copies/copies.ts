import type { CopyBody, HoldingBody } from '@osier/contract';
import { barcodeProblem, cleanScan, groupedBarcode } from '@osier/core/barcodes';
import { briefOf } from '@osier/core/access';
import { callNumberText } from '@osier/core/callnumbers';
import { creation, update } from '@osier/core/changes';
import {
  codeProblem,
  placeProblems,
  sourceProblems,
  type Copy,
  type CopyStatus,
  type Holding,
} from '@osier/core/holdings';
import { quoted } from '../daybook/sentences';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commit } from '../store/commit';
import type { Store } from '../store/store';

export async function addHolding(
  { store }: Services,
  person: number,
  body: HoldingBody,
): Promise<{ id: number; entry: number; sentence: string }> {
  const record = await store.read('record', body.record);
  if (!record) throw notFound(`Record ${body.record}`);
  const lists = (await store.lists()).value;
  const problems = placeProblems(body, lists);
  if (problems.length) throw wrongFields(problems);
  const same = (
    await store.select('holding', 'record = :record AND branch = :branch AND location = :location', body)
  ).find((h) => callNumberText(h.value) === callNumberText(body));
  if (same)
    throw wrong(
      'location',
      `This title already has a holding there under ${callNumberText(body)}. Add the copy to it.`,
    );
  const { record: of, branch, location, scheme, prefix, class: cls, item, suffix, note } = body;
  const value: Holding = { record: of, branch, location, scheme, prefix, class: cls, item, suffix, note };
  const id = await store.nextIds('holding', 1);
  const place = lists.locations.find((l) => l.code === location)!.name;
  const sentence = `Added a holding to ${quoted(briefOf(record.value).title)}: ${callNumberText(value)}, ${place}`;
  return {
    id,
    sentence,
    entry: await commit(store, {
      act: 'add-holding',
      person,
      sentence,
      changes: [creation('holding', id, value)],
    }),
  };
}

/** What has a barcode, as a sentence; null when it is free. */
export async function barcodeHolder(
  store: Store,
  barcode: string,
): Promise<{ copy: number; record: number; sentence: string } | null> {
  const row = await store.row<{
    copy: number;
    record: number;
    title: string;
    number: string;
    branch: string;
  }>(
    `SELECT c.id AS copy, h.record, r.title, json_extract(c.value, '$.number') AS number, h.branch
     FROM copies c JOIN holdings h ON h.id = c.holding JOIN records r ON r.id = h.record WHERE c.barcode = :barcode`,
    { barcode },
  );
  if (!row) return null;
  const branch = (await store.lists()).value.branches.find((b) => b.code === row.branch)?.name ?? row.branch;
  return {
    copy: row.copy,
    record: row.record,
    sentence: `Barcode ${groupedBarcode(barcode)} is already on ${quoted(row.title)}, copy ${row.number}, ${branch}.`,
  };
}

export interface BarcodeAnswer {
  barcode: string;
  problem: string | null;
  holder: { copy: number; record: number; sentence: string } | null;
  withdrawn: string | null;
}

/** Looks at a scanned barcode before it is used: its form, what has it, whether it was withdrawn before. */
export async function lookAtBarcode({ store }: Services, raw: string): Promise<BarcodeAnswer> {
  const barcode = cleanScan(raw);
  const gone = (await store.select('withdrawn', 'barcode = :barcode LIMIT 1', { barcode }))[0];
  return {
    barcode,
    problem: barcodeProblem(barcode, (await store.house()).value.barcode),
    holder: await barcodeHolder(store, barcode),
    withdrawn: gone
      ? `This barcode was on ${quoted(gone.value.title)}, withdrawn on ${gone.value.withdrawnOn}.`
      : null,
  };
}

export async function addCopy(
  services: Services,
  person: number,
  body: CopyBody,
): Promise<{ id: number; entry: number; sentence: string }> {
  const { store } = services;
  const holding = await store.read('holding', body.holding);
  if (!holding) throw notFound(`Holding ${body.holding}`);
  const lists = (await store.lists()).value;
  const { barcode, problem, holder } = await lookAtBarcode(services, body.barcode);
  const type = codeProblem('type', 'type', body.type, lists.types);
  const problems = [
    ...(holder ? [{ field: 'barcode', message: holder.sentence }] : []),
    ...(problem && !body.keepBarcode ? [{ field: 'barcode', message: problem }] : []),
    ...(type ? [type] : []),
    ...sourceProblems(body, lists),
  ];
  if (problems.length) throw wrongFields(problems);
  const siblings = await store.select('copy', 'holding IN (SELECT id FROM holdings WHERE record = :record)', {
    record: holding.value.record,
  });
  const { fund, supplier, acquired, condition, note } = body;
  const value: Copy = {
    holding: holding.id,
    barcode,
    number: Math.max(0, ...siblings.map((s) => s.value.number)) + 1,
    type: body.type,
    price: body.price ?? lists.types.find((t) => t.code === body.type)?.price ?? null,
    fund,
    supplier,
    acquired,
    condition,
    note,
    status: 'available',
    lastSeen: '',
  };
  const id = await store.nextIds('copy', 1);
  const record = await store.read('record', holding.value.record);
  const sentence = `Added copy ${value.number} (${groupedBarcode(barcode)}) to ${quoted(briefOf(record!.value).title)}`;
  return {
    id,
    sentence,
    entry: await commit(store, { act: 'add-copy', person, sentence, changes: [creation('copy', id, value)] }),
  };
}

export async function changeCopy(
  { store }: Services,
  person: number,
  id: number,
  version: number,
  change: { status?: CopyStatus; note?: string },
): Promise<{ entry: number; sentence: string }> {
  const copy = await store.read('copy', id);
  if (!copy) throw notFound(`Copy ${id}`);
  const next: Copy = {
    ...copy.value,
    status: change.status ?? copy.value.status,
    note: change.note ?? copy.value.note,
  };
  const sentence =
    next.status !== copy.value.status
      ? `Copy ${groupedBarcode(next.barcode)} is now ${next.status}, was ${copy.value.status}`
      : `Changed copy ${groupedBarcode(next.barcode)}`;
  return {
    sentence,
    entry: await commit(store, {
      act: 'change-copy',
      person,
      sentence,
      changes: [update('copy', { ...copy, version }, next)],
    }),
  };
}
