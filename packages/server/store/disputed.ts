import { KINDS, type Kind } from '@osier/core/kinds';
import type { Store } from './store';

/** Something an older store had that breaks what must hold, until a person has settled it. */
export interface Disputed {
  readonly kind: Kind;
  readonly id: number;
  readonly value: unknown;
  readonly why: string;
}

const WHY: readonly (readonly [Kind, string])[] = [
  ['copy', 'Another copy has its barcode or its number, or it belongs to no holding.'],
  [
    'holding',
    'The title has another holding at this place under this call number, or it belongs to no record.',
  ],
  ['heading', 'There is another heading of this form.'],
  ['pile', 'There is another pile of this name.'],
  ['piled', 'It is on its pile twice.'],
  ['distinct', 'The pair is recorded twice, or names a heading that does not exist.'],
  ['withdrawlist', 'There is another open list of this name.'],
  ['roll', 'There is another label roll of this name.'],
  ['sheet', 'There is another supplier sheet of this name.'],
];
const MOST = 200;

/** What is disputed, a few hundred at most. */
export async function disputed(store: Store): Promise<Disputed[]> {
  const found: Disputed[] = [];
  for (const [kind, why] of WHY)
    for (const { id, value } of await store.select(kind, `disputed = 1 ORDER BY id LIMIT ${MOST}`))
      found.push({ kind, id, value, why });
  return found;
}

/** How many are. */
export async function disputedCount(store: Store): Promise<number> {
  const counts = WHY.map(([k]) => `(SELECT COUNT(*) FROM ${KINDS[k].table} WHERE disputed = 1)`);
  return (await store.row<{ n: number }>(`SELECT ${counts.join(' + ')} AS n`))!.n;
}
