import {
  isJoined,
  isNot,
  type AnyPlan,
  type FindLeaf,
  type FindPlan,
  type HeadingLeaf,
  type Plan,
  type WordsLeaf,
} from '@osier/core/find';
import { HEADING_KEY_KIND, LEADS_TO } from '../store/index-records';

/** The values of a query under names of their own. */
export class Values {
  readonly params: Record<string, unknown> = {};
  constructor(private readonly prefix: string) {}
  add(value: unknown): string {
    const name = `${this.prefix}${Object.keys(this.params).length}`;
    this.params[name] = value;
    return `:${name}`;
  }
}

/** What a list is of: records (`r` of `record_rows`), holdings (`h` of `holdings`) or copies (`c` of `copies`). */
export type FoundKind = 'record' | 'holding' | 'copy';
const RECORD: Readonly<Record<FoundKind, string>> = {
  ...{ record: 'r.id', holding: 'h.record', copy: 'c.record' },
};
const OWN: Readonly<Record<FoundKind, string>> = { record: 'r.id', holding: 'h.id', copy: 'c.id' };

/** Where what hangs on records is kept. */
export const TABLE = { holding: 'holdings', copy: 'copies' } as const;

/** Plans that all hold, as a condition. */
export const conditionsOf = (
  plans: readonly FindPlan[],
  values: Values,
  of: FoundKind = 'record',
  record = RECORD[of],
): string => (plans.length === 0 ? '1' : plans.map((p) => conditionOf(p, values, of, record)).join(' AND '));

/** How conditions are asked in SQL: words of the full-text index, and all others. */
interface Asking<Leaf> {
  readonly words: (match: string) => string;
  readonly leaf: (leaf: Leaf) => string;
}

/** A plan in SQL, by how each of its conditions is asked; words that belong together are asked for at once. */
export function askedBy<Leaf extends FindLeaf | HeadingLeaf>(plan: Plan<Leaf>, asking: Asking<Leaf>): string {
  const words = matchOf(plan);
  if (words !== null) return asking.words(words);
  if (isJoined(plan))
    return `(${plan.of.map((p) => askedBy(p, asking)).join(plan.type === 'and' ? ' AND ' : ' OR ') || '1'})`;
  return isNot(plan) ? `NOT (${askedBy(plan.of, asking)})` : asking.leaf(plan);
}

/**
 * A plan as a condition on a record, a holding, or a copy: what is asked of copies and holdings is then asked of that holding and of its
 * copies, or of that copy and of its holding, all else of the record. `record` is the record as words are asked of it: `+r.id` where they are to lead to none.
 */
export const conditionOf = (
  plan: FindPlan,
  values: Values,
  of: FoundKind = 'record',
  record = RECORD[of],
): string =>
  askedBy(plan, {
    words: (match) =>
      `${record} IN (SELECT rowid FROM record_words WHERE record_words MATCH ${values.add(match)})`,
    leaf: (leaf) => leafCondition(leaf, values, of),
  });

function leafCondition(plan: FindLeaf, values: Values, of: FoundKind): string {
  const record = RECORD[of];
  switch (plan.type) {
    case 'everything':
      return '1';
    case 'count':
      return countCondition(plan, values, of);
    case 'value':
      return valueCondition(plan, values, of);
    case 'amount':
      return of === 'copy'
        ? `ifnull(c.${plan.column} ${plan.is} ${values.add(plan.n)}, 0)`
        : `EXISTS (SELECT 1 FROM copies x WHERE ${ofCopies(of, 'x')} AND x.${plan.column} ${plan.is} ${values.add(plan.n)})`;
    case 'local':
      return localCondition(plan, values, of);
    case 'finding':
      return `EXISTS (SELECT 1 FROM record_findings x WHERE x.record = ${record} AND x.rule = ${values.add(plan.rule)})`;
    case 'flag':
      return plan.flag === 'brief'
        ? `${record} IN (SELECT record FROM brief_records)`
        : `${record} IN (SELECT id FROM suppressed)`;
    case 'number':
      return `${record} = ${values.add(plan.id)}`;
    case 'heading':
      return `${record} IN (${carrying(plan.id, values)})`;
    case 'key':
      return `EXISTS (SELECT 1 FROM record_keys x WHERE x.kind = ${values.add(plan.point)} AND x.key = ${values.add(plan.key)} AND x.record = ${record})`;
    case 'entry':
    case 'person':
      return entryCondition(plan, values, of, OWN[of]);
    case 'among':
      return plan.of === 'delivery'
        ? `EXISTS (SELECT 1 FROM incoming x WHERE x.record = ${record} AND x.state = 'accepted' AND x.delivery IN (${namedOf('deliveries', plan, values)}))`
        : `EXISTS (SELECT 1 FROM piled x WHERE x.pile IN (${namedOf('piles', plan, values)})
             AND ((x.kind = 'record' AND x.object = ${record}) OR (x.kind = 'copy' AND x.object ${
               of === 'copy' ? '= c.id' : `IN (SELECT id FROM copies k WHERE ${ofCopies(of, 'k')})`
             })))`;
    case 'words':
      throw new Error('Words are looked for in the full-text index.');
  }
}

/** Copies that have a value in a local field that is still there; they lead to what they hang on. */
function localCondition(plan: Extract<FindLeaf, { type: 'local' }>, values: Values, of: FoundKind): string {
  const those = `FROM local_values v WHERE v.field IN (SELECT id FROM local_fields) AND ${comparisonOf('v.value', plan, values)}`;
  if (of === 'copy') return `c.id IN (SELECT v.copy ${those})`;
  const parent = of === 'holding' ? 'holding' : 'record';
  return `${OWN[of]} IN (SELECT x.${parent} FROM copies x WHERE x.id IN (SELECT v.copy ${those}))`;
}

/** When, or by whom, something of a kind was written to first or last, under its number in SQL. */
export const entryCondition = (
  plan: Extract<FindLeaf, { type: 'entry' | 'person' }>,
  values: Values,
  kind: FoundKind | 'heading',
  id: string,
): string =>
  plan.type === 'entry'
    ? `EXISTS (${entryOf(kind, id, plan.which)} AND ${comparisonOf('d.at', plan, values)})`
    : `EXISTS (${entryOf(kind, id, 'last')} AND d.person IN (${personsOf(plan, values)}))`;

/** Whether it is asked for records that have none. */
export const hasNone = ({ is, n }: Pick<Extract<FindLeaf, { type: 'count' }>, 'is' | 'n'>): boolean =>
  (n === 0 && (is === '=' || is === '<=')) || (n === 1 && is === '<');

/** Copies (under a name) of a record, of the record of a copy, or of a holding. */
const ofCopies = (list: FoundKind, name: string): string =>
  list === 'holding' ? `${name}.holding = h.id` : `${name}.record = ${RECORD[list]}`;

/** How many copies or holdings a record has, or how many copies a holding has; whether it has any is told by the first of them. */
function countCondition(plan: Extract<FindLeaf, { type: 'count' }>, values: Values, list: FoundKind): string {
  const { of, is, n } = plan;
  const those = `FROM ${TABLE[of]} x WHERE ${of === 'copy' ? ofCopies(list, 'x') : `x.record = ${RECORD[list]}`}`;
  if ((is === '>' && n === 0) || (is === '>=' && n === 1)) return `EXISTS (SELECT 1 ${those})`;
  if (hasNone(plan)) return `NOT EXISTS (SELECT 1 ${those})`;
  return `(SELECT COUNT(*) ${those}) ${is} ${values.add(n)}`;
}

/** The records that carry a heading, or the one that it was merged into. */
export const carrying = (heading: number, values: Values): string =>
  `SELECT k.record FROM headings h CROSS JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key
    WHERE h.id = (${LEADS_TO.replace(':heading', values.add(heading))})`;

function valueCondition(plan: Extract<FindLeaf, { type: 'value' }>, values: Values, of: FoundKind): string {
  if (plan.of === 'record')
    return of === 'record'
      ? `(${valueOf('r', plan, values)})`
      : `EXISTS (SELECT 1 FROM record_rows x WHERE x.id = ${RECORD[of]} AND ${valueOf('x', plan, values)})`;
  if (of === 'holding')
    return plan.of === 'holding'
      ? `(${valueOf('h', plan, values)})`
      : `EXISTS (SELECT 1 FROM copies x WHERE x.holding = h.id AND ${valueOf('x', plan, values)})`;
  if (of === 'record')
    return `EXISTS (SELECT 1 FROM ${TABLE[plan.of]} x WHERE x.record = r.id AND ${valueOf('x', plan, values)})`;
  return plan.of === 'copy'
    ? `(${valueOf('c', plan, values)})`
    : `EXISTS (SELECT 1 FROM holdings x WHERE x.id = c.holding AND ${valueOf('x', plan, values)})`;
}

/** The first or last entry of the daybook (`d`) about what is sought; conditions may follow. */
const entryOf = (kind: string, id: string, which: 'first' | 'last'): string =>
  `SELECT 1 FROM daybook d WHERE d.id = (SELECT ${which === 'first' ? 'MIN' : 'MAX'}(o.entry) FROM daybook_objects o WHERE o.kind = '${kind}' AND o.object = ${id})`;

/** The numbers of the people of a name. */
export const personsOf = ({ name }: Extract<FindLeaf, { type: 'person' }>, values: Values): string =>
  `SELECT id FROM people WHERE name = ${values.add(name)} COLLATE NOCASE`;

/** The numbers of the deliveries or piles that a plan names. */
export const namedOf = (
  table: 'deliveries' | 'piles',
  { id, name }: Extract<FindLeaf, { type: 'among' }>,
  values: Values,
): string =>
  `SELECT id FROM ${table} WHERE gone = 0 AND (id = ${values.add(id)} OR name = ${values.add(name)} COLLATE NOCASE)`;

/** A comparison of a column. */
export function comparisonOf(
  at: string,
  { is, value, to }: Pick<Extract<FindLeaf, { type: 'value' }>, 'is' | 'value' | 'to'>,
  values: Values,
): string {
  // A value that is not there is no value: it is before none and behind none.
  if (is === 'begins') return `${at} >= ${values.add(value)} AND ${at} < ${values.add(`${value}\u{10ffff}`)}`;
  if (is === 'within') return `${at} >= ${values.add(value)} AND ${at} <= ${values.add(to)}`;
  return is === '=' || is === '>' || is === '>='
    ? `${at} ${is} ${values.add(value)}`
    : `${at} ${is} ${values.add(value)} AND ${at} <> ''`;
}

/** The same for the column of a plan in a table under a name. */
export const valueOf = (
  table: 'r' | 'h' | 'x' | 'c',
  plan: Extract<FindLeaf, { type: 'value' }>,
  values: Values,
): string => comparisonOf(`${table}.${plan.column}`, plan, values);

/** A plan of words alone as the full-text index is asked for it; null for any other. */
export function matchOf(plan: AnyPlan): string | null {
  if (isJoined(plan)) return plan.type === 'or' ? eitherMatch(plan.of) : allMatch(plan.of);
  return !isNot(plan) && plan.type === 'words' ? leafMatch(plan) : null;
}

/** Words that all that a plan finds must have, as the full-text index is asked for them; null where there are none. */
export function requiredWords(plan: AnyPlan): string | null {
  const parts = isJoined(plan) && plan.type === 'and' ? plan.of : [plan];
  return matchOf({ type: 'and', of: parts.filter((p) => matchOf(p) !== null) });
}

function eitherMatch(of: readonly AnyPlan[]): string | null {
  const parts = of.map(matchOf);
  return parts.length === 0 || parts.includes(null) ? null : parts.map((p) => `(${p})`).join(' OR ');
}

function allMatch(of: readonly AnyPlan[]): string | null {
  const [those, not]: [string[], string[]] = [[], []];
  for (const p of of) {
    const part = matchOf(isNot(p) ? p.of : p);
    if (part === null) return null;
    (isNot(p) ? not : those).push(`(${part})`);
  }
  if (those.length === 0) return null;
  return not.length === 0 ? those.join(' AND ') : `(${those.join(' AND ')}) NOT (${not.join(' OR ')})`;
}

const termOf = ({ text, isBeginning }: WordsLeaf<string>['words'][number]): string =>
  `"${text}"${isBeginning ? ' *' : ''}`;

/** Groups of columns by their names. */
const GROUPS: Readonly<Record<string, string>> = { public: '- local', forms: '{form seefrom}' };

function leafMatch({ column, how, words, isFirst }: WordsLeaf<string | null>): string {
  const match =
    how === 'phrase'
      ? `${isFirst ? '^ ' : ''}${words.map((w) => `"${w.text}"`).join(' + ')}${words.at(-1)!.isBeginning ? ' *' : ''}`
      : `(${words.map(termOf).join(how === 'all' ? ' AND ' : ' OR ')})`;
  return column === null ? match : `${GROUPS[column] ?? column} : ${match}`;
}

/** What of a plan's words may stand in a column, all of it, as the full-text index is asked for it; null where nothing ranks by it. */
export function rankedIn(column: string, plan: FindPlan): string | null {
  switch (plan.type) {
    case 'words':
      return plan.column === null || plan.column === 'public' || plan.column === column
        ? `${column} : (${plan.words.map(termOf).join(plan.how === 'any' ? ' OR ' : ' AND ')})`
        : null;
    case 'and': {
      const parts = plan.of.map((p) => rankedIn(column, p)).filter((p) => p !== null);
      return parts.length ? parts.map((p) => `(${p})`).join(' AND ') : null;
    }
    case 'or': {
      const parts = plan.of.map((p) => rankedIn(column, p));
      return parts.length === 0 || parts.includes(null) ? null : parts.map((p) => `(${p})`).join(' OR ');
    }
    default:
      return null;
  }
}
