import { setImmediate } from 'node:timers/promises';
import { giveWay } from './give-way';

/** Milliseconds of computing after which others have their turn. */
const SLICE = 8;

/** Maps things one after the other. After every few milliseconds whoever else has something to do comes in between: nobody waits for all of them. */
export async function inSlices<T, R>(things: Iterable<T>, map: (thing: T) => R): Promise<R[]> {
  const mapped: R[] = [];
  let began = performance.now();
  for (const thing of things) {
    mapped.push(map(thing));
    if (performance.now() - began < SLICE) continue;
    await setImmediate();
    await giveWay();
    began = performance.now();
  }
  return mapped;
}
