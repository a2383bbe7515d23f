import { isOwnWork } from './feed';
import { Patience } from './patience';

/** How many requests that read are being answered; every thread of the process may look. */
export const ANSWERING = new Int32Array(new SharedArrayBuffer(4));

const patience = new Patience();
let waiting: (() => void)[] = [];

/** Does the work of a request that somebody waits for in front of a screen: long work lets it go first. */
export async function goesFirst<T>(work: () => Promise<T>): Promise<T> {
  ANSWERING[0]!++;
  try {
    return await work();
  } finally {
    ANSWERING[0]!--;
    if (ANSWERING[0] === 0) {
      const those = waiting;
      waiting = [];
      Atomics.notify(ANSWERING, 0);
      for (const goOn of those) goOn();
    }
  }
}

/**
 * Lets requests go first between two steps of long work: waits while one is being answered, but never longer than has been worked, so that the work
 * comes to its end however much is asked. The work of a request itself does not wait.
 */
export async function giveWay(): Promise<void> {
  if (!ANSWERING[0] || !isOwnWork()) return;
  for (let left = patience.left(); left >= 1 && ANSWERING[0]; left = patience.left()) {
    const began = performance.now();
    await answered(left);
    patience.waited(performance.now() - began);
  }
}

/** Until no request is being answered, or some milliseconds are over. */
const answered = (most: number): Promise<void> =>
  new Promise((resolve) => {
    const timer = setTimeout(resolve, most);
    waiting.push(() => {
      clearTimeout(timer);
      resolve();
    });
  });
