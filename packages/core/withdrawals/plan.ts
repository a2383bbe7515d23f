import { creation, removal, type ChangeOf, type Versioned } from '../changes';
import { callNumberText } from '../callnumbers';
import type { Copy, Holding, Withdrawn } from '../holdings';
import type { MarcRecord } from '../marc';

/** What the store holds of one title that loses copies. */
export interface TitleStock {
  readonly record: Versioned<MarcRecord, 'record'>;
  readonly title: string;
  readonly holdings: readonly Versioned<Holding, 'holding'>[];
  readonly copies: readonly Versioned<Copy, 'copy'>[];
}

/** When, by whom and why copies are withdrawn. */
export interface WithdrawalTerms {
  readonly on: string;
  readonly by: string;
  readonly reason: string;
  /** Gives the number of a new register row. */
  readonly nextId: () => number;
}

/** What withdrawing changes. */
export type WithdrawalChange =
  | ChangeOf<'withdrawn', Withdrawn>
  | ChangeOf<'copy', Copy>
  | ChangeOf<'holding', Holding>
  | ChangeOf<'record', MarcRecord>;

/**
 * The change set that withdraws copies: each copy goes into the register; a holding left without copies goes; a
 * record left without holdings goes. A holding that had no copies of its own before stays, and keeps its record.
 */
export function withdrawalPlan(
  stock: readonly TitleStock[],
  chosen: ReadonlySet<number>,
  terms: WithdrawalTerms,
): WithdrawalChange[] {
  const changes: WithdrawalChange[] = [];
  for (const title of stock) {
    const going = title.copies.filter((c) => chosen.has(c.id));
    if (going.length === 0) continue;
    const staying = title.copies.filter((c) => !chosen.has(c.id));
    const emptied = title.holdings.filter(
      (h) => going.some((c) => c.value.holding === h.id) && !staying.some((c) => c.value.holding === h.id),
    );
    const recordGoes = emptied.length === title.holdings.length;
    for (const copy of going) {
      const holding = title.holdings.find((h) => h.id === copy.value.holding)!;
      const entry: Withdrawn = {
        copy: copy.value,
        copyId: copy.id,
        record: title.record.id,
        title: title.title,
        branch: holding.value.branch,
        location: holding.value.location,
        callNumber: callNumberText(holding.value),
        withdrawnOn: terms.on,
        by: terms.by,
        reason: terms.reason,
        lastCopy: recordGoes,
      };
      changes.push(creation('withdrawn', terms.nextId(), entry), removal('copy', copy));
    }
    for (const h of emptied) changes.push(removal('holding', h));
    if (recordGoes) changes.push(removal('record', title.record));
  }
  return changes;
}
