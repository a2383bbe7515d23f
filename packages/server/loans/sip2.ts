import { createConnection, type Socket } from 'node:net';
import type { LoansDesk } from './ports';

const PATIENCE = 4000;
const REMEMBERED = 20_000;
/** Circulation status "charged" (3M Standard Interchange Protocol 2.00, item information response). */
const CHARGED = '04';

interface Waiting {
  resolve: (line: string) => void;
  reject: (error: Error) => void;
}

/**
 * The loans desk over SIP2 (item information 17/18, checkin 09/10), at `sip2://host:port`. One that says nothing for
 * `patience` milliseconds does not answer.
 */
export function sip2LoansDesk(address: string, patience = PATIENCE): LoansDesk {
  const { hostname, port } = new URL(address);
  let socket: Socket | null = null;
  const waiting: Waiting[] = [];
  let rest = '';
  const remembered = new Map<string, { due: string; at: number }>();

  const fail = (error: Error) => {
    socket?.destroy();
    socket = null;
    rest = '';
    for (const w of waiting.splice(0)) w.reject(error);
  };
  const connect = (): Socket => {
    if (socket) return socket;
    socket = createConnection({ host: hostname, port: Number(port) });
    socket.setNoDelay(true);
    socket.setTimeout(patience, () => waiting.length && fail(new Error('The loans desk did not answer.')));
    socket.on('error', fail);
    socket.on('close', () => fail(new Error('The loans desk closed the line.')));
    socket.on('data', (data) => {
      const lines = (rest + data.toString('utf8')).split('\r');
      rest = lines.pop()!;
      for (const line of lines) if (line.trim()) waiting.shift()?.resolve(line.trim());
    });
    return socket;
  };
  const ask = (messages: readonly string[]): Promise<string[]> => {
    const line = connect();
    const answers = messages.map(
      () => new Promise<string>((resolve, reject) => void waiting.push({ resolve, reject })),
    );
    line.write(messages.map((m) => `${m}\r`).join(''));
    return Promise.all(answers);
  };

  return {
    configured: true,
    async dueDates(barcodes) {
      const now = Date.now();
      const stale = [...new Set(barcodes)].filter((b) => (remembered.get(b)?.at ?? 0) < now - REMEMBERED);
      try {
        if (stale.length) {
          const answers = await ask(stale.map((b) => `17${stamp(new Date())}AO|AB${plain(b)}|AC|`));
          answers.forEach((answer, i) => remembered.set(stale[i]!, { due: dueIn(answer), at: now }));
        }
      } catch {
        return null;
      }
      return new Map(barcodes.map((b) => [b, remembered.get(b)?.due ?? '']));
    },
    async takeReturn(barcode) {
      try {
        const [answer] = await ask([
          `09N${stamp(new Date())}${stamp(new Date())}AP|AO|AB${plain(barcode)}|AC|`,
        ]);
        remembered.delete(barcode);
        return answer!.startsWith('101');
      } catch {
        return false;
      }
    },
    close: () => socket?.destroy(),
  };
}

/** Due date of an item information response: AH where the status is "charged". */
function dueIn(answer: string): string {
  if (!answer.startsWith('18') || answer.slice(2, 4) !== CHARGED) return '';
  return /\|AH([^|]*)\|/.exec(answer.replace(/^18.{6}.{18}/, '|'))?.[1]?.slice(0, 10) || 'date not given';
}

const plain = (text: string) => text.replace(/[|\r\n]/g, '');

/** SIP2 date: YYYYMMDD, four blanks for local time, HHMMSS. */
export function stamp(date: Date): string {
  const [day, time] = date.toISOString().split('T') as [string, string];
  return `${day.replaceAll('-', '')}    ${time.slice(0, 8).replaceAll(':', '')}`;
}
