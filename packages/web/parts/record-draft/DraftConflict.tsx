import { reconciled, type MarcRecord, type Side } from '@osier/core/marc';
import { useState } from 'react';
import type { Draft } from '../../shell/drafts';
import { Collisions } from '../Collisions';
import type { RecordDraft } from './use-record-draft';

/** A record as it stands saved now. */
export interface SavedVersion {
  readonly version: number;
  readonly marc: MarcRecord;
}

/** Whether a record was saved by somebody else since its draft was begun. */
export const isOutdated = (draft: Draft | null, now: SavedVersion | null): boolean =>
  draft !== null && now !== null && draft.version < now.version;

/** What somebody saved while a draft of it was edited, and the joining of both; nothing while the draft is of the newest version. */
export function DraftConflict({ edit, now }: { edit: RecordDraft; now: SavedVersion | null }) {
  const { draft } = edit;
  return draft && now && isOutdated(draft, now) ? (
    <Joining key={now.version} draft={draft} now={now} edit={edit} />
  ) : null;
}

function Joining({ draft, now, edit }: { draft: Draft; now: SavedVersion; edit: RecordDraft }) {
  const [choices, setChoices] = useState<readonly (Side | undefined)[]>([]);
  const { collisions } = reconciled(draft.base, draft.marc, now.marc);
  const goOn = () => {
    const chosen = collisions.map((_, i) => choices[i] ?? 'theirs');
    const { record } = reconciled(draft.base, draft.marc, now.marc, chosen);
    edit.set({ ...draft, version: now.version, base: now.marc, marc: record });
  };
  return (
    <Collisions
      before={draft.base}
      after={now.marc}
      collisions={collisions}
      choices={choices}
      onChoose={(at, side) => setChoices(collisions.map((_, i) => (i === at ? side : choices[i])))}
      onDone={goOn}
      onDiscard={() => edit.set(null)}
    />
  );
}
