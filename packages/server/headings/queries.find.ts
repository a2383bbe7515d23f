import type { HeadingLeaf, HeadingPlan } from '@osier/core/find';
import { isJoined } from '@osier/core/find';
import { askedBy, comparisonOf, entryCondition, matchOf, Values } from '../catalogue/queries.conditions';
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
    words: (match) => `h.id IN (${withWords(values.add(match))})`,
    leaf: (leaf) => leafCondition(leaf, values),
  });
  const match = wordsOf(plan);
  const lead = match === null ? null : withWords(values.add(match));
  const { params } = values;
  if (lead === null || (await isMany(store, lead, params))) return { ...EVERY_HEADING, where, params };
  return { from: `(${lead}) f CROSS JOIN headings h ON h.id = f.rowid`, where, params };
}

const withWords = (match: string): string =>
  `SELECT rowid FROM heading_words WHERE heading_words MATCH ${match}`;

/** Words that all headings of a plan have; null where there are none. */
function wordsOf(plan: HeadingPlan): string | null {
  const whole = matchOf(plan);
  if (whole !== null || !isJoined(plan) || plan.type !== 'and') return whole;
  return matchOf({ type: 'and', of: plan.of.filter((p) => matchOf(p) !== null) });
}

const isMany = async (
  store: Store,
  lead: string,
  params: Readonly<Record<string, unknown>>,
): Promise<boolean> =>
  (await store.row(`SELECT rowid FROM (${lead}) LIMIT 1 OFFSET ${MOST_SORTED}`, { ...params })) !== undefined;

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
