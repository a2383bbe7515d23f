import type { StockFindingKind } from '@osier/core/stocktake';

/** Findings by kind, in the order in which they are looked at, with how much they weigh. */
export const GROUPS: readonly {
  readonly kind: StockFindingKind;
  readonly mark: 'stop' | 'caution' | 'information';
}[] = [
  { kind: 'found', mark: 'stop' },
  { kind: 'elsewhere', mark: 'stop' },
  { kind: 'unknown', mark: 'stop' },
  { kind: 'skipped', mark: 'caution' },
  { kind: 'misplaced', mark: 'caution' },
  { kind: 'missing', mark: 'caution' },
  { kind: 'misread', mark: 'information' },
  { kind: 'repeated', mark: 'information' },
];
