import type { Person, CopyBody, CopyChangeBody, Done, SwapBody } from '@osier/contract';
import type { Act } from '@osier/core/acts';
import { groupedBarcode } from '@osier/core/barcodes';
import { callNumberText } from '@osier/core/callnumbers';
import { creation, update } from '@osier/core/changes';
import {
  codeProblem,
  copyCost,
  costIn,
  copyName,
  partKey,
  readLocals,
  sourceProblems,
  withLocal,
  type Copy,
  type FieldProblem,
  type LocalValue,
} from '@osier/core/holdings';
import type { Change, StoredObject } from '@osier/core/kinds';
import { notFound, wrong, wrongFields } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { barcodeToBe, mayOverruleRolls } from './barcodes';
import { holdingThere, locationName, titleOf } from './holdings';
import { localFieldsOf } from './local-fields';
import { copyWithNumber, lastNumber } from './queries';

/** Adds a copy to a holding, numbered behind the title's other copies. */
export const addCopy = (
  { store }: Services,
  person: Person,
  body: CopyBody,
): Promise<Done & { id: number }> =>
  commitPlan(store, person.id, async (s) => {
    const { value: holding } = await holdingThere(s, body.holding);
    const { copy, overruled } = await newCopy(s, body, holding.record, mayOverruleRolls(person));
    const { barcode, number } = copy.after;
    const did: Act = {
      act: 'add-copy',
      names: { title: await titleOf(s, holding.record), barcode, part: body.part },
      counts: { number },
      ...(overruled && { overruled }),
    };
    return { did, id: copy.id, changes: [copy] };
  });

/** The change that makes a copy of a record, numbered behind its other ones; throws what is wrong with it by field. */
export async function newCopy(
  store: Store,
  body: CopyBody,
  record: number,
  mayOverrule = false,
): Promise<{ readonly copy: Change<'copy'> & { readonly after: Copy }; readonly overruled?: string }> {
  const lists = (await store.lists()).value;
  const wanted = { ...body, own: null, mayOverrule };
  const { barcode, problems, overruled } = await barcodeToBe(store, wanted, lists);
  const type = codeProblem('type', 'type', body.type, lists.types);
  const local = readLocals(body.local, body.type, await localFieldsOf(store));
  const all = [...problems, ...(type ? [type] : []), ...sourceProblems(body, lists), ...local.problems];
  if (all.length) throw wrongFields(all);
  const { fund, supplier, acquired, condition, note, staffNote, loanRule } = body;
  const value: Copy = {
    holding: body.holding,
    barcode,
    ...(body.part && { part: body.part }),
    number: await nextNumber(store, record, body.part),
    type: body.type,
    ...copyCost(body, lists, (await store.house()).value.currency),
    fund,
    supplier,
    acquired,
    condition,
    note,
    ...(staffNote && { staffNote }),
    ...(loanRule !== 'lends' && { loanRule }),
    status: body.status,
    lastSeen: '',
  };
  const made = withLocals(value, local.values);
  const copy = { ...creation('copy', await store.nextIds('copy', 1), made), after: made };
  return { copy, ...(overruled && { overruled }) };
}

const withLocals = (copy: Copy, values: readonly LocalValue[]): Copy =>
  values.reduce((c, { field, value }) => withLocal(c, field, value), copy);

/** The number behind those of a title's copies of the same part. */
export async function nextNumber(store: Store, record: number, part: string | undefined): Promise<number> {
  return (await lastNumber(store, record, partKey(part))) + 1;
}

/** Changes a copy that is still as the person saw it; what is not named stays. */
export const changeCopy = (
  { store }: Services,
  person: Person,
  id: number,
  body: CopyChangeBody,
): Promise<Done> =>
  commitPlan(store, person.id, async (s) => {
    const copy = await copyThere(s, id);
    const { version, keepBarcode, reason, barcode: raw, ...parts } = body;
    const lists = (await s.lists()).value;
    const was = copy.value;
    const supplier = parts.supplier ?? was.supplier;
    const mayOverrule = mayOverruleRolls(person);
    const wanted = { barcode: raw ?? was.barcode, supplier, keepBarcode, own: id, mayOverrule };
    // A barcode that stays is not looked at again: it may be older than the rules.
    const { barcode, problems, overruled } =
      raw === undefined || raw === was.barcode
        ? { barcode: was.barcode, problems: [], overruled: undefined }
        : await barcodeToBe(s, wanted, lists);
    const part = parts.part ?? was.part;
    const [staffNote, loanRule] = [parts.staffNote ?? was.staffNote, parts.loanRule ?? was.loanRule];
    const type = parts.type ?? was.type;
    const local = readLocals(parts.local ?? [], type, await localFieldsOf(s), was);
    const changed: Copy = {
      holding: was.holding,
      barcode,
      ...(part && { part }),
      number: parts.number ?? was.number,
      type,
      ...(parts.price === undefined
        ? { price: was.price, ...(was.currency && { currency: was.currency }) }
        : costIn((await s.house()).value.currency, parts.price, parts.currency ?? was.currency)),
      fund: parts.fund ?? was.fund,
      supplier,
      acquired: parts.acquired ?? was.acquired,
      condition: parts.condition ?? was.condition,
      note: parts.note ?? was.note,
      ...(staffNote && { staffNote }),
      ...(loanRule && loanRule !== 'lends' && { loanRule }),
      status: parts.status ?? was.status,
      lastSeen: was.lastSeen,
      ...(was.loans !== undefined && { loans: was.loans }),
      ...(was.lastLoan && { lastLoan: was.lastLoan }),
      ...(was.local && { local: was.local }),
    };
    const next = withLocals(changed, local.values);
    const codes = [
      next.type === was.type ? null : codeProblem('type', 'type', next.type, lists.types),
      ...sourceProblems(
        {
          fund: next.fund === was.fund ? '' : next.fund,
          supplier: next.supplier === was.supplier ? '' : next.supplier,
        },
        lists,
      ),
    ].filter((p): p is FieldProblem => p !== null);
    const all = [...problems, ...codes, ...local.problems];
    if (all.length) throw wrongFields(all);
    await refuseTakenNumber(s, id, next);
    const did: Act = {
      act: 'change-copy',
      names: { barcode },
      status: next.status === was.status ? null : { from: was.status, to: next.status },
      ...(reason && { reason }),
      ...(barcode !== was.barcode && { was: was.barcode }),
      ...(overruled && { overruled }),
    };
    return { did, changes: [update('copy', { ...copy, version }, next)] };
  });

/** Moves a copy to another holding; one of another title is numbered behind the copies there. */
export const moveCopy = (
  { store }: Services,
  person: number,
  id: number,
  { version, to }: { readonly version: number; readonly to: number },
): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    const copy = await copyThere(s, id);
    if (copy.value.holding === to) throw wrong('to', 'The copy hangs on this holding already.');
    const [from, into] = [await holdingThere(s, copy.value.holding), await holdingThere(s, to)];
    const isOther = from.value.record !== into.value.record;
    const number =
      isOther && copy.value.number > 0
        ? await nextNumber(s, into.value.record, copy.value.part)
        : copy.value.number;
    const did: Act = {
      act: 'move-copy',
      names: {
        barcode: copy.value.barcode,
        title: await titleOf(s, into.value.record),
        callNumber: callNumberText(into.value),
        location: await locationName(s, into.value.location),
      },
    };
    return { did, changes: [update('copy', { ...copy, version }, { ...copy.value, holding: to, number })] };
  });

/** Gives two copies each other's barcodes. */
export const swapBarcodes = ({ store }: Services, person: number, { a, b }: SwapBody): Promise<Done> =>
  commitPlan(store, person, async (s) => {
    if (a.id === b.id) throw wrong('b', 'These are not two copies.');
    const [one, other] = [await copyThere(s, a.id), await copyThere(s, b.id)];
    const [first, second] = [one.value.barcode, other.value.barcode];
    return {
      did: { act: 'swap-barcodes', names: { one: first, other: second } },
      changes: [
        update('copy', { ...one, version: a.version }, { ...one.value, barcode: second }),
        update('copy', { ...other, version: b.version }, { ...other.value, barcode: first }),
      ],
    };
  });

async function copyThere(store: Store, id: number): Promise<StoredObject<'copy'>> {
  const copy = await store.read('copy', id);
  if (!copy) throw notFound(`Copy ${id}`);
  return copy;
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
