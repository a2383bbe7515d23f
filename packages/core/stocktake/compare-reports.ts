/** Copies of a class or location by what became of them. */
export interface CountedGroup {
  readonly name: string;
  readonly outcomes: Readonly<Record<string, number>>;
}

/** How many copies were looked for, how many of them are missing, and that of a hundred (two decimals). */
export interface Loss {
  readonly looked: number;
  readonly missing: number;
  readonly rate: number;
}

/** A class or location in two stocktakes; null where one of them has none of it. */
export interface ComparedGroup {
  readonly name: string;
  readonly now: Loss | null;
  readonly then: Loss | null;
}

/** Missing of the copies that were looked for: those that stood and those that did not. Copies on skipped shelves were not looked for. */
export function lossOf(outcomes: Readonly<Record<string, number>>): Loss {
  const missing = outcomes.missing ?? 0;
  const looked = (outcomes.stood ?? 0) + missing;
  return { looked, missing, rate: looked === 0 ? 0 : Math.round((missing / looked) * 10_000) / 100 };
}

/** Two stocktakes side by side: the groups of the first in their order, then those that only the second has. */
export function compareGroups(now: readonly CountedGroup[], then: readonly CountedGroup[]): ComparedGroup[] {
  const before = new Map(then.map((g) => [g.name, lossOf(g.outcomes)]));
  const names = new Set(now.map((g) => g.name));
  return [
    ...now.map(({ name, outcomes }) => ({ name, now: lossOf(outcomes), then: before.get(name) ?? null })),
    ...then.flatMap(({ name }) =>
      names.has(name) ? [] : [{ name, now: null, then: before.get(name) ?? null }],
    ),
  ];
}
