import { api, type StripPart } from '@osier/contract';
import type { Spine } from '@osier/core/stocktake';
import { useQueries } from '@tanstack/react-query';
import { call } from '../../api/call';
import { queries } from '../../api/queries';

/** Spines of one piece, as the server cuts the picture of a walk. */
const PART = 500;

const isWrong = (spine: Spine): boolean => spine.state !== 'in place' || spine.jumped !== undefined;
/** Spines of a piece. */
export const lengthOf = ({ states }: StripPart): number =>
  Object.entries(states).reduce((n, [state, of]) => (state === 'jumped' ? n : n + of), 0);
/** Spines of a piece that are to be looked at. */
export const wrongOf = ({ states }: StripPart): number =>
  lengthOf({ states, run: 0, part: 0 }) - (states['in place'] ?? 0);

const piece = (stocktake: number, run: number, part: number) => ({
  queryKey: [`/stocktakes/${stocktake}/spines`, run, part],
  queryFn: () => call(api.stocktakes.spines, { params: { id: stocktake }, query: { run, part } }),
});

/** The spines of a walk, of which only the pieces that are looked at are read. */
export function useSpines(stocktake: number, parts: readonly StripPart[], wanted: readonly number[]) {
  const run = parts[0]?.run ?? 0;
  const shown = parts.filter((p) => wanted.includes(p.part));
  const read = useQueries({ queries: shown.map((p) => piece(stocktake, run, p.part)) });
  const loaded = new Map(shown.map((p, i) => [p.part, read[i]?.data ?? []]));
  const at = (index: number): Spine | undefined => loaded.get(Math.floor(index / PART))?.[index % PART];
  /** The next spine that is to be looked at behind one. */
  const nextWrong = async (from: number): Promise<number> => {
    for (const p of parts) {
      if ((p.part + 1) * PART <= from + 1 || (wrongOf(p) === 0 && !p.states.jumped)) continue;
      const spines = await queries.fetchQuery(piece(stocktake, run, p.part));
      const found = spines.findIndex((s, i) => p.part * PART + i > from && isWrong(s));
      if (found >= 0) return p.part * PART + found;
    }
    return from;
  };
  /** Where the spine with a code stands, among the pieces that were read. */
  const indexOf = (code: string): number | null => {
    for (const [part, spines] of loaded) {
      const found = spines.findIndex((s) => s.code === code);
      if (found >= 0) return part * PART + found;
    }
    return null;
  };
  return { at, nextWrong, indexOf, total: parts.reduce((n, p) => n + lengthOf(p), 0) };
}

/** The pieces that spines from one to another are in, with those beside them. */
export const partsAround = (first: number, last: number): readonly number[] => {
  const [from, to] = [Math.max(0, Math.floor(first / PART)), Math.floor(last / PART)];
  return Array.from({ length: to - from + 1 }, (_, i) => from + i);
};
