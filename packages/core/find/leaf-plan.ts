import { CONTROL_NUMBER, ISBN, ISSN, LCCN } from '../access';
import { fold, foldedWords } from '../text';
import {
  comparison,
  countTerm,
  flagPlan,
  isEqual,
  named,
  noRelation,
  noTerm,
  numberAsked,
  wholeTerm,
  tooManyWords,
  unguarded,
  type AskedCondition,
} from './asked';
import type { EntryOf, FindWhere, HeadingWhere, KeyPoint } from './indexes';
import { shelfPlaceOf, typedPrefix } from '../callnumbers';
import { withoutArticle } from './initial-article';
import {
  joinedPlans,
  type CommonLeaf,
  type Comparison,
  type FindPlan,
  type FindWord,
  type HeadingLeaf,
  type HeadingPlan,
  type Plan,
  type FindLeaf,
  type ValueTest,
  type WordsLeaf,
} from './plan';
import { CODE, MOST_WORDS, Unanswerable } from './unanswerable';

/** What one condition asks of records, with its values as they are kept. */
export function leafPlan(where: FindWhere, asked: AskedCondition): FindPlan {
  switch (where.as) {
    case 'everything':
      return { type: 'everything' };
    case 'words':
      return where.column === 'title' && asked.by === 'exact'
        ? titlePlan(asked)
        : wordsPlan(where.column, asked);
    case 'key':
      return keyPlan(where.point, asked);
    case 'value':
      return valuePlan(where, asked);
    case 'count':
      return { type: 'count', of: where.of, ...countTerm(asked) };
    case 'amount':
      return { type: 'amount', column: where.column, ...countTerm(asked) };
    case 'local':
      return textPlan<FindLeaf>(asked, (is, value, to = '') => ({
        type: 'local',
        is,
        value: fold(value),
        to,
      }));
    case 'number':
    case 'heading':
      return { type: where.as, id: numberAsked(asked, where.as === 'number' ? 'record' : 'heading') };
    case 'finding':
      if (!isEqual(asked)) throw noRelation(asked, '=');
      return { type: 'finding', rule: wholeTerm(asked) };
    case 'flag':
      return flagPlan(asked, { type: 'flag', flag: where.flag });
    case 'shelf':
      return shelfPlan(asked);
    case 'entry':
      return entryPlan(where.which, asked);
    case 'person':
      return personPlan(asked);
    case 'among': {
      if (!isEqual(asked)) throw noRelation(asked, '=');
      const name = named(asked);
      return { type: 'among', of: where.of, id: /^\d{1,9}$/.test(name) ? Number(name) : null, name };
    }
  }
}

/** What one condition asks of headings, with its values as they are kept. */
export function headingLeafPlan(where: HeadingWhere, asked: AskedCondition): HeadingPlan {
  switch (where.as) {
    case 'everything':
      return { type: 'everything' };
    case 'words':
      return wordsPlan(where.column, asked);
    case 'value':
      return textPlan<HeadingLeaf>(asked, (is, value, to = '') => ({
        ...{ type: 'value', of: 'heading', column: where.column },
        ...{ is, value, to },
      }));
    case 'count':
      return { type: 'count', of: 'record', ...countTerm(asked) };
    case 'flag':
      return flagPlan<HeadingLeaf>(asked, { type: 'flag', flag: where.flag });
    case 'number':
      return { type: 'number', id: numberAsked(asked, 'heading') };
    case 'entry':
      return entryPlan(where.which, asked);
    case 'person':
      return personPlan(asked);
  }
}

const entryPlan = (which: EntryOf, asked: AskedCondition): Plan<CommonLeaf> =>
  datePlan<CommonLeaf>(asked, DAY, (is, value, to = '') => ({ type: 'entry', which, is, value, to }));

function personPlan(asked: AskedCondition): Plan<CommonLeaf> {
  if (!isEqual(asked)) throw noRelation(asked, '=');
  return { type: 'person', name: named(asked) };
}

const POINTS: Readonly<Record<KeyPoint, { readonly title: string; normalise(text: string): string }>> = {
  isbn: ISBN,
  issn: ISSN,
  lccn: LCCN,
  control: CONTROL_NUMBER,
};

function keyPlan(point: KeyPoint, asked: AskedCondition): FindPlan {
  if (!isEqual(asked)) throw noRelation(asked, '=');
  const key = POINTS[point].normalise(wholeTerm(asked));
  if (key === '')
    throw new Unanswerable(CODE.termForm, `“${asked.term}” is no ${POINTS[point].title}.`, asked.term);
  return { type: 'key', point, key };
}

/** How a date is written, and what it is called. */
interface DateForm {
  readonly form: RegExp;
  readonly called: string;
  /** A month or a year stands for all of its days. */
  readonly isSpan: boolean;
}
const A_YEAR: DateForm = { form: /^\d{4}$/, called: 'year of four digits', isSpan: false };
const DAY: DateForm = {
  form: /^\d{4}(-\d\d){0,2}$/,
  called: 'date such as 2026-03 or 2026-03-04',
  isSpan: true,
};
type Compared<Leaf = FindLeaf> = (is: ValueTest, value: string, to?: string) => Plan<Leaf>;

function datePlan<Leaf>(
  asked: AskedCondition,
  { form, called, isSpan }: DateForm,
  leaf: Compared<Leaf>,
): Plan<Leaf> {
  const date = (text: string): string => {
    if (!form.test(text)) throw new Unanswerable(CODE.termForm, `“${text}” is no ${called}.`, text);
    return text;
  };
  if (asked.by === 'within') {
    const [from = '', to = '', ...more] = wholeTerm(asked).split(/\s+/);
    if (to === '' || more.length)
      throw new Unanswerable(CODE.termForm, 'Type two of them behind “within”: "1990 1999".', asked.term);
    return leaf('within', date(from), date(to) + LAST);
  }
  const is = comparison(asked);
  const value = date(wholeTerm(asked));
  if (is === '=' && isSpan) return leaf('begins', value);
  return compared(is, value, leaf);
}

/** A comparison with what begins so: behind it is behind all of it, up to it is up to the last of it. */
const compared = <Leaf>(is: Comparison, value: string, leaf: Compared<Leaf>): Plan<Leaf> =>
  is === '<=' ? upTo(value, leaf) : leaf(is, is === '>' ? value + LAST : value);

/** A call number: its text, the beginning of it, or where it stands on the shelf. */
function shelfPlan(asked: AskedCondition): FindPlan {
  const byText: Compared = (is, value, to = '') => ({
    ...{ type: 'value', of: 'holding', column: 'call_number' },
    ...{ is, value, to },
  });
  const byPlace =
    (from: string, end = ''): Compared =>
    (is, value, to = '') => {
      const prefixes = [typedPrefix(from), typedPrefix(end)] as const;
      return {
        ...{ type: 'value', of: 'holding', column: 'shelf_key' },
        ...{ is, value, to },
        ...(prefixes.some((p) => p !== '') && { prefixes }),
      };
    };
  const place = (text: string): string => {
    const key = shelfPlaceOf(text);
    if (key === '') throw noTerm(asked);
    return key;
  };
  if (asked.by === 'within') {
    const [from = '', to = '', ...more] = wholeTerm(asked).split(/\s*(?:\.\.|–)\s*/);
    if (from === '' || to === '' || more.length)
      throw new Unanswerable(
        CODE.termForm,
        'Type two call numbers with .. between: "630 .. 639".',
        asked.term,
      );
    return byPlace(from, to)('within', place(from), place(to) + LAST);
  }
  if (asked.by === '=' || asked.by === 'exact' || asked.by === 'any' || asked.by === 'all')
    return textPlan(asked, byText);
  const is = comparison(asked);
  const term = wholeTerm(asked);
  return compared(is, place(term), byPlace(term));
}

function valuePlan(where: Extract<FindWhere, { as: 'value' }>, asked: AskedCondition): FindPlan {
  const { of, column } = where;
  const leaf: Compared = (is, value, to = '') => ({ type: 'value', of, column, is, value, to });
  if ('isDate' in where) return datePlan(asked, column === 'year' ? A_YEAR : DAY, leaf);
  return textPlan(asked, leaf);
}

/** A text as it is kept, one of several, or what begins so. */
function textPlan<Leaf extends FindLeaf | HeadingLeaf>(
  asked: AskedCondition,
  leaf: Compared<Leaf>,
): Plan<Leaf> {
  if (asked.by === 'any' || asked.by === 'all') {
    const values = wholeTerm(asked).split(/\s+/).filter(Boolean);
    if (values.length === 0) throw noTerm(asked);
    if (values.length > MOST_WORDS) throw tooManyWords(values.length);
    return joinedPlans(
      asked.by === 'any' ? 'or' : 'and',
      values.map((v) => leaf('=', v)),
    );
  }
  if (!isEqual(asked)) throw noRelation(asked, '=, any and all');
  const begins = /^((?:[^\\*?^]|\\.)+)\*$/s.exec(asked.term)?.[1];
  if (begins !== undefined) return leaf('begins', unguarded(begins));
  const value = wholeTerm(asked);
  if (value === '') throw noTerm(asked);
  return leaf('=', value);
}

/** Behind every day of a month or year. */
const LAST = '\uffff';
const upTo = <Leaf>(value: string, leaf: Compared<Leaf>): Plan<Leaf> => leaf('<=', value + LAST);

/** A whole title, as titles are filed: without its initial article, which may be one or not. */
function titlePlan(asked: AskedCondition): FindPlan {
  const words = foldedWords(wholeTerm(asked));
  if (words.length === 0) throw noTerm(asked);
  const filed = (of: readonly string[]): FindPlan => ({
    type: 'value',
    of: 'record',
    column: 'sort',
    is: '=',
    value: of.join(' '),
    to: '',
  });
  const bare = withoutArticle(words);
  return bare ? joinedPlans('or', [filed(words), filed(bare)]) : filed(words);
}

function wordsPlan<Column extends string | null>(column: Column, asked: AskedCondition): WordsLeaf<Column> {
  const { by, term } = asked;
  const how = by === '=' || by === 'adj' ? 'phrase' : by === 'all' || by === 'any' ? by : null;
  if (how === null)
    throw noRelation(asked, column === 'title' ? '=, adj, all, any and ==' : '=, adj, all and any');
  const isFirst = /^\s*\^/.test(term);
  if (isFirst && how !== 'phrase')
    throw new Unanswerable(CODE.anchoring, '^ stands before a phrase: title = "^eels of".', term);
  const words = wordsOf(isFirst ? term.replace(/^\s*\^/, '') : term);
  if (words.length === 0) throw noTerm(asked);
  if (words.length > MOST_WORDS) throw tooManyWords(words.length);
  if (how === 'phrase' && words.slice(0, -1).some((w) => w.isBeginning))
    throw new Unanswerable(CODE.masking, 'In a phrase only the last word may end with *.', term);
  return { type: 'words', column, how, words, isFirst };
}

/** The words of a term; one that ends with an unguarded `*` may go on. */
function wordsOf(term: string): FindWord[] {
  return (term.match(/(?:\\.|[^\s\\])+/gs) ?? []).flatMap((chunk) => {
    const [, text = '', star = ''] = /^((?:\\.|[^\\])*?)(\*?)$/s.exec(chunk) ?? [];
    if (/(^|[^\\])(\\\\)*[*?^]/.test(text))
      throw new Unanswerable(CODE.masking, 'Only * at the end of a word stands for what is not said.', chunk);
    const words = foldedWords(unguarded(text));
    if (star && words.length === 0)
      throw new Unanswerable(CODE.masking, 'Type at least one letter before *.', chunk);
    return words.map((w, i): FindWord => ({ text: w, isBeginning: star === '*' && i === words.length - 1 }));
  });
}
