import { creation, type ChangeOf, type Id } from '../changes';

/** What a person has said of two headings that look alike: they are different, or they are looked at later. */
export interface Distinct {
  readonly a: Id<'heading'>;
  readonly b: Id<'heading'>;
  /** Why they are different. */
  readonly reason?: string;
  /** Nothing is decided: they are put by. */
  readonly later?: true;
}

/** The change that notes such a pair, the lower number first. */
export const distinctChange = (
  id: Id<'distinct'>,
  a: Id<'heading'>,
  b: Id<'heading'>,
  said: Pick<Distinct, 'reason' | 'later'> = {},
): ChangeOf<'distinct', Distinct> =>
  creation('distinct', id, {
    ...{ a: Math.min(a, b), b: Math.max(a, b) },
    ...(said.reason ? { reason: said.reason } : {}),
    ...(said.later ? { later: true as const } : {}),
  });
