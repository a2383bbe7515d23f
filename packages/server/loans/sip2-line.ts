import { createConnection, type Socket } from 'node:net';
import { sealed, type Heard } from './sip2-message';

/** A message longer than this without an end is none. */
const LONGEST = 64 * 1024;
/** So many lines that answer nothing, and what is at the other end is no loans desk. */
const MOST_STRAY = 5;

/** One connection to the desk, with one question open at a time. */
export interface Line {
  /**
   * Sends a message and gives the first answer that is one to it, until the deadline (milliseconds of the clock). Rejects
   * when there is none; the line is closed then, so that a late answer meets no other question.
   */
  ask<T>(message: string, read: (line: string, sequence: number) => Heard<T>, deadline: number): Promise<T>;
  readonly open: boolean;
  close(): void;
}

/** Opens a connection. */
export function openLine(host: string, port: number): Line {
  let socket: Socket | null = createConnection({ host, port });
  let rest = '';
  let sequence = 0;
  let hear: (line: string) => void = () => undefined;
  let fail: (error: Error) => void = () => undefined;
  const end = (error: Error) => {
    socket?.destroy();
    socket = null;
    fail(error);
  };
  socket.setNoDelay(true);
  socket.on('error', end);
  socket.on('close', () => end(new Error('The loans desk closed the line.')));
  socket.on('data', (data) => {
    const lines = (rest + data.toString('utf8')).split(/[\r\n]+/);
    rest = lines.pop()!;
    if (rest.length > LONGEST) return end(new Error('The loans desk sent a message without an end.'));
    for (const line of lines) if (line.trim() !== '') hear(line.trim());
  });
  return {
    get open() {
      return socket !== null;
    },
    ask(message, read, deadline) {
      const mine = (sequence = (sequence + 1) % 10);
      return new Promise((resolve, reject) => {
        let stray = 0;
        const timer = setTimeout(
          () => end(new Error('The loans desk did not answer in time.')),
          Math.max(0, deadline - Date.now()),
        );
        const done = () => {
          clearTimeout(timer);
          hear = () => undefined;
          fail = () => undefined;
        };
        fail = (error) => (done(), reject(error));
        hear = (line) => {
          const heard = read(line, mine);
          if (typeof heard === 'object') return (done(), resolve(heard.answer));
          if (++stray >= MOST_STRAY) end(new Error('The loans desk does not speak SIP2.'));
        };
        if (socket === null) fail(new Error('The line is closed.'));
        else socket.write(`${sealed(message, mine)}\r`);
      });
    },
    close: () => end(new Error('The line was closed.')),
  };
}
