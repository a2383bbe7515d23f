import { DEFAULT_RULE, findMatches, type Description, type Match } from '../matching';

/** Two records of the catalogue that may be one, the lower number first. */
export interface RecordPair {
  readonly a: number;
  readonly b: number;
  readonly strength: number;
  /** Surely the same; else it may be. */
  readonly sure: boolean;
  /** What they share, as it is told. */
  readonly why: string;
}

/** A record and those that share a key with it. */
export interface Compared {
  readonly record: number;
  readonly description: Description;
  readonly among: readonly { readonly record: number; readonly description: Description }[];
}

/** From this strength on two records without a number in common are worth a look: nearly the same description. */
const WORTH = 57;

/** The pairs that records make with those beside which they were found: the same matching by which deliveries find what is held. */
export function pairsOf(compared: Iterable<Compared>): RecordPair[] {
  const pairs = new Map<string, RecordPair>();
  for (const { record, description, among } of compared) {
    const others = among.filter((o) => o.record !== record);
    for (const match of findMatches(description, others, DEFAULT_RULE)) {
      if (!isWorthALook(match)) continue;
      const [a, b] = record < match.record ? [record, match.record] : [match.record, record];
      const why = match.points.map((p) => p.said).join(', ');
      pairs.set(`${a} ${b}`, { a, b, strength: match.strength, sure: match.sure, why });
    }
  }
  return [...pairs.values()];
}

const isWorthALook = ({ sure, doubts, strength }: Match): boolean =>
  sure || (doubts.length === 0 && strength >= WORTH);
