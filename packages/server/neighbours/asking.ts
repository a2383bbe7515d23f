import type { Neighbour, Sought } from '@osier/core/neighbours';
import limited from 'p-limit';
import { failureOf } from './http-get';
import {
  NeighbourFailure,
  type FailureKind,
  type NeighbourPort,
  type PicturePort,
  type RawAnswer,
} from './ports';
import type { Secrets } from './secrets';

/** How a neighbour stands, as far as this server has seen. */
export interface NeighbourStanding {
  /** It is left out until then (milliseconds of the epoch); 0 for not at all. */
  readonly until: number;
  /** Since when it does not answer (milliseconds of the epoch). */
  readonly since: number;
  readonly why: string;
}

/** Asks neighbours, each by its own limits, and remembers which do not answer. */
export interface NeighbourAsking {
  /** Throws `NeighbourFailure`. `anyway`: one that is left out is asked all the same. */
  ask(
    id: number,
    neighbour: Neighbour,
    sought: Sought,
    how: { signal: AbortSignal; anyway?: boolean },
  ): Promise<RawAnswer>;
  /** What it says of itself, and what a search for something answers, whatever is remembered of it. */
  tryOut(
    neighbour: Neighbour,
    sought: Sought,
    signal: AbortSignal,
  ): Promise<{ readonly explain: Uint8Array | null; readonly answer: RawAnswer | NeighbourFailure }>;
  /** A picture that one of its records links to, within its limits; throws `NeighbourFailure`. */
  picture(id: number, neighbour: Neighbour, address: string, signal: AbortSignal): Promise<Uint8Array>;
  /** Null for one that is asked as usual. */
  standing(id: number): NeighbourStanding | null;
  /** It is asked again, as one that was changed. */
  forget(id: number): void;
}

/** Requests to one neighbour at a time: what libraries put up with from one another. */
const AT_ONCE = 2;
const FIRST_PAUSE = 60_000;
const LONGEST_PAUSE = 600_000;
/** Failures that a neighbour may have got over in a while. */
const PASSING: ReadonlySet<FailureKind> = new Set(['down', 'slow']);

/** Begins to ask, with nothing remembered. */
export function askingNeighbours(
  ports: Readonly<Record<Neighbour['protocol'], NeighbourPort>>,
  secrets: Secrets,
  pictures: PicturePort,
  now: () => number = Date.now,
): NeighbourAsking {
  const standings = new Map<number, NeighbourStanding & { readonly pause: number }>();
  const turnsOf = (most: number) => {
    const turns = new Map<number, ReturnType<typeof limited>>();
    return (id: number) => {
      const turn = turns.get(id) ?? limited(most);
      turns.set(id, turn);
      return turn;
    };
  };
  const turnOf = turnsOf(AT_ONCE);
  // A picture that is slow to come holds up no search.
  const pictureTurnOf = turnsOf(1);
  const refuseIfOut = (id: number, anyway: boolean) => {
    const standing = standings.get(id);
    if (standing && standing.until > now() && !anyway)
      throw new NeighbourFailure('down', `It is left out for a while: ${lowered(standing.why)}`);
  };
  const failed = (id: number, failure: NeighbourFailure) => {
    if (!PASSING.has(failure.kind)) return;
    const before = standings.get(id);
    const pause = before ? Math.min(before.pause * 2, LONGEST_PAUSE) : FIRST_PAUSE;
    standings.set(id, { until: now() + pause, since: before?.since ?? now(), why: failure.message, pause });
  };
  return {
    async ask(id, neighbour, sought, { signal, anyway = false }) {
      refuseIfOut(id, anyway);
      return turnOf(id)(async () => {
        // It may have gone down while this waited for its turn.
        refuseIfOut(id, anyway);
        try {
          const asked = { neighbour, password: await secrets.open(neighbour.secret) };
          const answer = await withinTime(neighbour.seconds, signal, (s) =>
            twiceIfBroken(s, () => ports[neighbour.protocol].search(asked, sought, s)),
          );
          standings.delete(id);
          return answer;
        } catch (error) {
          const failure = failureOf(error);
          failed(id, failure);
          throw failure;
        }
      });
    },
    async tryOut(neighbour, sought, signal) {
      const asked = { neighbour, password: await secrets.open(neighbour.secret) };
      const port = ports[neighbour.protocol];
      const explain = await withinTime(neighbour.seconds, signal, (s) => port.explain(asked, s)).catch(
        () => null,
      );
      const answer = await withinTime(neighbour.seconds, signal, (s) => port.search(asked, sought, s)).catch(
        failureOf,
      );
      return { explain, answer };
    },
    picture: (id, neighbour, address, signal) =>
      pictureTurnOf(id)(() => withinTime(neighbour.seconds, signal, (s) => pictures(neighbour, address, s))),
    standing(id) {
      const standing = standings.get(id);
      return standing && standing.until > now() ? standing : null;
    },
    forget: (id) => void standings.delete(id),
  };
}

const lowered = (sentence: string): string => sentence.charAt(0).toLowerCase() + sentence.slice(1);

/** Does something within so many seconds; what takes longer is a failure of its own, told as one. */
async function withinTime<T>(
  seconds: number,
  signal: AbortSignal,
  work: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const time = AbortSignal.timeout(seconds * 1000);
  try {
    return await work(AbortSignal.any([signal, time]));
  } catch (error) {
    if (time.aborted && !signal.aborted)
      throw new NeighbourFailure(
        'slow',
        `It did not answer within ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`,
      );
    throw error;
  }
}

/** A search changes nothing, so that one whose connection broke off is asked once more. */
async function twiceIfBroken<T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (signal.aborted || !(error instanceof NeighbourFailure) || !/broke the connection/.test(error.message))
      throw error;
    return work();
  }
}
