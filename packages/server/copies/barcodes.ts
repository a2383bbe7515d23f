import { may, type BarcodeLook, type Person } from '@osier/contract';
import { quoted } from '@osier/core/acts';
import {
  barcodeProblem,
  groupedBarcode,
  serialIn,
  spoiledIn,
  type BarcodeRule,
  type LabelRoll,
} from '@osier/core/barcodes';
import { copyName, type CodeLists, type FieldProblem } from '@osier/core/holdings';
import type { Store } from '../store/store';
import { copyNamed } from './queries';
import { scannedCodes } from './scanned';

/** What has a barcode, as a sentence; null when it is free. */
export async function barcodeHolder(
  store: Store,
  barcode: string,
): Promise<{ copy: number; version: number; record: number; sentence: string } | null> {
  const row = await copyNamed(store, barcode);
  if (!row) return null;
  const { copy, version } = row;
  if (row.record === null || row.title === null)
    return {
      copy,
      version,
      record: 0,
      sentence: `Barcode ${groupedBarcode(barcode)} is already on copy ${copy}, which belongs to no title. See Needs attention.`,
    };
  const branch = (await store.lists()).value.branches.find((b) => b.code === row.branch)?.name ?? row.branch;
  return {
    copy,
    version,
    record: row.record,
    sentence: `Barcode ${groupedBarcode(barcode)} is already on ${quoted(row.title)}, ${copyName({ number: row.number, part: row.part ?? undefined })}, ${branch}.`,
  };
}

/** What barcodes are held against: the rules of the library, and its label rolls. */
export interface BarcodeTerms {
  readonly rules: readonly BarcodeRule[];
  readonly rolls: readonly LabelRoll[];
}

/** The terms as they stand; several barcodes of one act are looked at by the same. */
export async function barcodeTerms(store: Store): Promise<BarcodeTerms> {
  const [house, rolls] = await Promise.all([store.house(), store.find('roll')]);
  return { rules: house.value.barcodes, rolls: rolls.map((r) => r.value) };
}

/** Which of some barcodes were on copies that were withdrawn, as sentences. */
export async function withdrawnBarcodes(
  store: Store,
  barcodes: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  if (barcodes.length === 0) return new Map();
  const gone = await store.find('withdrawn', { where: { barcode: [...barcodes] } });
  return new Map(
    gone.map(({ value: { copy, title, withdrawnOn } }) => [
      copy.barcode,
      `This barcode was on ${quoted(title)}, withdrawn on ${withdrawnOn}.`,
    ]),
  );
}

/** Looks at a scanned barcode before it is used: its form, what has it, whether it was withdrawn before. */
export async function lookAtBarcode(
  { store }: { readonly store: Store },
  raw: string,
  terms?: BarcodeTerms,
): Promise<BarcodeLook> {
  const [barcode = ''] = await scannedCodes(store, [raw]);
  const { rules, rolls } = terms ?? (await barcodeTerms(store));
  const roll = rollOf(rolls, barcode);
  return {
    barcode,
    problem: barcodeProblem(barcode, rules),
    spoiled: roll && spoiledIn(roll, barcode),
    holder: await barcodeHolder(store, barcode),
    withdrawn: (await withdrawnBarcodes(store, [barcode])).get(barcode) ?? null,
  };
}

/** Who sets the rolls up may take a number of a reserved one. */
export const mayOverruleRolls = ({ role, rights }: Person): boolean => may(role, 'set up', rights);

/** A barcode that a copy is to have. */
interface Wanted {
  readonly barcode: string;
  /** Code of the copy's supplier; '' for none. */
  readonly supplier: string;
  readonly keepBarcode: boolean;
  /** The copy that it is for, which may have it already; null for a new one. */
  readonly own: number | null;
  /** The person may take a number of a roll that is reserved for somebody else. */
  readonly mayOverrule?: boolean;
}

/** A barcode as it will be kept. */
interface BarcodeToBe {
  readonly barcode: string;
  readonly problems: FieldProblem[];
  /** The name of the reserved roll of which the person takes a number on purpose. */
  readonly overruled?: string;
}

/** The barcode as it will be kept, with what is wrong with it: taken, not in the library's form, or of somebody else's roll. */
export async function barcodeToBe(
  store: Store,
  { barcode: raw, supplier, keepBarcode, own, mayOverrule = false }: Wanted,
  lists: CodeLists,
  terms?: BarcodeTerms,
): Promise<BarcodeToBe> {
  const by = terms ?? (await barcodeTerms(store));
  const { barcode, problem, holder, withdrawn, spoiled } = await lookAtBarcode({ store }, raw, by);
  const named = lists.suppliers.find((l) => l.code === supplier)?.name ?? supplier;
  const roll = rollOf(by.rolls, barcode);
  // Numbers of a roll that is reserved for a supplier are for what comes from that supplier.
  const reserved = roll && roll.supplier !== '' && ![supplier, named].includes(roll.supplier) ? roll : null;
  const isOverruled = keepBarcode && mayOverrule;
  const taken = holder && holder.copy !== own ? [holder.sentence] : [];
  // A label that was given up is used again only on purpose.
  const doubtful = keepBarcode ? [] : [problem, holder ? null : withdrawn, spoiled].filter((m) => m !== null);
  const foreign = reserved && !isOverruled ? [reservedFor(barcode, reserved)] : [];
  const overrulable = taken.length === 0 && (foreign.length === 0 || mayOverrule);
  return {
    barcode,
    problems: [...taken, ...doubtful, ...foreign].map((message) => ({
      field: 'barcode',
      message,
      ...(overrulable && { overrulable }),
    })),
    ...(reserved && isOverruled && { overruled: reserved.name }),
  };
}

/** The roll that a barcode is a number of. */
const rollOf = (rolls: readonly LabelRoll[], barcode: string): LabelRoll | null =>
  rolls.find((roll) => serialIn(roll, barcode) !== null) ?? null;

const reservedFor = (barcode: string, { name, supplier }: LabelRoll): string =>
  `Barcode ${groupedBarcode(barcode)} belongs to the label roll ${quoted(name)}, which is reserved for ${supplier}.`;
