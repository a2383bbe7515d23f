import { isUnreadKey, prefixMark, type PrefixOrder } from '../callnumbers';
import type { FindPlan } from './plan';

/** A plan with the places of call numbers as they are in a library that has an order of its own for prefixes. */
export function inShelfOrder(plan: FindPlan, order: PrefixOrder): FindPlan {
  if (order.length === 0) return plan;
  switch (plan.type) {
    case 'and':
    case 'or':
      return { ...plan, of: plan.of.map((p) => inShelfOrder(p, order)) };
    case 'not':
      return { ...plan, of: inShelfOrder(plan.of, order) };
    case 'value': {
      if (!plan.prefixes) return plan;
      const [of, to] = plan.prefixes;
      const placed = (key: string, prefix: string) =>
        key === '' || isUnreadKey(key) ? key : prefixMark(prefix, order) + key;
      return { ...plan, value: placed(plan.value, of), to: placed(plan.to, to) };
    }
    default:
      return plan;
  }
}
