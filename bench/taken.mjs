// What part of the processors' time others on the same host took meanwhile: in an hour in which it is much, everything takes longer.
import { existsSync, readFileSync } from 'node:fs';

const STAT = '/proc/stat';

/** Time of all processors since the machine began, and what of it others took (`steal`, man 5 proc); null where the system does not say. */
function times() {
  if (!existsSync(STAT)) return null;
  const [user, nice, system, idle, iowait, irq, softirq, steal] = readFileSync(STAT, 'utf8')
    .split('\n')[0]
    .split(/\s+/)
    .slice(1)
    .map(Number);
  return { all: user + nice + system + idle + iowait + irq + softirq + steal, taken: steal };
}

/** Begins to watch; the function that it gives says what part was taken since, null where the system does not say. */
export function takenByOthers() {
  const began = times();
  return () => {
    const now = times();
    return began && now ? (now.taken - began.taken) / (now.all - began.all || 1) : null;
  };
}
