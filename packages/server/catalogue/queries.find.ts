import type { FindLeaf, FindPlan } from '@osier/core/find';
import type { IdQuery } from './queries.found';

/** The values of a query under names of their own. */
class Values {
  readonly params: Record<string, unknown> = {};
  add(value: unknown): string {
    const name = `f${Object.keys(this.params).length}`;
    this.params[name] = value;
    return `:${name}`;
  }
}

/** The records that a plan finds. */
export function withPlan(plan: FindPlan): IdQuery {
  if (plan.type === 'everything') return { sql: 'SELECT id FROM records', params: {}, all: true };
  const values = new Values();
  return { sql: sourceOf(plan, values) ?? scan([plan], values), params: values.params };
}

/** Every record, looked at by conditions. */
const scan = (conditions: readonly FindPlan[], values: Values): string =>
  `SELECT r.id FROM record_rows r WHERE ${conditionsOf(conditions, values)}`;

const conditionsOf = (plans: readonly FindPlan[], values: Values): string =>
  plans.length === 0 ? '1' : plans.map((p) => conditionOf(p, values)).join(' AND ');

/** An index that leads to the records of a plan; null where only looking at each of them tells. */
function sourceOf(plan: FindPlan, values: Values): string | null {
  const words = matchOf(plan);
  if (words !== null)
    return `SELECT rowid AS id FROM record_words WHERE record_words MATCH ${values.add(words)}`;
  switch (plan.type) {
    case 'and':
      return narrowed(plan.of, values);
    case 'or': {
      // Each side must be led to, else all are looked at anyway.
      if (plan.of.some((p) => rank(p) === null)) return null;
      return plan.of.map((p) => `SELECT id FROM (${sourceOf(p, values)!})`).join(' UNION ');
    }
    case 'number':
      return `SELECT id FROM record_rows WHERE id = ${values.add(plan.id)}`;
    case 'key':
      return `SELECT record AS id FROM record_keys WHERE kind = ${values.add(plan.point)} AND key = ${values.add(plan.key)}`;
    case 'finding':
      return `SELECT record AS id FROM record_findings WHERE rule = ${values.add(plan.rule)}`;
    case 'flag':
      return plan.flag === 'brief'
        ? 'SELECT record AS id FROM brief_records'
        : 'SELECT r.id FROM suppressed s JOIN record_rows r ON r.id = s.id';
    case 'value':
      if (rank(plan) === null) return null;
      return plan.of === 'record'
        ? `SELECT r.id FROM record_rows r WHERE ${valueOf('r', plan, values)}`
        : `SELECT DISTINCT x.record AS id FROM ${TABLE[plan.of]} x WHERE ${valueOf('x', plan, values)}`;
    default:
      return null;
  }
}

const TABLE = { holding: 'holdings', copy: 'copies' } as const;

/** The condition that leads to the fewest first, the others looked at for each record that it leads to. */
function narrowed(of: readonly FindPlan[], values: Values): string | null {
  const match = matchOf({ type: 'and', of: of.filter((p) => matchOf(p) !== null) });
  const others = of.filter((p) => matchOf(p) === null);
  const led = others
    .map((plan) => ({ plan, rank: rank(plan) }))
    .filter((l): l is { plan: FindPlan; rank: number } => l.rank !== null)
    .sort((a, b) => a.rank - b.rank);
  const [first] = led;
  const isWordsFirst = match !== null && (first === undefined || first.rank > WORDS_RANK);
  if (match === null && first === undefined) return null;
  const source = isWordsFirst
    ? `SELECT rowid AS id FROM record_words WHERE record_words MATCH ${values.add(match)}`
    : sourceOf(first!.plan, values)!;
  const rest = [
    ...(match !== null && !isWordsFirst ? of.filter((p) => matchOf(p) !== null) : []),
    ...others.filter((p) => isWordsFirst || p !== first!.plan),
  ];
  return rest.length === 0
    ? source
    : `SELECT r.id FROM (${source}) f CROSS JOIN record_rows r ON r.id = f.id WHERE ${conditionsOf(rest, values)}`;
}

const WORDS_RANK = 3;
/** How few records a condition is expected to lead to, the lowest the fewest; null where no index leads to them. */
function rank(plan: FindPlan): number | null {
  switch (plan.type) {
    case 'number':
      return 0;
    case 'key':
      return 1;
    case 'value':
      if (plan.column === 'barcode' || plan.column === 'sort') return 2;
      return plan.column === 'call_number' ? 4 : null;
    case 'words':
      return WORDS_RANK;
    case 'finding':
    case 'flag':
      return 5;
    case 'or': {
      const ranks = plan.of.map(rank);
      return ranks.includes(null) ? null : Math.max(...ranks.map((r) => r ?? 0));
    }
    case 'and': {
      const ranks = plan.of.map(rank).filter((r) => r !== null);
      return ranks.length ? Math.min(...ranks) : null;
    }
    default:
      return null;
  }
}

/** A plan as a condition on a record (`r`). */
function conditionOf(plan: FindPlan, values: Values): string {
  const words = matchOf(plan);
  if (words !== null)
    return `r.id IN (SELECT rowid FROM record_words WHERE record_words MATCH ${values.add(words)})`;
  switch (plan.type) {
    case 'and':
      return `(${conditionsOf(plan.of, values)})`;
    case 'or':
      return `(${plan.of.map((p) => conditionOf(p, values)).join(' OR ')})`;
    case 'not':
      return `NOT (${conditionOf(plan.of, values)})`;
    case 'everything':
      return '1';
    case 'count':
      return `(SELECT COUNT(*) FROM ${TABLE[plan.of]} x WHERE x.record = r.id) ${plan.is} ${values.add(plan.n)}`;
    case 'value':
      return plan.of === 'record'
        ? `(${valueOf('r', plan, values)})`
        : `EXISTS (SELECT 1 FROM ${TABLE[plan.of]} x WHERE x.record = r.id AND ${valueOf('x', plan, values)})`;
    case 'finding':
      return `EXISTS (SELECT 1 FROM record_findings x WHERE x.record = r.id AND x.rule = ${values.add(plan.rule)})`;
    default:
      return `r.id IN (${sourceOf(plan, values)!})`;
  }
}

function valueOf(
  table: 'r' | 'x',
  { column, is, value }: Extract<FindLeaf, { type: 'value' }>,
  values: Values,
): string {
  const at = `${table}.${column}`;
  // A value that is not there is no value: it is before none and behind none.
  if (is === 'begins') return `${at} >= ${values.add(value)} AND ${at} < ${values.add(`${value}\u{10ffff}`)}`;
  return is === '=' || is === '>' || is === '>='
    ? `${at} ${is} ${values.add(value)}`
    : `${at} ${is} ${values.add(value)} AND ${at} <> ''`;
}

/** A plan of words alone as the full-text index is asked for it; null for any other. */
function matchOf(plan: FindPlan): string | null {
  if (plan.type === 'words') return leafMatch(plan);
  if (plan.type === 'or') {
    const parts = plan.of.map(matchOf);
    return parts.length === 0 || parts.includes(null) ? null : parts.map((p) => `(${p})`).join(' OR ');
  }
  if (plan.type !== 'and') return null;
  const [those, not]: [string[], string[]] = [[], []];
  for (const p of plan.of) {
    const part = matchOf(p.type === 'not' ? p.of : p);
    if (part === null) return null;
    (p.type === 'not' ? not : those).push(`(${part})`);
  }
  if (those.length === 0) return null;
  return not.length === 0 ? those.join(' AND ') : `(${those.join(' AND ')}) NOT (${not.join(' OR ')})`;
}

function leafMatch({ column, how, words, isFirst }: Extract<FindLeaf, { type: 'words' }>): string {
  const term = ({ text, isBeginning }: (typeof words)[number]) => `"${text}"${isBeginning ? ' *' : ''}`;
  const match =
    how === 'phrase'
      ? `${isFirst ? '^ ' : ''}${words.map((w) => `"${w.text}"`).join(' + ')}${words.at(-1)!.isBeginning ? ' *' : ''}`
      : `(${words.map(term).join(how === 'all' ? ' AND ' : ' OR ')})`;
  return column === null ? match : `${column} : ${match}`;
}
