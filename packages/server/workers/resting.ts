import { workerData } from 'piscina';
import { Patience, sleepWhileAsked } from '../store/patience';

const answering: unknown = workerData;
const patience = new Patience();

/**
 * Gives things one after the other to work that nobody waits for: between two of them its thread sleeps while requests are being answered, for no
 * longer than it has worked. Outside the pool's threads nothing is waited for.
 */
export function* resting<T>(things: Iterable<T>): Generator<T> {
  for (const thing of things) {
    if (answering instanceof Int32Array) sleepWhileAsked(answering, patience);
    yield thing;
  }
}
