/** A heading as far as it counts for being kept. */
export interface Keepable {
  readonly id: number;
  readonly text: string;
  readonly records: number;
  readonly isEstablished: boolean;
  /** The registry has this form. */
  readonly isOfRegistry?: boolean;
}
/** Why a form is suggested. */
export type SuggestedFor = 'registry' | 'established' | 'fullest' | 'most used' | 'first';

/**
 * The form that is offered to be kept, and why: the one that the registry has, then one that somebody established before one that only records have, then the one that says
 * most, then the one that most records carry. At least one is given.
 */
export function suggestedForm(forms: readonly Keepable[]): {
  readonly id: number;
  readonly why: SuggestedFor;
} {
  const [best, next] = forms.toSorted(
    (a, b) =>
      Number(b.isOfRegistry ?? false) - Number(a.isOfRegistry ?? false) ||
      Number(b.isEstablished) - Number(a.isEstablished) ||
      b.text.length - a.text.length ||
      b.records - a.records ||
      a.id - b.id,
  );
  if (!best) throw new Error('No form is given.');
  if (!next) return { id: best.id, why: 'first' };
  if ((best.isOfRegistry ?? false) !== (next.isOfRegistry ?? false)) return { id: best.id, why: 'registry' };
  if (best.isEstablished !== next.isEstablished) return { id: best.id, why: 'established' };
  if (best.text.length !== next.text.length) return { id: best.id, why: 'fullest' };
  return { id: best.id, why: best.records === next.records ? 'first' : 'most used' };
}
