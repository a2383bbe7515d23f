import { editDistance } from '../../text';
import { compareDates, type DatesCompared } from './life-dates';
import { compareGiven, compareSurnames, type GivenCompared, type SurnameFit } from './name-parts';
import { toldWords, type NamedPerson } from './person';
import { different, perhaps, same, unlike, type Judged } from './verdict';

/** What else is known of two names. */
export interface PersonEvidence {
  /** Titles, co-authors, publishers or subjects that both have, as phrases. */
  readonly shared: readonly string[];
  /** Titles that are both's: the strongest of it. */
  readonly titles: number;
  /** The works of one cannot be those of the other, as a phrase. */
  readonly against: string | null;
  /** Nobody else of this name is there. */
  readonly isOnly: boolean;
  /** So many others would fit the shorter form as well. */
  readonly rivals: number;
  /** A see-from of one is the other. */
  readonly isSeeFrom: boolean;
  /** Both stand in one record, which is not about its author. */
  readonly isTogether: boolean;
}

const titleWords = (words: readonly string[]) =>
  words.filter(
    (w) =>
      ![
        'of',
        'the',
        'and',
        'dr',
        'prof',
        'professor',
        'rev',
        'reverend',
        'm',
        'd',
        'md',
        'phd',
        'ph',
        'esq',
        'hon',
        'author',
        'writer',
        'poet',
      ].includes(w),
  );

/** Whether two are one person. Dates that conflict are a veto; initials without dates are *perhaps* at best. */
export function comparePersons(a: NamedPerson, b: NamedPerson, known: PersonEvidence): Judged {
  if (a.isFamily !== b.isFamily) return different('one is a family');
  const dates = compareDates(a.dates, b.dates);
  if (dates.conflict) return different(dates.conflict);
  if (known.isTogether) return different('both stand in one record');
  if (a.number !== b.number) return different('the numeration differs');
  if (known.isSeeFrom) return same('one is a see-from of the other');
  if ((a.surname === '') !== (b.surname === '')) return crossOrder(a, b, dates);
  if (a.surname === '') return compareDirect(a, b, dates, known);
  const surname = compareSurnames(a, b);
  if (surname === null) return different('the surnames differ');
  const given = compareGiven(a.given, b.given);
  if (given.fit === null) {
    // Somebody who is called by the second forename.
    const isPartOf =
      a.given.length > 0 &&
      b.given.length > 0 &&
      (a.given.every((g) => b.given.includes(g)) || b.given.every((g) => a.given.includes(g)));
    return isPartOf && dates.agreeing >= 1 && surname === 'equal'
      ? perhaps(
          'the forenames are some of the other’s',
          dates.agreeing >= 2 ? 'both years agree' : 'one year agrees',
        )
      : different(...given.evidence);
  }
  const against = suffixOrTitle(a, b, dates, known.titles > 0);
  if (against === 'veto') return different('one has another suffix or title');
  return weighed({ surname, given, dates, against, a, b, known });
}

/** Suffixes and titles that tell persons of one name apart: a veto, or a doubt. */
function suffixOrTitle(
  a: NamedPerson,
  b: NamedPerson,
  dates: DatesCompared,
  isShared: boolean,
): 'veto' | 'doubt' | null {
  const isSure = dates.agreeing >= 2;
  if (a.suffix !== b.suffix) {
    if (a.suffix && b.suffix) return 'veto';
    return isSure ? null : dates.agreeing >= 1 ? 'doubt' : 'veto';
  }
  const isWoman = (p: NamedPerson) => p.words.includes('mrs');
  if (isWoman(a) !== isWoman(b)) return isSure ? null : 'veto';
  const [x, y] = [titleWords(a.words), titleWords(b.words)];
  if (x.length && y.length && !x.some((w) => y.includes(w)))
    return isSure ? null : dates.agreeing >= 1 ? 'doubt' : 'veto';
  const [q, r] = [a.qualifiers, b.qualifiers];
  const isApart = q.length > 0 && r.length > 0 && !q.some((w) => r.includes(w));
  if (isApart) return dates.agreeing >= 1 ? (isSure ? null : 'doubt') : 'veto';
  return q.length > 0 !== r.length > 0 && dates.agreeing < 1 && !isShared ? 'doubt' : null;
}

interface Weighing {
  readonly surname: Exclude<SurnameFit, null>;
  readonly given: GivenCompared;
  readonly dates: DatesCompared;
  readonly against: 'doubt' | null;
  readonly a: NamedPerson;
  readonly b: NamedPerson;
  readonly known: PersonEvidence;
}

const SURNAME_SAYS: Readonly<Record<Weighing['surname'], string>> = {
  equal: 'the surname is the same',
  particle: 'the surname is the same but for its particle',
  spelling: 'the surname is the same in another spelling',
  letter: 'the surnames differ by one letter',
  sound: 'the surnames may be two transliterations of one',
  part: 'one surname is part of the other',
};

function weighed({ surname, given, dates, against, a, b, known: all }: Weighing): Judged {
  const { agreeing } = dates;
  // With one year of birth, works that are too early for one are so for the other.
  const known = agreeing >= 1 ? { ...all, against: null } : all;
  const evidence = [
    SURNAME_SAYS[surname],
    ...given.evidence,
    agreeing >= 2
      ? 'both years agree'
      : agreeing >= 1
        ? 'one year agrees'
        : agreeing > 0
          ? 'the dates are near each other'
          : a.dates && b.dates
            ? 'the dates do not meet'
            : a.dates || b.dates
              ? 'only one has dates'
              : 'neither has dates',
    ...known.shared,
    ...(known.against ? [known.against] : []),
    ...(against ? ['one has a suffix or title that the other lacks'] : []),
  ];
  const isFull = given.fit === 'equal' && a.given.some((g) => g.length > 1);
  const isPlain = surname === 'equal' && given.fit !== 'letter' && given.fit !== 'sound';
  if (against) return known.against ? different(...evidence) : perhaps(...evidence);
  if (isPlain) {
    // A year that agrees settles it; that of an estimate only for a full name.
    if (agreeing >= 1 || (agreeing >= 0.5 && isFull)) return same(...evidence);
    if (known.against) return isFull && known.titles > 0 ? perhaps(...evidence) : different(...evidence);
    if (a.dates && b.dates)
      return isFull || known.titles > 0 || agreeing > 0 ? perhaps(...evidence) : unlike(...evidence);
    const isOneDated = (a.dates === null) !== (b.dates === null);
    if (isFull)
      return (isOneDated ? known.isOnly : known.rivals === 0) || known.titles > 0
        ? same(...evidence)
        : perhaps(...evidence);
    if (given.fit === 'equal') return known.titles > 0 ? same(...evidence) : perhaps(...evidence);
    if (given.fit === 'more') {
      const isLong =
        Math.min(a.given.length, b.given.length) >= 1 && [a, b].every((p) => p.given[0]!.length > 1);
      return isLong && known.titles > 0
        ? same(...evidence)
        : known.rivals > 2 && known.shared.length === 0
          ? unlike(...evidence)
          : perhaps(...evidence);
    }
    return known.rivals > 2 && known.shared.length === 0 ? unlike(...evidence) : perhaps(...evidence);
  }
  // A letter, a particle, another transliteration: only with years or titles.
  if (known.against) return different(...evidence);
  const isClose =
    (surname === 'particle' || surname === 'spelling') && given.fit !== 'letter' && given.fit !== 'sound';
  if (agreeing >= 2) {
    const twoSlips = surname !== 'equal' && (given.fit === 'letter' || given.fit === 'sound');
    return !twoSlips && (isClose || given.fit === 'equal' || surname === 'equal')
      ? same(...evidence)
      : perhaps(...evidence);
  }
  if (agreeing >= 1) return isClose ? same(...evidence) : perhaps(...evidence);
  if (known.titles > 0) return perhaps(...evidence);
  return isClose && isFull ? perhaps(...evidence) : unlike(...evidence);
}

/** "Amos Reedman" against "Reedman, Amos". */
function crossOrder(a: NamedPerson, b: NamedPerson, dates: DatesCompared): Judged {
  const [direct, inverted] = a.surname === '' ? [a, b] : [b, a];
  const whole = [...inverted.given, ...inverted.surname.split(' ')];
  const reversed = [...inverted.surname.split(' '), ...inverted.given];
  const text = direct.given.join(' ');
  if (text !== whole.join(' ') && text !== reversed.join(' ')) return different('the names differ');
  const isAddressedSo = direct.words.some((w) => inverted.words.includes(w));
  if (direct.given.length < 2 && !isAddressedSo) return different('one name alone');
  const evidence = ['the same words in another order'];
  return dates.agreeing >= 1 ? same(...evidence, 'a year agrees') : perhaps(...evidence);
}

/** Names in direct order: saints, kings, one-word names, pseudonyms. What stands behind them tells them apart. */
function compareDirect(a: NamedPerson, b: NamedPerson, dates: DatesCompared, known: PersonEvidence): Judged {
  const [x, y] = [a.given.join(' '), b.given.join(' ')];
  if (x !== y) {
    const isLetter = Math.min(x.length, y.length) >= 6 && editDistance(x, y, 1) === 1;
    return isLetter && dates.agreeing >= 1
      ? perhaps('the names differ by one letter', 'a year agrees')
      : toldWords(a).join(' ') === toldWords(b).join(' ')
        ? perhaps(
            'the same words, in the name and behind it',
            ...(dates.agreeing >= 1 ? ['a year agrees'] : []),
          )
        : different('the names differ');
  }
  const [p, q] = [titleWords(a.words), titleWords(b.words)];
  const common = p.filter((w) => q.includes(w)).length;
  if (p.length && q.length && common < Math.min(p.length, q.length))
    return different('the words behind the name differ');
  const evidence = ['the name is the same', ...known.shared];
  if (dates.agreeing >= 1) return same(...evidence, 'a year agrees');
  if (p.length === q.length && common === p.length && a.suffix === b.suffix) {
    const isUndated = !a.dates && !b.dates;
    return isUndated || known.isOnly ? same(...evidence, 'what stands behind it too') : perhaps(...evidence);
  }
  return known.rivals > 2
    ? different('several of that name')
    : perhaps(...evidence, 'only one has words behind it');
}
