import { compareForms, NOTHING_KNOWN } from './compare-forms';
import { perhaps, type Judged } from './verdict';
import type { Form, FormUse } from './forms';
import { isPlausible } from './life-dates';
import type { PersonEvidence } from './compare-persons';

/** A form with what its records say. */
export interface Used {
  readonly form: Form;
  readonly use: FormUse;
}

const common = (a: ReadonlySet<unknown>, b: ReadonlySet<unknown>): number => {
  const [few, many] = a.size <= b.size ? [a, b] : [b, a];
  let n = 0;
  for (const one of few) if (many.has(one)) n++;
  return n;
};

const times = (n: number, one: string, many: string) => (n === 1 ? one : `${n} ${many}`);

/** What the records say of two headings. */
function recordEvidence(
  a: Used,
  b: Used,
): Pick<PersonEvidence, 'shared' | 'titles' | 'against' | 'isSeeFrom' | 'isTogether'> {
  const titles = common(a.use.titles, b.use.titles);
  const names = common(a.use.names, b.use.names);
  const [publishers, subjects] = [
    common(a.use.publishers, b.use.publishers),
    common(a.use.subjects, b.use.subjects),
  ];
  const dated = [a, b].map((n) => (n.form.parts.as === 'person' ? n.form.parts.person.dates : null));
  const isOff =
    isPlausible(dated[0]!, [...b.use.years]) === false || isPlausible(dated[1]!, [...a.use.years]) === false;
  return {
    shared: [
      ...(titles ? [times(titles, 'a title is in both', 'titles are in both')] : []),
      ...(names ? [times(names, 'they have a co-author in common', 'co-authors in common')] : []),
      ...(publishers ? ['a publisher in common'] : []),
      ...(subjects ? [times(subjects, 'a subject in common', 'subjects in common')] : []),
    ],
    titles: titles + names,
    against: isOff ? 'works of one appeared before the other was ten' : null,
    isSeeFrom: a.use.seeFroms.has(b.form.key) || b.use.seeFroms.has(a.form.key),
    isTogether: a.use.together.has(b.form.key) && a.form.type === 'personal',
  };
}

/** How much a form says of whom it means: dates first, then its length. */
export function fullness({ form: { parts, text } }: Used): number {
  if (parts.as !== 'person') return text.length;
  const { dates, given } = parts.person;
  return (dates ? 1000 : 0) + given.join('').length;
}

/** Whether two headings are one, by their forms and their records. `rivals` others would fit the form that says less as well. */
export function judgedWith(a: Used, b: Used, rivals: number): Judged {
  const judged = compareForms(a.form, b.form, {
    ...NOTHING_KNOWN,
    ...recordEvidence(a, b),
    rivals,
    isOnly: rivals === 0,
  });
  const isSeveral = a.use.isUndifferentiated || b.use.isUndifferentiated;
  return isSeveral && judged.verdict === 'same'
    ? perhaps(...judged.evidence, 'one stands for several persons')
    : judged;
}

/** The two with the one first that says less. */
export const shorterFirst = <U extends Used>(a: U, b: U): readonly [U, U] =>
  fullness(a) <= fullness(b) ? [a, b] : [b, a];
