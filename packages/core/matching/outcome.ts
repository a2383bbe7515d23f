import type { Match } from './match';

/** What is done with an incoming record. `ask` leaves it waiting until a person has chosen. */
export const OUTCOMES = ['add', 'replace', 'merge', 'copies', 'skip', 'ask'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** What is done, as the daybook and every screen call it. */
export const OUTCOME_NAMES: Record<Outcome, string> = {
  ask: 'ask me',
  add: 'add as new',
  replace: 'replace',
  merge: 'merge fields',
  copies: 'attach copies only',
  skip: 'skip',
};

/** What is done on one, several or no matches. */
export interface Actions {
  readonly one: Outcome;
  readonly several: Outcome;
  readonly none: Outcome;
}
/** What is proposed where no supplier sheet says otherwise. */
export const DEFAULT_ACTIONS: Actions = { one: 'ask', several: 'ask', none: 'add' };

/** Outcomes that need a record of the catalogue. */
export const needsTarget = (outcome: Outcome): boolean =>
  outcome === 'replace' || outcome === 'merge' || outcome === 'copies';

/** What the actions make of the matches. Where anything is doubtful, or the file has the record twice, a person is asked. */
export function proposedOutcome(
  matches: readonly Match[],
  repeats: number | null,
  actions: Actions,
): { readonly outcome: Outcome; readonly target: number | null } {
  const sure = matches.filter((m) => m.sure);
  const target = matches[0]?.record ?? null;
  if (sure.length === 1 && repeats === null) return { outcome: actions.one, target };
  if (sure.length > 1) {
    const outcome = needsTarget(actions.several) ? 'ask' : actions.several;
    return { outcome: repeats === null ? outcome : 'ask', target };
  }
  if (matches.length > 0 || repeats !== null) return { outcome: 'ask', target };
  return { outcome: needsTarget(actions.none) ? 'ask' : actions.none, target: null };
}
