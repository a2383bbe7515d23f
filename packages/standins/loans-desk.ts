import { createServer, type Server } from 'node:net';

/** A loan: the barcode and the day it is due (ISO date). */
export interface Loan {
  readonly barcode: string;
  readonly due: string;
}

const two = (n: number) => String(n).padStart(2, '0');
const stamp = () => {
  const d = new Date();
  return `${d.getFullYear()}${two(d.getMonth() + 1)}${two(d.getDate())}    ${two(d.getHours())}${two(d.getMinutes())}${two(d.getSeconds())}`;
};
const checksum = (text: string) =>
  (-Buffer.from(text, 'utf8').reduce((n, b) => n + b, 0) & 0xffff)
    .toString(16)
    .toUpperCase()
    .padStart(4, '0');

/**
 * A simulated lending system that speaks SIP2 with error detection: item information (17 → 18), status (99 → 98), login
 * (93 → 94), item status update (19 → 20), checkin (09 → 10). Circulation status is 04 (charged) with the due date in AH, 01 (other) for a copy that it was told is withdrawn,
 * else 03 (available), or what `states` says. It takes no update about a copy that is on loan, and checks in none that is not. A copy that is
 * lost (12) is charged for until it is told of.
 */
export function loansDesk(loans: readonly Loan[], states: Readonly<Record<string, string>> = {}): Server {
  const due = new Map(loans.map((l) => [l.barcode, l.due]));
  const gone = new Set<string>();
  /** Copies of which it was told something other than that they are withdrawn. */
  const told = new Set<string>();
  const item = (message: string): string => {
    const barcode = /\|AB([^|]*)\|/.exec(message)?.[1] ?? '';
    const on = due.get(barcode);
    const state =
      (told.has(barcode) ? undefined : states[barcode]) ?? (gone.has(barcode) ? '01' : on ? '04' : '03');
    const charge = state === '12' ? 'BV18.00|BHGBP|' : '';
    return `18${state}0001${stamp()}${on ? `AH${on}|` : ''}${charge}AB${barcode}|AJ|`;
  };
  const update = (message: string): string => {
    const barcode = /\|AB([^|]*)\|/.exec(message)?.[1] ?? '';
    const says = /\|CH([^|]*)\|/.exec(message)?.[1] ?? '';
    const isTaken = !due.has(barcode);
    if (isTaken && says.startsWith('withdrawn')) gone.add(barcode);
    if (isTaken && !says.startsWith('withdrawn')) {
      gone.delete(barcode);
      told.add(barcode);
    }
    return `20${isTaken ? 1 : 0}${stamp()}AB${barcode}|AJ|CH${says}|`;
  };
  const checkin = (message: string): string => {
    const barcode = /\|AB([^|]*)\|/.exec(message)?.[1] ?? '';
    return `10${due.delete(barcode) ? 1 : 0}YNN${stamp()}AO|AB${barcode}|AQ|AJ|`;
  };
  const answer = (message: string): string => {
    if (message.startsWith('09')) return checkin(message);
    if (message.startsWith('19')) return update(message);
    if (message.startsWith('17')) return item(message);
    if (message.startsWith('99')) return `98YYNNNN600003${stamp()}2.00AO|BXYYNYNYYYNNNNNNNN|`;
    if (message.startsWith('93')) return '941';
    return '96';
  };
  const sealed = (message: string): string => {
    const sequence = /AY(\d)AZ[0-9A-F]{4}$/.exec(message)?.[1];
    if (sequence === undefined) return answer(message);
    const open = `${answer(message)}AY${sequence}AZ`;
    return open + checksum(open);
  };
  return createServer((socket) => {
    let rest = '';
    socket.on('data', (data) => {
      const lines = (rest + data.toString('utf8')).split('\r');
      rest = lines.pop()!;
      const answers = lines
        .map((l) => l.trim())
        .filter(Boolean)
        .map(sealed);
      if (answers.length) socket.write(answers.map((a) => `${a}\r`).join(''));
    });
    socket.on('error', () => socket.destroy());
  });
}
