import type { HeadingLeaf, HeadingPlan } from '@osier/core/find';
import { isJoined, isNot } from '@osier/core/find';
import {
  askedBy,
  comparisonOf,
  entryCondition,
  requiredWords,
  Values,
} from '../catalogue/queries.conditions';
import { HEADING_KEY_KIND } from '../store/index-records';
import type { Store } from '../store/store';

/** Headings (`h`) that a plan finds: what leads to them where they are few, and a condition on each. */
export interface HeadingsFound {
  readonly from: string;
  readonly where: string;
  readonly params: Readonly<Record<string, unknown>>;
}

/** Every heading. */
export const EVERY_HEADING: HeadingsFound = { from: 'headings h', where: '1', params: {} };

/** More than so many are not sorted: all headings are walked in their order instead. */
const MOST_SORTED = 5000;

/** The headings that a plan finds. */
export async function headingsFound(store: Store, plan: HeadingPlan): Promise<HeadingsFound> {
  const values = new Values('f');
  const where = askedBy(plan, {
    words: (match) => `+h.id IN (${withWords(values.add(match))})`,
    leaf: (leaf) => leafCondition(leaf, values),
  });
  const leads = leadsOf(plan, values);
  const { params } = values;
  for (const lead of leads) {
    const few = await idsOf(store, lead, params);
    if (few !== null)
      return {
        from: 'json_each(:few) f CROSS JOIN headings h ON h.id = f.value',
        where,
        params: { ...params, few },
      };
  }
  return { ...EVERY_HEADING, where, params };
}

const withWords = (match: string): string =>
  `SELECT rowid AS id FROM heading_words WHERE heading_words MATCH ${match}`;

/** Queries that each give all that a plan finds, and perhaps more, by an index; the quickest first. */
function leadsOf(plan: HeadingPlan, values: Values): string[] {
  const parts = isJoined(plan) && plan.type === 'and' ? plan.of : [plan];
  const match = requiredWords(plan);
  return [
    ...(match === null ? [] : [withWords(values.add(match))]),
    ...parts.flatMap((p) => (isJoined(p) || isNot(p) ? [] : (leadOf(p, values) ?? []))),
  ];
}

function leadOf(leaf: HeadingLeaf, values: Values): string | null {
  if (leaf.type === 'number') return `SELECT id FROM headings WHERE id = ${values.add(leaf.id)}`;
  if (leaf.type === 'flag') return 'SELECT id FROM headings WHERE established = 1';
  if (leaf.type !== 'count') return null;
  const least = leaf.is === '>' ? leaf.n + 1 : leaf.is === '<' || leaf.is === '<=' ? 0 : leaf.n;
  if (least > 0)
    return `SELECT DISTINCT k.heading AS id FROM heading_use u CROSS JOIN heading_keys k ON k.kind = substr(u.kind, 9) AND k.key = u.key
      WHERE u.n >= ${values.add(least)}`;
  return leaf.n === 0 && leaf.is !== '>=' ? UNUSED : null;
}

/** Headings that no record carries: those that stand alone are walked in the order of their keys, beside that of the keys in use. */
const UNUSED = `SELECT h.id FROM headings h INDEXED BY headings_once
    WHERE h.merged_into IS NULL AND h.disputed = 0 AND NOT EXISTS (SELECT 1 FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key AND u.n > 0)
  UNION ALL SELECT h.id FROM headings h WHERE h.disputed = 1`;

/** What a query gives, as JSON; null where it is more than is sorted. */
async function idsOf(
  store: Store,
  lead: string,
  params: Readonly<Record<string, unknown>>,
): Promise<string | null> {
  const row = await store.row<{ ids: string; n: number }>(
    `SELECT json_group_array(id) AS ids, COUNT(*) AS n FROM (SELECT id FROM (${lead}) LIMIT ${MOST_SORTED + 1})`,
    { ...params },
  );
  return row && row.n <= MOST_SORTED ? row.ids : null;
}

function leafCondition(leaf: HeadingLeaf, values: Values): string {
  switch (leaf.type) {
    case 'everything':
      return '1';
    case 'number':
      return `h.id = ${values.add(leaf.id)}`;
    case 'value':
      return `(${comparisonOf(`h.${leaf.column}`, leaf, values)})`;
    case 'count':
      return countCondition(leaf, values);
    case 'flag':
      return 'h.established = 1';
    case 'entry':
    case 'person':
      return entryCondition(leaf, values, 'heading', 'h.id');
    case 'words':
      throw new Error('Words are looked for in the full-text index.');
  }
}

const countCondition = ({ is, n }: Extract<HeadingLeaf, { type: 'count' }>, values: Values): string =>
  `ifnull((SELECT u.n FROM heading_use u WHERE u.kind = ${HEADING_KEY_KIND} AND u.key = h.key), 0) ${is} ${values.add(n)}`;
