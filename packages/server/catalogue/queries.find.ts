import { allWords, type FindPlan } from '@osier/core/find';
import {
  carrying,
  comparisonOf,
  conditionsOf,
  hasNone,
  matchOf,
  namedOf,
  personsOf,
  TABLE,
  Values,
  valueOf,
} from './queries.conditions';
import type { IdQuery } from './queries.found';
import { rankingOf } from './ranking';

/** The records that a plan finds. */
export function withPlan(plan: FindPlan): IdQuery {
  if (plan.type === 'everything') return { sql: 'SELECT id FROM records', params: {}, all: true };
  const values = new Values('f');
  const [sql, where] = [exactly(plan, values), conditionsOf([plan], values, 'record', '+r.id')];
  const ranking = rankingOf(plan);
  const words = plan.type === 'words' ? wordsQuery(plan, values) : {};
  return { sql, where, ...words, params: values.params, ...(ranking && { ranking }) };
}

/** Records that have all words, each as the beginning of one. */
export const withWords = (words: readonly string[]): IdQuery => withPlan(allWords(words, null));

/** Beginnings of words that the full-text index keeps by themselves; longer ones it has to put together. */
const KEPT_BEGINNING = 3;

function wordsQuery(
  plan: Extract<FindPlan, { type: 'words' }>,
  values: Values,
): Pick<IdQuery, 'whole' | 'matches' | 'whereDense'> {
  const whole = { ...plan, words: plan.words.map((w) => ({ ...w, isBeginning: false })) };
  const [match, wholeMatch] = [values.add(matchOf(plan)), values.add(matchOf(whole))];
  const goesOn = plan.words.filter((w) => w.isBeginning);
  const lookedUp = (m: string) =>
    `EXISTS (SELECT 1 FROM record_words w WHERE w.rowid = r.id AND w.record_words MATCH ${m})`;
  return {
    ...(goesOn.length > 0 && {
      whole: `SELECT rowid AS id FROM record_words WHERE record_words MATCH ${wholeMatch}`,
    }),
    ...(goesOn.every((w) => w.text.length <= KEPT_BEGINNING) && { whereDense: lookedUp(match) }),
    ...(plan.how !== 'any' && { matches: lookedUp(wholeMatch) }),
  };
}

/** Every record, looked at by conditions. */
const scan = (conditions: readonly FindPlan[], values: Values): string =>
  `SELECT r.id FROM record_rows r WHERE ${conditionsOf(conditions, values)}`;

/** An index that leads to records. */
interface Source {
  readonly sql: string;
  /** Not all that it leads to hold the condition. */
  readonly isLoose?: true;
}

/** An index that leads to the records of a plan; null where only looking at each of them tells. */
function sourceOf(plan: FindPlan, values: Values): Source | null {
  const words = matchOf(plan);
  if (words !== null)
    return { sql: `SELECT rowid AS id FROM record_words WHERE record_words MATCH ${values.add(words)}` };
  switch (plan.type) {
    case 'and':
      return narrowed(plan.of, values);
    case 'or': {
      // Each side must be led to, else all are looked at anyway.
      if (rank(plan) === null) return null;
      return {
        sql: plan.of.map((p) => `SELECT id FROM (${exactly(p, values)})`).join(' UNION '),
      };
    }
    case 'number':
      return { sql: `SELECT id FROM record_rows WHERE id = ${values.add(plan.id)}` };
    case 'heading':
      return { sql: `SELECT record AS id FROM (${carrying(plan.id, values)})` };
    case 'key':
      return {
        sql: `SELECT record AS id FROM record_keys WHERE kind = ${values.add(plan.point)} AND key = ${values.add(plan.key)}`,
      };
    case 'finding':
      return { sql: `SELECT record AS id FROM record_findings WHERE rule = ${values.add(plan.rule)}` };
    case 'flag':
      return {
        sql:
          plan.flag === 'brief'
            ? 'SELECT record AS id FROM brief_records'
            : 'SELECT r.id FROM suppressed s JOIN record_rows r ON r.id = s.id',
      };
    case 'value':
      if (rank(plan) === null) return null;
      return {
        sql:
          plan.of === 'record'
            ? `SELECT r.id FROM record_rows r WHERE ${valueOf('r', plan, values)}`
            : `SELECT DISTINCT x.record AS id FROM ${TABLE[plan.of]} x WHERE ${valueOf('x', plan, values)}`,
      };
    case 'count':
      // Two indexes in the order of records, read beside one another.
      return hasNone(plan)
        ? { sql: `SELECT id FROM record_rows EXCEPT SELECT record FROM ${TABLE[plan.of]}` }
        : null;
    case 'entry':
      return {
        sql: `SELECT DISTINCT o.object AS id FROM daybook d CROSS JOIN daybook_objects o ON o.kind = 'record' AND o.entry = d.id
          WHERE ${comparisonOf('d.at', plan, values)}`,
        isLoose: true,
      };
    case 'person':
      return {
        sql: `SELECT DISTINCT o.object AS id FROM daybook d CROSS JOIN daybook_objects o ON o.kind = 'record' AND o.entry = d.id
          WHERE d.person IN (${personsOf(plan, values)})`,
        isLoose: true,
      };
    case 'among':
      return {
        sql:
          plan.of === 'delivery'
            ? `SELECT DISTINCT r.id FROM incoming i CROSS JOIN record_rows r ON r.id = i.record
                WHERE i.delivery IN (${namedOf('deliveries', plan, values)}) AND i.state = 'accepted'`
            : `SELECT object AS id FROM piled WHERE pile IN (${namedOf('piles', plan, values)}) AND kind = 'record'
               UNION SELECT c.record FROM piled p CROSS JOIN copies c ON c.id = p.object WHERE p.pile IN (${namedOf('piles', plan, values)}) AND p.kind = 'copy'`,
        isLoose: true,
      };
    default:
      return null;
  }
}

/** The records of a plan, by an index where one leads to them, and no others. */
function exactly(plan: FindPlan, values: Values): string {
  const source = sourceOf(plan, values);
  if (source === null) return scan([plan], values);
  return source.isLoose ? among(source, [plan], values) : source.sql;
}

const among = (source: Source, conditions: readonly FindPlan[], values: Values): string =>
  `SELECT r.id FROM (${source.sql}) f CROSS JOIN record_rows r ON r.id = f.id WHERE ${conditionsOf(conditions, values)}`;

/** The condition that leads to the fewest first, the others looked at for each record that it leads to. */
function narrowed(of: readonly FindPlan[], values: Values): Source | null {
  const match = matchOf({ type: 'and', of: of.filter((p) => matchOf(p) !== null) });
  const others = of.filter((p) => matchOf(p) === null);
  const led = others
    .map((plan) => ({ plan, rank: rank(plan) }))
    .filter((l): l is { plan: FindPlan; rank: number } => l.rank !== null)
    .sort((a, b) => a.rank - b.rank);
  const [first] = led;
  const isWordsFirst = match !== null && (first === undefined || first.rank > WORDS_RANK);
  if (match === null && first === undefined) return null;
  const source: Source = isWordsFirst
    ? { sql: `SELECT rowid AS id FROM record_words WHERE record_words MATCH ${values.add(match)}` }
    : sourceOf(first!.plan, values)!;
  const rest = [
    ...(match !== null && !isWordsFirst ? of.filter((p) => matchOf(p) !== null) : []),
    ...others.filter((p) => isWordsFirst || p !== first!.plan || source.isLoose),
  ];
  return rest.length === 0 ? source : { sql: among(source, rest, values) };
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
      return VALUE_RANKS[plan.column] ?? null;
    case 'words':
      return WORDS_RANK;
    case 'heading':
    case 'finding':
    case 'flag':
    case 'among':
      return 5;
    case 'entry':
    case 'person':
      return 6;
    case 'count':
      return hasNone(plan) ? MANY : null;
    case 'or': {
      const ranks = plan.of.map(rank);
      return ranks.includes(null) || ranks.includes(MANY) ? null : Math.max(...ranks.map((r) => r ?? 0));
    }
    case 'and': {
      const ranks = plan.of.map(rank).filter((r) => r !== null);
      return ranks.length ? Math.min(...ranks) : null;
    }
    default:
      return null;
  }
}

/** The rank of what leads to a great part of all: to join such parts takes longer than to look at each record. */
const MANY = 7;
/** Columns that have an index. */
const VALUE_RANKS: Readonly<Record<string, number>> = {
  barcode: 2,
  sort: 2,
  call_number: 4,
  supplier: 6,
  fund: 6,
  acquired: 6,
  last_seen: 6,
  last_loan: 6,
  shelf_key: 6,
  year: MANY,
  status: MANY,
  type: MANY,
  language: MANY,
};
