import type { LoanAnswer, LoanState } from '@osier/core/holdings';

/**
 * Messages of the 3M Standard Interchange Protocol 2.00. A message is a code of two digits, a fixed part, and fields of a
 * code of two letters with a value up to `|`. With error detection it ends in AY (sequence number) and AZ (checksum).
 */

/** Circulation status of an item information response (18), by its number; 01 (other) and any other is not known. */
const STATES: Readonly<Record<string, LoanState>> = {
  '02': 'on order',
  '03': 'available',
  '04': 'on loan',
  '05': 'on loan',
  '06': 'in process',
  '07': 'on loan',
  '08': 'on the hold shelf',
  '09': 'to be re-shelved',
  '10': 'in transit',
  '11': 'claimed returned',
  '12': 'lost',
  '13': 'missing',
};

const two = (n: number) => String(n).padStart(2, '0');

/** Date form: YYYYMMDD, four blanks for local time, HHMMSS. */
export const stamp = (d: Date): string =>
  `${d.getFullYear()}${two(d.getMonth() + 1)}${two(d.getDate())}    ${two(d.getHours())}${two(d.getMinutes())}${two(d.getSeconds())}`;

/** A value as it may stand in a field: nothing in it ends the field or the message. */
export const plain = (text: string): string => text.replace(/[|\u0000-\u001f\u007f]/g, '');

/** Checksum: the two's complement of the sum of all characters up to and with `AZ`, as four hexadecimal digits. */
export function checksum(message: string): string {
  const sum = Buffer.from(message, 'utf8').reduce((n, byte) => n + byte, 0);
  return (-sum & 0xffff).toString(16).toUpperCase().padStart(4, '0');
}

/** A message with its sequence number and checksum. */
export function sealed(message: string, sequence: number): string {
  const open = `${message}AY${sequence}AZ`;
  return open + checksum(open);
}

/** What a line from the desk is to a question. */
export type Heard<T> = { readonly answer: T } | 'for another question' | 'not understood';

/** Takes AY and AZ off a line; null when its checksum is wrong, or it is for another question. */
function opened(line: string, sequence: number): string | null {
  const sealedWith = /AY(\d)(?:AZ([0-9A-Fa-f]{4}))?$/.exec(line);
  if (!sealedWith) return line;
  const [whole, number, sum] = sealedWith;
  if (Number(number) !== sequence) return null;
  if (sum !== undefined && checksum(line.slice(0, -4)) !== sum.toUpperCase()) return null;
  return line.slice(0, -whole.length);
}

/** Fields behind the fixed part; null where there is anything that is no field. */
function fieldsOf(text: string): ReadonlyMap<string, string> | null {
  const fields = new Map<string, string>();
  let rest = text;
  while (rest !== '') {
    const field = /^([A-Z][A-Z0-9])([^|]*)\|/.exec(rest);
    if (!field) return null;
    if (!fields.has(field[1]!)) fields.set(field[1]!, field[2]!);
    rest = rest.slice(field[0].length);
  }
  return fields;
}

const ITEM = /^18(\d{2})\d{2}\d{2}(\d{8}.{4}\d{6})(.*)$/s;

/** Reads an item information response (18) for one barcode. */
export function itemAnswer(line: string, barcode: string, sequence: number): Heard<LoanAnswer> {
  const message = opened(line, sequence);
  if (message === null) return 'for another question';
  const found = ITEM.exec(message);
  const fields = found && fieldsOf(found[3]!);
  if (!found || !fields) return 'not understood';
  if (fields.get('AB')?.trim() !== plain(barcode)) return 'for another question';
  const state = STATES[found[1]!] ?? 'not known';
  const [fee, currency] = [fields.get('BV')?.trim() ?? '', fields.get('BH')?.trim() ?? ''];
  return {
    answer: {
      ...{ state, due: state === 'on loan' ? dayOf(fields.get('AH') ?? '') : '' },
      ...(/[1-9]/.test(fee) && { charge: [fee, currency].filter(Boolean).join(' ').slice(0, 30) }),
    },
  };
}

/** A due date as the desk gives it: the protocol's own form, or a text, of which a leading ISO date is taken. */
function dayOf(text: string): string {
  const own = /^(\d{4})(\d{2})(\d{2})(.{4}\d{6})?$/.exec(text.trim());
  if (own) return `${own[1]}-${own[2]}-${own[3]}`;
  return /^\d{4}-\d{2}-\d{2}/.exec(text)?.[0] ?? text.trim().slice(0, 30);
}

const UPDATED = /^20([01])\d{8}.{4}\d{6}(.*)$/s;
const CHECKED_IN = /^10([01])[YN][YNU][YN]\d{8}.{4}\d{6}(.*)$/s;

/** Reads the answer to an item status update (20) for one barcode: whether the desk took it. */
export const updateAnswer = (line: string, barcode: string, sequence: number): Heard<boolean> =>
  takenAnswer(line, barcode, sequence, UPDATED);

/** Reads the answer to a checkin (10) for one barcode: whether the desk took it. */
export const checkinAnswer = (line: string, barcode: string, sequence: number): Heard<boolean> =>
  takenAnswer(line, barcode, sequence, CHECKED_IN);

function takenAnswer(line: string, barcode: string, sequence: number, form: RegExp): Heard<boolean> {
  const message = opened(line, sequence);
  if (message === null) return 'for another question';
  const found = form.exec(message);
  const fields = found && fieldsOf(found[2]!);
  if (!found || !fields) return 'not understood';
  if (fields.get('AB')?.trim() !== plain(barcode)) return 'for another question';
  return { answer: found[1] === '1' };
}

/** Reads the answer to a login (94): whether it was let in. */
export const loginAnswer = (line: string, sequence: number): Heard<boolean> =>
  codedAnswer(line, sequence, /^94([01])/);

/** Reads the status of the system (98): whether it is on line. */
export const statusAnswer = (line: string, sequence: number): Heard<boolean> =>
  codedAnswer(line, sequence, /^98([YN])/);

function codedAnswer(line: string, sequence: number, form: RegExp): Heard<boolean> {
  const message = opened(line, sequence);
  if (message === null) return 'for another question';
  const found = form.exec(message);
  return found ? { answer: found[1] === '1' || found[1] === 'Y' } : 'not understood';
}
