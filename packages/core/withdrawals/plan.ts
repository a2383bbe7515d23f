import { creation, removal, update, type ChangeOf, type Versioned } from '../changes';
import { callNumberText } from '../callnumbers';
import type { Copy, Holding, Withdrawn } from '../holdings';
import type { LastCopy } from '../house';
import { field, withField, type MarcRecord } from '../marc';

/** What the store holds of one title that loses copies. */
export interface TitleStock {
  readonly record: Versioned<MarcRecord, 'record'>;
  readonly title: string;
  /** Its main name; '' for none. */
  readonly author: string;
  readonly isSuppressed: boolean;
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
  /** Name of the list, and who prepared it. */
  readonly list: string;
  readonly preparedBy: string;
  /** What becomes of a record that loses its last copy. */
  readonly lastCopy: (title: TitleStock) => LastCopy;
  /** What is said against a copy that goes all the same, and why the head overruled it; by its number. */
  readonly despite?: ReadonlyMap<number, readonly string[]>;
  readonly overruled?: ReadonlyMap<number, string>;
}

/** What withdrawing changes. */
export type WithdrawalChange =
  | ChangeOf<'withdrawn', Withdrawn>
  | ChangeOf<'copy', Copy>
  | ChangeOf<'holding', Holding>
  | ChangeOf<'record', MarcRecord>
  | ChangeOf<'suppressed', { readonly reason: string }>;

/**
 * The change set that withdraws copies: each copy goes into the register; a holding left without copies goes; a
 * record left without holdings goes, or stays suppressed or with a note, as is said. A holding that had no copies of its own before stays,
 * and keeps its record.
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
    const isLast = emptied.length === title.holdings.length;
    for (const copy of going) {
      const [despite, overruled] = [terms.despite?.get(copy.id), terms.overruled?.get(copy.id)];
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
        lastCopy: isLast,
        ...{ author: title.author, list: terms.list, preparedBy: terms.preparedBy },
        ...(despite?.length && { despite }),
        ...(overruled && { overruled }),
      };
      changes.push(creation('withdrawn', terms.nextId(), entry), removal('copy', copy));
    }
    for (const h of emptied) changes.push(removal('holding', h));
    if (isLast) changes.push(...withoutCopies(title, terms));
  }
  return changes;
}

/** What becomes of a record whose last copy goes. One that stays with a note says so in a local note (MARC 21 field 590). */
function withoutCopies(title: TitleStock, terms: WithdrawalTerms): WithdrawalChange[] {
  const { record, isSuppressed } = title;
  const how = terms.lastCopy(title);
  if (how === 'delete') return [removal('record', record)];
  if (how === 'suppress')
    return isSuppressed ? [] : [creation('suppressed', Number(record.id), { reason: 'Last copy withdrawn' })];
  const note = field('590', '  ', 'a', `Last copy withdrawn ${terms.on}.`);
  return [update('record', record, withField(record.value, note))];
}
