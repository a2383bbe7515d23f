import { creation, update, type Change, type ChangeSet, type Versioned } from '../changes';
import { headingFrom, headingsOf, type HeadingKind } from '../headings';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { replaceRecord } from '../matching';
import type { Incoming } from './incoming';

export interface AcceptContext {
  readonly house: HouseRules;
  /** The held records that are to be replaced. */
  readonly held: ReadonlyMap<number, Versioned<MarcRecord>>;
  /** Whether a heading, or a see-from that leads to one, is there already. */
  readonly knowsHeading: (kind: HeadingKind, key: string) => boolean;
  /** Records that came into the catalogue since the delivery was looked at and share a key with this one. */
  readonly heldSince: (incoming: Versioned<Incoming>) => number | null;
  readonly nextRecordId: () => number;
  readonly nextHeadingId: () => number;
}

export interface AcceptPlan {
  readonly changes: ChangeSet;
  readonly added: number;
  readonly replaced: number;
  readonly skipped: number;
  readonly newHeadings: number;
  /** Records that stay in the delivery, each with the sentence why. */
  readonly left: readonly { readonly incoming: number; readonly why: string }[];
}

/**
 * What accepting these incoming records does: new records and their new headings, replacements that keep protected
 * fields, and the mark on each incoming record. Headings made here count as known for the records after.
 */
export function acceptPlan(incoming: readonly Versioned<Incoming>[], context: AcceptContext): AcceptPlan {
  const changes: Change[] = [];
  const left: { incoming: number; why: string }[] = [];
  const made = new Set<string>();
  const totals = { added: 0, replaced: 0, skipped: 0, newHeadings: 0 };
  const taken = new Set<number>();
  const addHeadings = (record: MarcRecord) => {
    for (const use of headingsOf(record)) {
      const key = `${use.kind} ${use.key}`;
      if (made.has(key) || context.knowsHeading(use.kind, use.key)) continue;
      made.add(key);
      totals.newHeadings++;
      changes.push(creation('heading', context.nextHeadingId(), headingFrom(use)));
    }
  };
  for (const row of incoming) {
    const value = row.value;
    if (value.state !== 'waiting') continue;
    if (value.decision === 'skip') {
      totals.skipped++;
      changes.push(update<Incoming>('incoming', row, { ...value, state: 'skipped' }));
    } else if (value.decision === 'replace') {
      const held = value.target === null ? undefined : context.held.get(value.target);
      if (!held) {
        left.push({
          incoming: row.id,
          why:
            value.target === null
              ? 'No record was chosen to replace.'
              : `Record ${value.target} is no longer there.`,
        });
      } else if (taken.has(held.id)) {
        left.push({
          incoming: row.id,
          why: `Another record of this delivery replaces record ${held.id} already.`,
        });
      } else {
        taken.add(held.id);
        const next = replaceRecord(held.value, value.marc, context.house);
        totals.replaced++;
        changes.push(
          update('record', held, next),
          update<Incoming>('incoming', row, { ...value, state: 'accepted', record: held.id }),
        );
        addHeadings(next);
      }
    } else {
      const since = context.heldSince(row);
      if (since !== null) {
        left.push({
          incoming: row.id,
          why: `Record ${since} with the same number is in the catalogue since; look at it once more.`,
        });
        continue;
      }
      const id = context.nextRecordId();
      totals.added++;
      changes.push(
        creation('record', id, value.marc),
        update<Incoming>('incoming', row, { ...value, state: 'accepted', record: id }),
      );
      addHeadings(value.marc);
    }
  }
  return { changes, left, ...totals };
}
