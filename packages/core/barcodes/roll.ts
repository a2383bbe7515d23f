import { checkCharacter, type CheckRule } from './check-character';
import { groupedBarcode } from './scan';

/** A reserved run of barcode numbers. */
export interface LabelRoll {
  readonly name: string;
  /** Letters or digits that every number of the roll begins with. */
  readonly prefix: string;
  /** First and last serial number. */
  readonly from: number;
  readonly to: number;
  /** Characters of a whole number, with the check character. */
  readonly length: number;
  /** How its last character is reckoned from the others. Rolls of old say only whether it is, by modulo 10. */
  readonly check: CheckRule | boolean;
  /** The supplier it is reserved for; empty for the library's own use. */
  readonly supplier: string;
  /** Codes of branches and types of the copies that it is meant for, where it is the library's own; none means any. */
  readonly branches?: readonly string[];
  readonly types?: readonly string[];
  /** What is to be known of it: where it lies, who printed it. */
  readonly note?: string;
  /** Serial numbers of spoiled or lost labels, which no copy is given: `105`, or a run of them, `130-139`. */
  readonly spoiled?: readonly string[];
  /** It is told when fewer numbers than this are left; 0 for never. */
  readonly warnBelow?: number;
  /** No number of it is given any more. */
  readonly isClosed?: boolean;
}

/** Serial numbers one after the other, both ends included. */
export interface SerialRun {
  readonly from: number;
  readonly to: number;
}

/** A run of serial numbers as it is typed (`105`, `130-139`), or one whole number of the roll; null for what is none of the roll. */
function runOf(roll: LabelRoll, typed: string): SerialRun | null {
  const text = typed.trim();
  const whole = text.length === roll.length ? serialIn(roll, text) : null;
  if (whole !== null) return { from: whole, to: whole };
  const [, first, last] = /^(\d+)(?:\s*[-–]\s*(\d+))?$/.exec(text) ?? [];
  if (first === undefined) return null;
  const run = { from: Number(first), to: Number(last ?? first) };
  return run.from >= roll.from && run.to <= roll.to && run.from <= run.to ? run : null;
}

/** The spoiled serial numbers in their order, runs that meet made one. */
export function spoiledRuns(roll: LabelRoll): SerialRun[] {
  const runs: SerialRun[] = [];
  const typed = (roll.spoiled ?? []).flatMap((text) => runOf(roll, text) ?? []);
  for (const run of typed.toSorted((a, b) => a.from - b.from)) {
    const last = runs.at(-1);
    if (last && run.from <= last.to + 1)
      runs[runs.length - 1] = { from: last.from, to: Math.max(last.to, run.to) };
    else runs.push(run);
  }
  return runs;
}

/** The spoiled serial numbers as they are kept: in order, once each. */
export const spoiledAsKept = (roll: LabelRoll): string[] =>
  spoiledRuns(roll).map(({ from, to }) => (from === to ? String(from) : `${from}-${to}`));

/** Whether a number of the roll is spoiled. */
export function isSpoiled(roll: LabelRoll, barcode: string): boolean {
  const serial = serialIn(roll, barcode);
  return serial !== null && spoiledRuns(roll).some((run) => run.from <= serial && serial <= run.to);
}

/** That the label of a number of the roll is spoiled, as a sentence; null where it is not. */
export const spoiledIn = (roll: LabelRoll, barcode: string): string | null =>
  isSpoiled(roll, barcode)
    ? `Barcode ${groupedBarcode(barcode)} is marked as spoiled in the label roll “${roll.name}”.`
    : null;

/** The rule by which the numbers of a roll end in a check character. */
export const rollCheck = ({ check }: Pick<LabelRoll, 'check'>): CheckRule =>
  typeof check === 'boolean' ? (check ? 'mod10' : 'none') : check;

const room = (roll: LabelRoll) => roll.length - roll.prefix.length - (rollCheck(roll) === 'none' ? 0 : 1);

/** The number with this serial. */
export function rollNumber(roll: LabelRoll, serial: number): string {
  const body = roll.prefix + String(serial).padStart(room(roll), '0');
  return body + (checkCharacter(rollCheck(roll), body.toUpperCase()) ?? '');
}

/** The serial of a number of the roll; null for a number that is not of it. */
export function serialIn(roll: LabelRoll, barcode: string): number | null {
  // A barcode is the same one in letters of either case.
  const upper = barcode.toUpperCase();
  const end = roll.prefix.length + room(roll);
  const digits = upper.slice(roll.prefix.length, end);
  if (upper.length !== roll.length || !upper.startsWith(roll.prefix.toUpperCase()) || !/^\d+$/.test(digits))
    return null;
  if (upper.slice(end) !== (checkCharacter(rollCheck(roll), upper.slice(0, end)) ?? '')) return null;
  const serial = Number(digits);
  return serial >= roll.from && serial <= roll.to ? serial : null;
}

/** The serial that is given behind the last that was used (null for none yet); null when the roll is at its end, or closed. */
export function nextSerial(roll: LabelRoll, lastUsed: number | null): number | null {
  if (roll.isClosed) return null;
  let next = lastUsed === null ? roll.from : lastUsed + 1;
  const pastSpoiled = () => {
    for (const run of spoiledRuns(roll)) if (run.from <= next && next <= run.to) next = run.to + 1;
  };
  pastSpoiled();
  // A blank may be the check character of Code 39: no scanner hands it on at the end of a code.
  while (next <= roll.to && rollNumber(roll, next).endsWith(' ')) {
    next++;
    pastSpoiled();
  }
  return next > roll.to ? null : next;
}

/** What of a roll is or was on a copy. */
export interface RollUse {
  /** How many numbers. */
  readonly used: number;
  /** The highest serial of them; null for none. */
  readonly last: number | null;
  /** How many of them are marked as spoiled, and were given to a copy on purpose. */
  readonly usedSpoiled: number;
}

/** How the numbers of a roll are accounted for: `all` is `used`, `spoiled`, `left` and `passed` together. */
export interface RollCounts {
  readonly all: number;
  readonly used: number;
  /** Spoiled ones that are on no copy. */
  readonly spoiled: number;
  /** Numbers behind the last that was used, which can still be given. */
  readonly left: number;
  /** Numbers before the last that was used which are on no copy: labels that were skipped. */
  readonly passed: number;
  /** Fewer are left than the roll wants to be told of. */
  readonly isLow: boolean;
}

/** Counts the numbers of a roll. */
export function rollCounts(roll: LabelRoll, { used, last: lastUsed, usedSpoiled }: RollUse): RollCounts {
  const all = roll.to - roll.from + 1;
  const last = lastUsed ?? roll.from - 1;
  const runs = spoiledRuns(roll);
  const spoiled = runs.reduce((n, run) => n + run.to - run.from + 1, 0) - usedSpoiled;
  const spoiledBehind = runs.reduce((n, run) => n + Math.max(0, run.to - Math.max(last, run.from - 1)), 0);
  const left = roll.to - last - spoiledBehind;
  return {
    ...{ all, used, spoiled, left, passed: all - used - spoiled - left },
    isLow: !roll.isClosed && left < (roll.warnBelow ?? 0),
  };
}

/** The numbers that two rolls share, as "9 to 12"; null for none. Letters are the same in either case, as in all barcodes. */
function sharedNumbers(a: LabelRoll, b: LabelRoll): string | null {
  if (a.length !== b.length) return null;
  const number = (r: LabelRoll, serial: number) => rollNumber(r, serial).toUpperCase();
  const [from, to] = [number(a, a.from), number(a, a.to)];
  const [first, last] = [number(b, b.from), number(b, b.to)];
  const begin = from > first ? from : first;
  const end = to < last ? to : last;
  if (begin > end) return null;
  return begin === end ? begin : `${begin} to ${end}`;
}

/** What is wrong with a roll, beside its field; `others` are the rolls there are already. */
export function rollProblems(
  roll: LabelRoll,
  others: readonly LabelRoll[],
): { field: keyof LabelRoll; message: string }[] {
  const problems: { field: keyof LabelRoll; message: string }[] = [];
  if (roll.name.trim() === '') problems.push({ field: 'name', message: 'Give the roll a name.' });
  if (!/^[A-Z0-9/.+-]*$/i.test(roll.prefix))
    problems.push({ field: 'prefix', message: 'The prefix has letters, digits and - . / + only.' });
  else if (
    rollCheck(roll) !== 'none' &&
    checkCharacter(rollCheck(roll), `${roll.prefix.toUpperCase()}0`) === null
  )
    problems.push({
      field: 'check',
      message: 'This check digit is reckoned from digits alone; the prefix has others.',
    });
  if (room(roll) < 1 || String(roll.to).length > room(roll))
    problems.push({
      field: 'length',
      message: `Numbers up to ${roll.to} do not fit: after the prefix${rollCheck(roll) === 'none' ? '' : ' and before the check character'} there is room for ${Math.max(0, room(roll))} digits.`,
    });
  if (roll.from < 0 || roll.to < roll.from)
    problems.push({ field: 'to', message: 'The last number is not before the first.' });
  const name = roll.name.trim().toLowerCase();
  if (others.some((o) => o.name.toLowerCase() === name))
    problems.push({ field: 'name', message: `There is a label roll “${roll.name.trim()}” already.` });
  const other = others.map((o) => ({ of: o, shared: sharedNumbers(o, roll) })).find((o) => o.shared !== null);
  if (roll.supplier.trim() !== '' && (roll.branches?.length || roll.types?.length))
    problems.push({
      field: 'supplier',
      message: 'A roll is reserved for a supplier, or meant for branches and types; not both.',
    });
  const noNumber = (roll.spoiled ?? []).find((text) => runOf(roll, text) === null);
  if (problems.length === 0 && noNumber !== undefined)
    problems.push({
      field: 'spoiled',
      message: `“${noNumber}” is no number of this roll. Type numbers from ${roll.from} to ${roll.to}, or runs of them like ${roll.from}-${Math.min(roll.to, roll.from + 9)}.`,
    });
  if (problems.length === 0 && other)
    problems.push({
      field: 'from',
      message: `Some of these numbers belong to the roll “${other.of.name}”: ${other.shared}.`,
    });
  return problems;
}
