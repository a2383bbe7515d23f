import type { EndpointSending, StockFindingRow, StocktakeDetail } from '@osier/contract';
import type { api } from '@osier/contract';
import { SETTLEMENTS, type Settlement, type StockFindingKind } from '@osier/core/stocktake';
import { useKeptState } from '../../parts/kept-state';
import { GROUPS } from './finding-groups';

type Sent = EndpointSending<typeof api.stocktakes.settle>;
/** What is ticked to be settled. */
export type Ticked = Required<Pick<Sent, 'items' | 'all'>>;

/** A tick: a finding by kind and code, or all of a kind (code ''), and what is done about it. */
type Tick = readonly [kind: StockFindingKind, code: string, act: Settlement];

const ticksIn = (kept: unknown): readonly Tick[] =>
  !Array.isArray(kept)
    ? []
    : kept.flatMap((one: unknown) => {
        const parts: readonly unknown[] = Array.isArray(one) ? one : [];
        const [kindNamed, code, actNamed] = parts;
        const kind = GROUPS.find((g) => g.kind === kindNamed)?.kind;
        const act = SETTLEMENTS.find((s) => s === actNamed);
        return kind && act && typeof code === 'string' ? [[kind, code, act] as const] : [];
      });

/** Which findings of a stocktake are ticked, and how each is to be settled. */
export function useSettling(id: number, stocktake: StocktakeDetail | undefined) {
  const [ticks, keep] = useKeptState(`to settle ${id}`, ticksIn);
  const actOf = (kind: StockFindingKind, code: string) =>
    ticks.find(([k, c]) => k === kind && c === code)?.[2];
  const openOf = (kind: StockFindingKind) => {
    const of = stocktake?.kinds.find((k) => k.kind === kind);
    return of ? of.count - of.settled : 0;
  };
  const all = ticks.filter(([, code]) => code === '');
  const one = ticks.filter(([kind, code]) => code !== '' && !all.some(([k]) => k === kind));
  const asked: Ticked = {
    items: one.map(([finding, code, act]) => ({ finding, code, act })),
    all: all.map(([finding, , act]) => ({ finding, act })),
  };
  return {
    asked,
    count: one.length + all.reduce((n, [kind]) => n + openOf(kind), 0),
    allOf: (kind: StockFindingKind) => actOf(kind, ''),
    actOf: (finding: StockFindingRow) => actOf(finding.kind, finding.code),
    toggle: ({ kind, code }: StockFindingRow, act: Settlement) => {
      const others = ticks.filter(([k, c]) => k !== kind || c !== code);
      keep(actOf(kind, code) === act ? others : [...others, [kind, code, act]]);
    },
    /** TickedFindings all of a kind, or none of it any more. */
    tickAll: (kind: StockFindingKind, act: Settlement | null) => {
      const others = ticks.filter(([k]) => k !== kind);
      keep(act ? [...others, [kind, '', act]] : others);
    },
    clear: () => keep(null),
  };
}
/** The ticks of a stocktake. */
export type TickedFindings = ReturnType<typeof useSettling>;
