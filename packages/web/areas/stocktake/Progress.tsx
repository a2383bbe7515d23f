import { stocktakeWords as wording } from './words';
/** How much of a stocktake is found. */
export function Progress({ part, whole, name }: { part: number; whole: number; name: string }) {
  return (
    <progress className="progress" aria-label={wording.foundIn(name)} value={part} max={Math.max(1, whole)} />
  );
}
