import { api } from '@osier/contract';
import { create } from 'zustand';
import { call } from '../../api/call';
import { queries } from '../../api/queries';
import { problemText } from '../../api/request';
import type { AnswerSoFar } from './candidates';

interface AskingState {
  /** What is looked for; '' for nothing. */
  readonly text: string;
  readonly answers: Readonly<Record<number, AnswerSoFar>>;
  /** Records whose cover is that of another book. */
  readonly wrongCovers: readonly string[];
  /** The record that was chosen by hand, and those that were put aside. */
  readonly chosen: string | null;
  readonly rejected: readonly string[];
  /** Asks neighbours for a text, round after round until one has it. */
  begin(text: string, rounds: readonly (readonly number[])[]): void;
  /** Asks those that were not asked yet. */
  further(neighbours: readonly number[]): void;
  /** Asks one once more, also one that is left out for a while. */
  again(neighbour: number): void;
  /** Waits no longer for those that have not answered. */
  stop(): void;
  clear(): void;
  choose(key: string | null): void;
  reject(key: string): void;
  /** Says that the cover of a record is wrong, or that it is not. */
  markCover(key: string): void;
}

/** Neighbours that are asked at once: a browser has few connections, and other work needs some of them. */
const AT_ONCE = 3;
const NOTHING = { answers: {}, chosen: null, rejected: [], wrongCovers: [] };
let running = new AbortController();

/** Looking for a book among the neighbours: it goes on while other areas are open. */
export const useAsking = create<AskingState>((set, get) => {
  const ask = async (neighbour: number, anyway: boolean): Promise<boolean> => {
    const { text } = get();
    const { signal } = running;
    const put = (answer: AnswerSoFar) => {
      if (!signal.aborted) set({ answers: { ...get().answers, [neighbour]: answer } });
    };
    put('asking');
    try {
      const query = { text, ...(anyway && { anyway: '1' }) };
      const answer = await call(api.neighbours.find, { params: { id: neighbour }, query, signal });
      put(answer);
      // Whether it is left out from now on, or no longer, is told in other places too.
      if (anyway || answer.state === 'failed')
        for (const path of ['/neighbours', '/outside']) void queries.invalidateQueries({ queryKey: [path] });
      return answer.state === 'found' && answer.records.length > 0;
    } catch (e) {
      const message = problemText(e);
      put({ state: 'failed', message, told: [], count: 0, milliseconds: 0, records: [] });
      return false;
    }
  };
  /** Whether one of them has it. */
  const atOnce = async (neighbours: readonly number[], signal: AbortSignal): Promise<boolean> => {
    const left = [...neighbours];
    let isFound = false;
    const next = async (): Promise<void> => {
      const neighbour = left.shift();
      if (neighbour === undefined || signal.aborted) return;
      if (await ask(neighbour, false)) isFound = true;
      await next();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, next));
    return isFound;
  };
  const inTurn = async (rounds: readonly (readonly number[])[], signal: AbortSignal) => {
    for (const round of rounds) if (signal.aborted || (await atOnce(round, signal))) return;
  };
  const anew = () => {
    running.abort();
    running = new AbortController();
    return running.signal;
  };
  return {
    text: '',
    ...NOTHING,
    begin(text, rounds) {
      const signal = anew();
      set({ ...NOTHING, text });
      void inTurn(rounds, signal);
    },
    further(neighbours) {
      const { answers } = get();
      void atOnce(
        neighbours.filter((n) => answers[n] === undefined),
        running.signal,
      );
    },
    again: (neighbour) => void ask(neighbour, true),
    stop() {
      anew();
      const answered = Object.entries(get().answers).filter(([, a]) => a !== 'asking');
      set({ answers: Object.fromEntries(answered) });
    },
    clear() {
      anew();
      set({ ...NOTHING, text: '' });
    },
    choose: (chosen) => set({ chosen }),
    markCover(key) {
      const { wrongCovers } = get();
      const isWrong = wrongCovers.includes(key);
      set({ wrongCovers: isWrong ? wrongCovers.filter((k) => k !== key) : [...wrongCovers, key] });
    },
    reject: (key) => set({ rejected: [...get().rejected, key], chosen: null }),
  };
});
