import { compareBodies } from './body';
import type { Form } from './forms';
import { comparePersons, type PersonEvidence } from './compare-persons';
import type { NamedPerson } from './person';
import type { Body } from './body';
import { different, perhaps, type Judged } from './verdict';
import { compareWorks } from './work';

/** Nothing is known beside the two forms, and nobody else is there. */
export const NOTHING_KNOWN: PersonEvidence = {
  shared: [],
  titles: 0,
  against: null,
  isOnly: true,
  rivals: 0,
  isSeeFrom: false,
  isTogether: false,
};

const isPerson = (by: NamedPerson | Body): by is NamedPerson => 'surname' in by;

/** Whether two forms of one type are one heading. */
export function compareForms(
  a: Omit<Form, 'text'>,
  b: Omit<Form, 'text'>,
  known: PersonEvidence = NOTHING_KNOWN,
): Judged {
  if (a.type !== b.type || a.vocabulary !== b.vocabulary) return different('another kind or vocabulary');
  const [x, y] = [a.parts, b.parts];
  if (x.as !== 'work' && y.as !== 'work' && x.more !== y.more)
    return different('what follows the name differs');
  if (x.as === 'person' && y.as === 'person') return comparePersons(x.person, y.person, known);
  if (x.as === 'body' && y.as === 'body') return compareBodies(x.body, y.body, known);
  if (x.as !== 'work' || y.as !== 'work') return different('another kind');
  const works = compareWorks(x.work, y.work, known);
  if (works.verdict === 'different' || (x.by === null && y.by === null) || known.isSeeFrom) return works;
  if (x.by === null || y.by === null) return different('only one has a name before it');
  if (isPerson(x.by) !== isPerson(y.by)) return different('the names before them are of two kinds');
  // A title that is the same speaks for the names as a shared title does; generic ones do not.
  const of = { ...NOTHING_KNOWN, titles: 0 };
  const names =
    isPerson(x.by) && isPerson(y.by)
      ? comparePersons(x.by, y.by, of)
      : !isPerson(x.by) && !isPerson(y.by)
        ? compareBodies(x.by, y.by, of)
        : different();
  const evidence = [...works.evidence, ...names.evidence];
  if (names.verdict === 'different') return different(...evidence);
  return works.verdict === 'same' && names.verdict === 'same'
    ? { verdict: 'same', evidence }
    : perhaps(...evidence);
}
