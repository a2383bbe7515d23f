import { inRounds, type BookRecord, type Neighbour, type Sought } from '@osier/core/neighbours';
import type { Services } from '../services';
import { NeighbourFailure } from './ports';
import { readFrom } from './read-from';

/** A neighbour that can be asked. */
export interface Askable {
  readonly id: number;
  readonly value: Neighbour;
}

/** The neighbours that are used, in rounds as the house has it. */
export async function neighbourRounds({ store }: Pick<Services, 'store'>): Promise<Askable[][]> {
  const used = (await store.find('neighbour')).filter((n) => n.value.isUsed);
  const isAtOnce = (await store.house()).value.askNeighbours === 'at once';
  return inRounds(
    used.map(({ id, value }) => ({ id, value, neighbour: value })),
    isAtOnce,
  );
}

/** What asking neighbours came to. */
export interface AllAsked {
  readonly found: readonly BookRecord[];
  /** What each that failed is told by, as sentences. */
  readonly failures: readonly string[];
  /** Those that answered, whatever they have. */
  readonly answered: readonly number[];
}

/** Asks neighbours for something, round after round until one has it. */
export async function askAll(
  services: Services,
  sought: Sought,
  rounds: readonly (readonly Askable[])[],
  signal: AbortSignal,
): Promise<AllAsked> {
  const found: BookRecord[] = [];
  const failures: string[] = [];
  const answered: number[] = [];
  const ask = async ({ id, value }: Askable): Promise<void> => {
    try {
      const answer = await services.neighbours.asking.ask(id, value, sought, { signal });
      const { state, message, records } = await readFrom(services, value, answer);
      if (state === 'failed') return void failures.push(`${value.name}: ${message}`);
      answered.push(id);
      const { name, trust, materials } = value;
      for (const { marc, errors, warnings } of records)
        found.push({ marc, errors, warnings, neighbour: { id, name, trust, materials } });
    } catch (error) {
      if (!(error instanceof NeighbourFailure)) throw error;
      failures.push(`${value.name}: ${error.message}`);
    }
  };
  for (const round of rounds) {
    if (signal.aborted || found.length) break;
    await Promise.all(round.map(ask));
  }
  return { found, failures, answered };
}

/** A signal that says when a job is cancelled, and the way to stop listening for that. */
export function cancelledSignal(cancelled: () => boolean): { readonly signal: AbortSignal; stop(): void } {
  const gone = new AbortController();
  const looks = setInterval(() => cancelled() && gone.abort(), 200);
  return { signal: gone.signal, stop: () => clearInterval(looks) };
}
