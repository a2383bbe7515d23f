import type { NeighbourAnswer, NeighbourRecord, NeighbourRow } from '@osier/contract';
import { columnAt, MATERIAL } from '@osier/core/access';
import { describe, type Description } from '@osier/core/matching';
import {
  bookFacts,
  groupedByWork,
  ratingOf,
  worthOf,
  type BookFacts,
  type HouseTaste,
  type Rating,
  type Worth,
} from '@osier/core/neighbours';

/** A record of a neighbour as one of those to choose from. */
export interface BookCandidate {
  readonly key: string;
  readonly neighbour: NeighbourRow;
  readonly record: NeighbourRecord;
  readonly facts: BookFacts;
  readonly worth: Worth;
  readonly rating: Rating;
  readonly description: Description;
}

/** Candidates of one work, edition by edition. */
export type WorkEditions = readonly (readonly BookCandidate[])[];

/** An answer, or that it is still to come. */
export type AnswerSoFar = NeighbourAnswer | 'asking';

/** The records of all answers, rated, by work and edition; the best first. */
export function worksOf(
  answers: Readonly<Record<number, AnswerSoFar>>,
  neighbours: readonly NeighbourRow[],
  taste: HouseTaste,
): WorkEditions[] {
  const all = neighbours.flatMap((neighbour) => {
    const answer = answers[neighbour.id];
    return answer === undefined || answer === 'asking'
      ? []
      : answer.records.map((record, i) => candidateOf(neighbour, record, i, taste));
  });
  const groups = groupedByWork(all.map(({ description, rating }) => ({ description, score: rating.score })));
  return groups.map(({ editions }) => editions.map(({ records }) => records.map((i) => all[i]!)));
}

function candidateOf(
  neighbour: NeighbourRow,
  record: NeighbourRecord,
  i: number,
  taste: HouseTaste,
): BookCandidate {
  const { marc, errors, warnings } = record;
  const worth = { ...worthOf(marc), date: record.changed };
  const { trust, materials } = neighbour.neighbour;
  return {
    key: `${neighbour.id} ${i}`,
    neighbour,
    record,
    facts: bookFacts(marc),
    worth,
    rating: ratingOf(
      { worth, material: columnAt(MATERIAL, marc), errors, warnings, trust, goodFor: materials },
      taste,
    ),
    description: describe(marc),
  };
}

/** The candidates one after another, as they are offered. */
export const inOffer = (works: readonly WorkEditions[]): BookCandidate[] => works.flat(2);

/** The one that is shown: the chosen one, else the best that was not put aside. */
export function shownCandidate(
  all: readonly BookCandidate[],
  chosen: string | null,
  rejected: readonly string[],
): BookCandidate | null {
  return all.find((c) => c.key === chosen) ?? all.find((c) => !rejected.includes(c.key)) ?? all[0] ?? null;
}
