import { creation, removal, update, type ChangeOf, type Id, type Versioned } from '../changes';
import type { Copy, Holding } from '../holdings';
import type { Settlement } from './finding';

/** A finding of a copy to settle: the copy with its holding, and the other holdings of its title. */
export interface SettleItem {
  readonly act: Settlement;
  readonly copy: Versioned<Copy, 'copy'>;
  readonly holding: Versioned<Holding, 'holding'>;
  readonly siblings: readonly Versioned<Holding, 'holding'>[];
  /** Copies at the holding now, this one included. */
  readonly copiesAtHolding: number;
}

/** On which day, and where to, findings are settled. */
export interface SettleTerms {
  readonly on: string;
  /** Where a copy that is corrected belongs from now on. */
  readonly branch: string;
  readonly location: string;
  readonly nextHoldingId: () => Id<'holding'>;
}

/** What settling changes of the catalogue. */
export type SettleChange = ChangeOf<'copy', Copy> | ChangeOf<'holding', Holding>;

/** What a copy becomes by an act; its holding is another matter. */
function settledCopy(copy: Copy, act: Settlement, on: string): Copy {
  if (act === 'mark-missing') return { ...copy, status: 'missing' };
  if (act === 'mark-found' || act === 'mark-found-tell')
    return { ...copy, status: 'available', lastSeen: on };
  return act === 'correct-location' ? { ...copy, lastSeen: on } : copy;
}

/** The changes that settle findings of a stocktake; a copy of several findings changes once. */
export function settlePlan(items: readonly SettleItem[], terms: SettleTerms): SettleChange[] {
  const copies = new Map<number, { item: SettleItem; value: Copy }>();
  const holdings: SettleChange[] = [];
  const gone: SettleChange[] = [];
  const made = new Map<string, Id<'holding'>>();
  const left = new Map<number, number>();
  for (const item of items) {
    const { act, copy, holding, siblings, copiesAtHolding } = item;
    if (act === 'done' || act === 'return') continue;
    const value = settledCopy(copies.get(copy.id)?.value ?? copy.value, act, terms.on);
    if (
      act !== 'correct-location' ||
      (holding.value.branch === terms.branch && holding.value.location === terms.location)
    ) {
      copies.set(copy.id, { item, value });
      continue;
    }
    const key = `${holding.value.record} ${JSON.stringify({ ...holding.value, branch: terms.branch, location: terms.location })}`;
    const there = siblings.find(
      (h) => h.value.branch === terms.branch && h.value.location === terms.location,
    );
    let target = there?.id ?? made.get(key);
    if (target === undefined) {
      target = terms.nextHoldingId();
      made.set(key, target);
      holdings.push(
        creation('holding', target, {
          ...holding.value,
          branch: terms.branch,
          location: terms.location,
        }),
      );
    }
    copies.set(copy.id, { item, value: { ...value, holding: target } });
    const remaining = (left.get(holding.id) ?? copiesAtHolding) - 1;
    left.set(holding.id, remaining);
    if (remaining === 0) gone.push(removal('holding', holding));
  }
  return [
    ...holdings,
    ...[...copies.values()].map(({ item, value }) => update('copy', item.copy, value)),
    ...gone,
  ];
}
