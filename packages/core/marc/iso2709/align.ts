import { SUBFIELD } from './delimiters';
import type { Slot } from './slot';
import type { Entry } from './entries';
import type { Repair } from '../repair';

interface Piece {
  readonly start: number;
  readonly end: number;
}
interface Told {
  readonly code: Repair['code'];
  readonly message: string;
  readonly repaired: boolean;
  /** Bytes of a piece that no entry names. */
  readonly lost?: Uint8Array;
}

/** What a step of the alignment takes: entries and pieces, and what it costs. */
type Step = 'pair' | 'join' | 'cut' | 'no-data' | 'no-entry';
const TAKES: Record<Step, readonly [entries: number, pieces: number]> = {
  pair: [1, 1],
  join: [1, 2],
  cut: [2, 1],
  'no-data': [1, 0],
  'no-entry': [0, 1],
};
const MOST_CELLS = 4_000_000;

/**
 * Lays the entries of a directory along the pieces between field terminators, as two sequences are aligned: equal
 * lengths count most; a stray terminator joins two pieces, a missing one cuts a piece in two; what has no partner is
 * told. Slots come in the order of the directory.
 */
export function alignFields(
  bytes: Uint8Array,
  base: number,
  entries: readonly Entry[],
  pieces: readonly Piece[],
): { slots: Slot[]; told: Told[] } {
  const byPlace = [...entries].sort((a, b) => a.claimed - b.claimed || a.order - b.order);
  const candidates = [entries];
  if (entries.every((e) => e.claimed >= 0) && byPlace.some((e, i) => e !== entries[i]))
    candidates.push(byPlace);
  const best = candidates
    .map((order) => ({ order, ...cheapest(bytes, base, order, pieces) }))
    .reduce((a, b) => (b.cost < a.cost ? b : a));
  const placed: { order: number; slot: Slot }[] = [];
  const told: Told[] = [];
  let [e, p] = [0, 0];
  for (const step of best.steps) {
    const entry = best.order[e]!;
    const piece = pieces[p]!;
    const put = (of: Entry, start: number, end: number) =>
      placed.push({ order: of.order, slot: { tag: of.tag, start, end } });
    if (step === 'pair') put(entry, piece.start, piece.end);
    else if (step === 'join') {
      put(entry, piece.start, pieces[p + 1]!.end);
      told.push(
        say('field-terminator', `Field ${entry.tag} had a field terminator inside; it was left out.`),
      );
    } else if (step === 'cut') {
      const next = best.order[e + 1]!;
      const lost = piece.end - piece.start === entry.length + next.length - 1;
      const at = piece.start + entry.length - (lost ? 1 : 0);
      put(entry, piece.start, at);
      put(next, at, piece.end);
      told.push(say('field-terminator', `The field terminator after field ${entry.tag} was missing.`));
    } else if (step === 'no-data')
      told.push(say('directory', `The directory names a field ${entry.tag} that is not there.`, false));
    else
      told.push({
        ...say(
          'directory',
          `${piece.end - piece.start} bytes of a field that the directory does not name are kept apart.`,
          false,
        ),
        lost: bytes.slice(piece.start, piece.end),
      });
    e += TAKES[step][0];
    p += TAKES[step][1];
  }
  placed.sort((a, b) => a.order - b.order);
  return { slots: placed.map((x) => x.slot), told };
}

const say = (code: Repair['code'], message: string, repaired = true): Told => ({ code, message, repaired });

function cheapest(
  bytes: Uint8Array,
  base: number,
  entries: readonly Entry[],
  pieces: readonly Piece[],
): { cost: number; steps: Step[] } {
  const [n, m] = [entries.length, pieces.length];
  if ((n + 1) * (m + 1) > MOST_CELLS) return inOrder(n, m);
  const costs = new Float64Array((n + 1) * (m + 1)).fill(Infinity);
  const came = new Array<Step>((n + 1) * (m + 1));
  const cell = (i: number, j: number) => i * (m + 1) + j;
  costs[0] = 0;
  const length = (j: number) => pieces[j]!.end - pieces[j]!.start;
  const size = (pieces.at(-1)?.end ?? base) - base;
  for (let i = 0; i <= n; i++)
    for (let j = 0; j <= m; j++) {
      const here = costs[cell(i, j)]!;
      if (here === Infinity) continue;
      const go = (step: Step, cost: number) => {
        const to = cell(i + TAKES[step][0], j + TAKES[step][1]);
        if (here + cost < costs[to]!) {
          costs[to] = here + cost;
          came[to] = step;
        }
      };
      const said = entries[i]?.length ?? -1;
      if (i < n && j < m) go('pair', pairCost(bytes, base, entries[i]!, pieces[j]!));
      if (i < n && j + 1 < m && length(j) + length(j + 1) === said) go('join', 0.2);
      if (i + 1 < n && j < m && said > 0) {
        const next = entries[i + 1]!.length;
        const over = said + next - length(j);
        if (next > 0 && (over === 0 || over === 1))
          go('cut', isInPlace(base, entries[i]!, pieces[j]!) ? 0.2 : 0.5);
      }
      if (i < n) go('no-data', entries[i]!.claimed >= size ? 0.3 : 1.2);
      if (j < m) go('no-entry', 1.2);
    }
  const steps: Step[] = [];
  for (let i = n, j = m; i > 0 || j > 0;) {
    const step = came[cell(i, j)]!;
    steps.push(step);
    i -= TAKES[step][0];
    j -= TAKES[step][1];
  }
  return { cost: costs[cell(n, m)]!, steps: steps.reverse() };
}

/**
 * Equal lengths fit, and so does the place that the entry gives, which decides where a field broke off; a data field has
 * its delimiter behind two indicators, a control field has none.
 */
function pairCost(bytes: Uint8Array, base: number, entry: Entry, piece: Piece): number {
  const same = entry.length === piece.end - piece.start;
  const inPlace = isInPlace(base, entry, piece);
  const isControl = entry.tag.startsWith('00');
  const looksLikeData = bytes[piece.start + 2] === SUBFIELD;
  const unlike = entry.length < 0 ? 0.6 : inPlace ? 0.5 : 1;
  return (same ? 0 : unlike) + (inPlace ? 0 : 0.01) + (isControl === looksLikeData ? 0.3 : 0);
}

const isInPlace = (base: number, entry: Entry, piece: Piece) => entry.claimed === piece.start - base;

function inOrder(n: number, m: number): { cost: number; steps: Step[] } {
  const both = Math.min(n, m);
  return {
    cost: Math.max(n, m),
    steps: [
      ...new Array<Step>(both).fill('pair'),
      ...new Array<Step>(n - both).fill('no-data'),
      ...new Array<Step>(m - both).fill('no-entry'),
    ],
  };
}
