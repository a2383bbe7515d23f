import { LEADER, type EditStep } from './edit-step';

/** Where a field stands after a step; null when the step takes it away. A field that is replaced by one other keeps its place. */
export function mapField(at: number, over: EditStep): number | null {
  if (at === LEADER) return at;
  switch (over.step) {
    case 'fields': {
      const [gone, come] = [over.removed.length, over.inserted.length];
      if (at < over.at) return at;
      if (at >= over.at + gone) return at - gone + come;
      return gone === come ? at : null;
    }
    case 'move':
      if (at === over.from) return over.to;
      if (over.from < at && at <= over.to) return at - 1;
      if (over.to <= at && at < over.from) return at + 1;
      return at;
    case 'split':
      return at <= over.field ? at : at + 1;
    case 'join':
      return at <= over.field ? at : at - 1;
    default:
      return at;
  }
}

/**
 * Where the gap before a field stands after a step that leaves it whole: null when the fields on both its sides are exchanged.
 * What the step inserts at that very gap stands behind it when `isBefore`, else in front.
 */
export function mapGap(at: number, over: EditStep, isBefore: boolean): number | null {
  switch (over.step) {
    case 'fields': {
      const [gone, come] = [over.removed.length, over.inserted.length];
      if (at < over.at || (at === over.at && gone > 0)) return at;
      if (at === over.at) return isBefore ? at : at + come;
      return at >= over.at + gone ? at - gone + come : null;
    }
    case 'move':
      if (over.from < over.to) return over.from < at && at <= over.to ? at - 1 : at;
      return over.to < at && at <= over.from ? at + 1 : at;
    case 'split':
      return at <= over.field ? at : at + 1;
    case 'join':
      if (at === over.field + 1) return null;
      return at <= over.field ? at : at - 1;
    default:
      return at;
  }
}
