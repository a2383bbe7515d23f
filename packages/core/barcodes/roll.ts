import { checkDigit, hasRightCheckDigit } from './check-character';

/** A reserved run of barcode numbers. */
export interface LabelRoll {
  readonly name: string;
  /** Letters or digits that every number of the roll begins with. */
  readonly prefix: string;
  /** First and last serial number. */
  readonly from: number;
  readonly to: number;
  /** Characters of a whole number, with the check digit. */
  readonly length: number;
  /** Whether the last digit is a check digit. */
  readonly check: boolean;
  /** The supplier it is reserved for; empty for the library's own use. */
  readonly supplier: string;
}

const room = (roll: LabelRoll) => roll.length - roll.prefix.length - (roll.check ? 1 : 0);

/** The number with this serial. */
export function rollNumber(roll: LabelRoll, serial: number): string {
  const digits = roll.prefix + String(serial).padStart(room(roll), '0');
  return roll.check ? digits + checkDigit(digits) : digits;
}

/** The serial of a number of the roll; null for a number that is not of it. */
export function serialIn(roll: LabelRoll, barcode: string): number | null {
  // A barcode is the same one in letters of either case.
  const isOfRoll = barcode.toUpperCase().startsWith(roll.prefix.toUpperCase());
  if (barcode.length !== roll.length || !isOfRoll || !/^\d+$/.test(barcode.slice(roll.prefix.length)))
    return null;
  if (roll.check && !hasRightCheckDigit(barcode)) return null;
  const serial = Number(barcode.slice(roll.prefix.length, roll.prefix.length + room(roll)));
  return serial >= roll.from && serial <= roll.to ? serial : null;
}

/** The serial behind the last that was used (null for none yet); null when the roll is at its end. */
export function nextSerial(roll: LabelRoll, lastUsed: number | null): number | null {
  const next = lastUsed === null ? roll.from : lastUsed + 1;
  return next > roll.to ? null : next;
}

/** How many numbers it has, and how many can still be given behind the last that was used (null for none yet). */
export const rollCounts = (roll: LabelRoll, lastUsed: number | null) => ({
  all: roll.to - roll.from + 1,
  left: roll.to - (lastUsed ?? roll.from - 1),
});

/** What is wrong with a roll, beside its field; `others` are the rolls there are already. */
export function rollProblems(
  roll: LabelRoll,
  others: readonly LabelRoll[],
): { field: keyof LabelRoll; message: string }[] {
  const problems: { field: keyof LabelRoll; message: string }[] = [];
  if (roll.name.trim() === '') problems.push({ field: 'name', message: 'Give the roll a name.' });
  if (!/^[A-Z0-9/.+-]*$/i.test(roll.prefix))
    problems.push({ field: 'prefix', message: 'The prefix has letters, digits and - . / + only.' });
  else if (roll.check && /\D/.test(roll.prefix))
    problems.push({
      field: 'check',
      message: 'A check digit is reckoned from digits alone; the prefix has others.',
    });
  if (room(roll) < 1 || String(roll.to).length > room(roll))
    problems.push({
      field: 'length',
      message: `Numbers up to ${roll.to} do not fit: after the prefix${roll.check ? ' and before the check digit' : ''} there is room for ${Math.max(0, room(roll))} digits.`,
    });
  if (roll.from < 0 || roll.to < roll.from)
    problems.push({ field: 'to', message: 'The last number is not before the first.' });
  const name = roll.name.trim().toLowerCase();
  if (others.some((o) => o.name.toLowerCase() === name))
    problems.push({ field: 'name', message: `There is a label roll “${roll.name.trim()}” already.` });
  const other = others.find(
    (o) =>
      o.length === roll.length &&
      rollNumber(o, o.from) <= rollNumber(roll, roll.to) &&
      rollNumber(roll, roll.from) <= rollNumber(o, o.to),
  );
  if (problems.length === 0 && other)
    problems.push({ field: 'from', message: `Some of these numbers belong to the roll “${other.name}”.` });
  return problems;
}
