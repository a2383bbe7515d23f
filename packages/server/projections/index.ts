import type { ChangesByKind } from '../store/changes-by-kind';
import type { Transaction } from '../store/database';
import type { Store } from '../store/store';
import { briefRecords } from './brief-records';
import { counts } from './counts';
import { headingUse } from './heading-use';
import { headingWords } from './heading-words';
import { alikeRecords } from './alike-records';
import { alikeHeadings } from './look-alikes';
import type { Projection } from './projection';
import { recordIndex } from './record-index';
import { recordLinks } from './record-links';
import { recordFindings } from './record-findings';
import { facetCounts, recordRows } from './record-rows';
import { rollNumbers } from './roll-numbers';
import { usedTerms } from './used-terms';
import { stocktakes } from './stocktakes';
import { unionRows } from './union-rows';
import { loansToTell } from './loans-to-tell';
import { localValues } from './local-values';

/** All that is derived and kept, in the order in which it is brought in line. */
export const PROJECTIONS: readonly Projection[] = [
  recordIndex,
  headingWords,
  recordRows,
  facetCounts,
  recordFindings,
  rollNumbers,
  counts,
  headingUse,
  usedTerms,
  recordLinks,
  briefRecords,
  alikeHeadings,
  alikeRecords,
  stocktakes,
  unionRows,
  loansToTell,
  localValues,
];

/** Brings all projections in line with a change set, in the transaction that has just written its rows. */
export async function applyProjections(store: Store, changes: ChangesByKind, tx: Transaction): Promise<void> {
  for (const projection of PROJECTIONS)
    if (projection.of.some((kind) => changes.kinds.includes(kind)))
      await projection.apply(store, changes, tx);
}

/** Makes those anew whose rule has changed since the store was written; what a kill interrupts is begun again. */
export async function rebuildProjections(store: Store): Promise<void> {
  for (const { name, version, rebuild } of PROJECTIONS) {
    const kept = await store.row<{ version: number }>('SELECT version FROM key_versions WHERE name = :name', {
      name,
    });
    if (kept?.version === version) continue;
    await rebuild(store);
    await store.write((tx) =>
      store.run(
        'INSERT INTO key_versions (name, version) VALUES (:name, :version) ON CONFLICT (name) DO UPDATE SET version = excluded.version',
        { name, version },
        tx,
      ),
    );
  }
}
