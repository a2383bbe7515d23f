import { withdrawalsWords as wording } from './words';

/** A name for a list of today that no other list has. */
export function nameOfToday(taken: readonly string[]): string {
  const name = wording.discards(new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long' }));
  const free = (n: number) => (n === 1 ? name : `${name} (${n})`);
  let n = 1;
  while (taken.includes(free(n))) n++;
  return free(n);
}
