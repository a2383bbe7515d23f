/** How much of a stocktake is found. */
export function Progress({ part, whole, name }: { part: number; whole: number; name: string }) {
  return (
    <progress className="progress" aria-label={`Found in ${name}`} value={part} max={Math.max(1, whole)} />
  );
}
