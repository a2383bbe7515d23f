import { OSIER } from '../jobs/jobs';
import { checkRegistryAtNight } from '../registry/check';
import type { Services } from '../services';
import { beginGrowing, GROWS } from './grow-records';
import { neighbourRounds } from './ask-all';
import { lastBegun } from './queries';

/** Hours of the night in which its work may begin: what is missed then is left for the next one, not done by day. */
const NIGHT = 4;
const HOUR = 60 * 60 * 1000;
const LOOKS = 10 * 60 * 1000;

/** When the night began that it is in (milliseconds); null by day, and where there is no work at night. */
export function nightSince({ settings }: Services, now: Date): number | null {
  if (settings.nightHour === null) return null;
  const hours = (now.getHours() - settings.nightHour + 24) % 24;
  if (hours >= NIGHT) return null;
  return now.getTime() - hours * HOUR - now.getMinutes() * 60_000 - now.getSeconds() * 1000 - 1000;
}

/** Begins the night's asking for brief records, where it is night, the house has it so, and it was not begun this night. */
export async function beginAtNight(services: Services, now: Date): Promise<boolean> {
  const { store, jobs } = services;
  const dusk = nightSince(services, now);
  if (dusk === null) return false;
  if (!((await store.house()).value.askAtNight ?? true)) return false;
  const last = await lastBegun(store, GROWS);
  if (last && Date.parse(last.started) >= dusk) return false;
  if (jobs.running().some((j) => j.kind === GROWS)) return false;
  if ((await store.table('brief_records').count({})) === 0) return false;
  if ((await neighbourRounds(services)).length === 0) return false;
  await beginGrowing(services, OSIER);
  return true;
}

/** Looks now and then whether it is night. Gives the way to stop looking. */
export function everyNight(services: Services): () => void {
  const looks = setInterval(() => {
    const now = new Date();
    const since = nightSince(services, now);
    Promise.all([
      beginAtNight(services, now),
      since === null ? undefined : checkRegistryAtNight(services, since),
    ]).catch((error: unknown) => services.log.error({ err: error }, 'the work of the night was not begun'));
  }, LOOKS);
  looks.unref();
  return () => clearInterval(looks);
}
