import { Button } from 'antd';
import type { Draft } from '../../shell/drafts';
import { Compare } from '../Compare';

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
      <b>Not saved yet.</b>
      <span className="row">
        <Button onClick={onDiscard}>Discard changes</Button>
        <Button type="primary" onClick={onSave}>
          Save record <kbd>Ctrl S</kbd>
        </Button>
      </span>
    </div>
    <Compare before={draft.base} after={draft.marc} />
  </div>
);
