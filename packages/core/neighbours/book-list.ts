import { describe } from '../matching';
import type { MarcRecord } from '../marc';
import { groupedByWork } from './editions';
import { ratingOf, worthOf, type HouseTaste } from './worth';
import { materialOf } from '../format';

/** How a book of a list stands. `waiting`: not looked for yet; `twice`: its number stands in the list before. */
export const BOOK_STATES = [
  'waiting',
  'found',
  'several',
  'here',
  'not found',
  'failed',
  'no number',
  'twice',
] as const;
export type BookState = (typeof BOOK_STATES)[number];

/** A record that a neighbour has, with what speaks for it. */
export interface BookRecord {
  readonly marc: MarcRecord;
  readonly errors: number;
  readonly warnings: number;
  readonly neighbour: {
    readonly id: number;
    readonly name: string;
    readonly trust: number;
    readonly materials: readonly string[];
  };
}

/** Which of the records that were found is taken for a book of a list, and whether it is plain that it is the one. */
export function chosenForBook(
  records: readonly BookRecord[],
  taste: HouseTaste,
): { readonly state: 'found' | 'several'; readonly best: BookRecord; readonly reason: string } | null {
  const rated = records.map((r) => ({
    record: r,
    description: describe(r.marc),
    rating: ratingOf(
      {
        worth: worthOf(r.marc),
        material: materialOf(r.marc.leader),
        errors: r.errors,
        warnings: r.warnings,
        trust: r.neighbour.trust,
        goodFor: r.neighbour.materials,
      },
      taste,
    ),
  }));
  const works = groupedByWork(rated.map(({ description, rating }) => ({ description, score: rating.score })));
  const [first] = works;
  const best = first && rated[first.editions[0]!.records[0]!];
  if (!best) return null;
  const things = works.reduce((n, w) => n + w.editions.length, 0);
  const said = best.rating.reasons.slice(0, 2).join(', ');
  return {
    state: things === 1 ? 'found' : 'several',
    best: best.record,
    reason: things === 1 ? said : `${things} different things have this number; the best is ${said}`,
  };
}
