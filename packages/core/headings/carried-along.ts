import { sameValue, update, type ChangeOf, type Versioned } from '../changes';
import type { DataField, MarcRecord } from '../marc';
import { identityOf, isEstablished, keptForm, type Heading } from './heading';
import { formOfAuthority, standsIn } from './merge-form';
import { mergedHeadings, type MergeForms } from './merge-plan';
import { headingIdentity } from './normal-form';
import { punctuationOf, withForm } from './rewrite-field';

type Held = Versioned<Heading, 'heading'>;

/** A heading that has a lost form as its beginning, with the form (1XX) that it gets, and what it will be known by. */
export interface CarriedAlong {
  readonly held: Held;
  readonly form: DataField;
  readonly then: ReturnType<typeof identityOf>;
}

/**
 * The headings that carry a lost form at their beginning, with the kept one in its place: a name before a title, a subject before its
 * subdivisions. Those that are the lost form itself are none.
 */
export const carriedAlong = ({ kept, lost }: MergeForms, headings: readonly Held[]): CarriedAlong[] =>
  headings.flatMap((held): CarriedAlong[] => {
    const { marc } = held.value;
    const own = keptForm(held.value);
    const whole = formOfAuthority(marc);
    for (const form of lost) {
      const part = standsIn(form, own);
      if (!part || !whole || whole.vocabulary !== form.vocabulary) continue;
      if (part.at.length === whole.subfields.length) continue;
      const next = withForm(own, part, kept, punctuationOf(marc));
      return [{ held, form: next, then: identityOf(withKeptForm(held.value, next)) }];
    }
    return [];
  });

const withKeptForm = (heading: Heading, form: DataField): Heading => {
  const own = keptForm(heading);
  const fields: MarcRecord['fields'] = heading.marc.fields.map((f) => (f === own ? form : f));
  return { ...heading, marc: { ...heading.marc, fields } };
};

/**
 * What becomes of headings that are carried along: they get their new forms; those that come to be one, or one that is there already
 * (`there`, by its identity), are merged into it. An established one keeps its old form as a see-from.
 */
export function changesAlong(
  along: readonly CarriedAlong[],
  there: ReadonlyMap<string, Held>,
): ChangeOf<'heading', Heading>[] {
  const together = new Map<string, CarriedAlong[]>();
  for (const one of along) {
    const identity = headingIdentity(one.then);
    together.set(identity, [...(together.get(identity) ?? []), one]);
  }
  return [...together].flatMap(([identity, ones]) => {
    const target = there.get(identity);
    if (target) return mergedHeadings({ kept: target, lost: ones.map((o) => o.held) });
    const first = ones.find((o) => isEstablished(o.held.value)) ?? ones[0]!;
    const lost = ones.filter((o) => o !== first).map((o) => o.held);
    if (lost.length > 0 || isEstablished(first.held.value))
      return mergedHeadings({ kept: first.held, lost, form: first.form });
    const after = withKeptForm(first.held.value, first.form);
    return sameValue(first.held.value, after) ? [] : [update('heading', first.held, after)];
  });
}
