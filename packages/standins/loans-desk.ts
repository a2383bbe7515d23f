import { createServer, type Server } from 'node:net';

/** A loan: the barcode and the day it is due (ISO date). */
export interface Loan {
  readonly barcode: string;
  readonly due: string;
}

const stamp = () => {
  const [day, time] = new Date().toISOString().split('T') as [string, string];
  return `${day.replaceAll('-', '')}    ${time.slice(0, 8).replaceAll(':', '')}`;
};

/**
 * A simulated lending system that speaks SIP2: item information (17 → 18) and checkin (09 → 10). Circulation status is
 * 04 (charged) with the due date in AH, else 03 (available).
 */
export function loansDesk(loans: readonly Loan[]): Server {
  const due = new Map(loans.map((l) => [l.barcode, l.due]));
  const answer = (message: string): string => {
    const barcode =
      /\|AB([^|]*)\||AO\|AB([^|]*)\|/.exec(message)?.[1] ?? /AB([^|]*)\|/.exec(message)?.[1] ?? '';
    if (message.startsWith('17')) {
      const on = due.get(barcode);
      return `18${on ? '04' : '03'}0001${stamp()}${on ? `AH${on}|` : ''}AB${barcode}|AJ|`;
    }
    if (message.startsWith('09')) {
      const was = due.delete(barcode);
      return `10${was ? '1' : '0'}YNN${stamp()}AO|AB${barcode}|AQ|AJ|`;
    }
    return '96';
  };
  return createServer((socket) => {
    let rest = '';
    socket.on('data', (data) => {
      const lines = (rest + data.toString('utf8')).split('\r');
      rest = lines.pop()!;
      const answers = lines
        .map((l) => l.trim())
        .filter(Boolean)
        .map(answer);
      if (answers.length) socket.write(answers.map((a) => `${a}\r`).join(''));
    });
    socket.on('error', () => socket.destroy());
  });
}
