import { creation, removal, update, type ChangeOf, type Id, type Versioned } from '../changes';
import type { Copy, Holding } from '../holdings';
import type { Settlement } from './reconcile';

/** A finding to settle: the copy with its holding, and the other holdings of its title. */
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

/** What settling changes. */
export type SettleChange = ChangeOf<'copy', Copy> | ChangeOf<'holding', Holding>;

/** The change set that settles findings of a stocktake. */
export function settlePlan(items: readonly SettleItem[], terms: SettleTerms): SettleChange[] {
  const changes: SettleChange[] = [];
  const made = new Map<string, Id<'holding'>>();
  const left = new Map<number, number>();
  for (const { act, copy, holding, siblings, copiesAtHolding } of items) {
    if (act === 'mark-missing') {
      changes.push(update('copy', copy, { ...copy.value, status: 'missing' }));
      continue;
    }
    if (act === 'mark-found') {
      changes.push(update('copy', copy, { ...copy.value, status: 'available', lastSeen: terms.on }));
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
      changes.push(
        creation('holding', target, {
          ...holding.value,
          branch: terms.branch,
          location: terms.location,
        }),
      );
    }
    changes.push(update('copy', copy, { ...copy.value, holding: target, lastSeen: terms.on }));
    const remaining = (left.get(holding.id) ?? copiesAtHolding) - 1;
    left.set(holding.id, remaining);
    if (remaining === 0) changes.push(removal('holding', holding));
  }
  return changes;
}
