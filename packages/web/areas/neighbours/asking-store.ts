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
  /** The record that was chosen by hand, and those that were put aside. */
  readonly chosen: string | null;
  readonly rejected: readonly string[];
  /** Asks neighbours for a text: one after another until one has it, or all of them. */
  begin(text: string, neighbours: readonly number[], inTurn: boolean): void;
  /** Asks those that were not asked yet. */
  further(neighbours: readonly number[]): void;
  /** Asks one once more, also one that is left out for a while. */
  again(neighbour: number): void;
  /** Waits no longer for those that have not answered. */
  stop(): void;
  clear(): void;
  choose(key: string | null): void;
  reject(key: string): void;
}

/** Neighbours that are asked at once: a browser has few connections, and other work needs some of them. */
const AT_ONCE = 3;
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
  const inTurn = async (neighbours: readonly number[], signal: AbortSignal) => {
    for (const neighbour of neighbours) {
      if (signal.aborted || (await ask(neighbour, false))) return;
    }
  };
  const atOnce = async (neighbours: readonly number[], signal: AbortSignal) => {
    const left = [...neighbours];
    const next = async (): Promise<void> => {
      const neighbour = left.shift();
      if (neighbour === undefined || signal.aborted) return;
      await ask(neighbour, false);
      await next();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, next));
  };
  const anew = () => {
    running.abort();
    running = new AbortController();
    return running.signal;
  };
  return {
    text: '',
    answers: {},
    chosen: null,
    rejected: [],
    begin(text, neighbours, isInTurn) {
      const signal = anew();
      set({ text, answers: {}, chosen: null, rejected: [] });
      void (isInTurn ? inTurn : atOnce)(neighbours, signal);
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
      set({ text: '', answers: {}, chosen: null, rejected: [] });
    },
    choose: (chosen) => set({ chosen }),
    reject: (key) => set({ rejected: [...get().rejected, key], chosen: null }),
  };
});
