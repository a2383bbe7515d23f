import type { RecordReader } from './reader';
import type { ReadRecord } from './repair';

/** A reader that keeps one record back, so that what stands behind the last record is told with that record. */
export function withLeftover(reader: RecordReader): Omit<RecordReader, 'leftover'> {
  let kept: ReadRecord | undefined;
  const passOn = (found: readonly ReadRecord[]): ReadRecord[] => {
    const all = kept ? [kept, ...found] : [...found];
    kept = all.pop();
    return all;
  };
  return {
    push: (chunk) => passOn(reader.push(chunk)),
    end() {
      const all = passOn(reader.end());
      const behind = reader.leftover();
      return kept ? [...all, behind.length ? { ...kept, repairs: [...kept.repairs, ...behind] } : kept] : all;
    },
    problem: () => reader.problem(),
  };
}
