import { useState } from 'react';
import { refresh } from '../api/queries';
import { problemText, RequestProblem } from '../api/request';
import { useShell } from '../shell/shell-store';

interface Told {
  readonly sentence: string;
  readonly entry: number | null;
}

/**
 * Does something that is kept: tells what was done and offers its undo, or keeps what the server said no with for the fields
 * it concerns. What concerns no field is told in the status line.
 */
export function useAct() {
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  /** Gives what was done, or null when it was refused. */
  const act = async <T extends Told>(doing: () => Promise<T>): Promise<T | null> => {
    try {
      const done = await doing();
      setProblem(null);
      say(done.sentence, done.entry);
      // What comes next does not wait until everything on screen is read again.
      void refresh();
      return done;
    } catch (e) {
      const fields = e instanceof RequestProblem && e.problem.fields?.length;
      setProblem(fields ? e : null);
      if (!fields) complain(problemText(e));
      return null;
    }
  };
  return { act, problem };
}
