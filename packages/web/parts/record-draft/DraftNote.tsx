import { Button } from 'antd';
import type { Draft } from '../../shell/drafts';
import { Compare } from '../Compare';
import { partWords as wording } from '../words';

/** Tells that a record is changed and not saved, with what was changed, and offers to save or discard it. */
export const DraftNote = ({
  draft,
  onSave,
  onDiscard,
}: {
  draft: Draft;
  onSave: () => void;
  onDiscard: () => void;
}) => (
  <div className="note caution draft" role="status">
    <div className="row spread">
      <b>{wording.notSavedYet}</b>
      <span className="row">
        <Button onClick={onDiscard}>{wording.discardChanges}</Button>
        <Button type="primary" onClick={onSave}>
          {wording.saveRecord} <kbd>Ctrl S</kbd>
        </Button>
      </span>
    </div>
    <Compare before={draft.base} after={draft.marc} />
  </div>
);
