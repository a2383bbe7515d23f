import { RedoOutlined, SearchOutlined, UndoOutlined } from '@ant-design/icons';
import { replaceText } from '@osier/core/editing';
import { Button, Checkbox, Input, Popover } from 'antd';
import { useState } from 'react';
import { useShell } from '../../shell/shell-store';
import type { RecordDraft } from '../record-draft/use-record-draft';
import { fieldWords as wording } from './words';

/** Undo and redo within the record, find and replace in its texts. */
export function FieldTools({ edit }: { edit: RecordDraft }) {
  const [open, setOpen] = useState(false);
  return (
    <span className="row">
      <Button
        size="small"
        icon={<UndoOutlined />}
        disabled={!edit.canUndo}
        aria-label={wording.undoEdit}
        title={`${wording.undoEdit} (Ctrl Z)`}
        onClick={edit.undo}
      />
      <Button
        size="small"
        icon={<RedoOutlined />}
        disabled={!edit.canRedo}
        aria-label={wording.redoEdit}
        title={`${wording.redoEdit} (Ctrl Y)`}
        onClick={edit.redo}
      />
      <Popover
        trigger="click"
        open={open}
        onOpenChange={setOpen}
        destroyOnHidden
        title={wording.findAndReplace}
        content={<FindReplaceForm edit={edit} onDone={() => setOpen(false)} />}
      >
        <Button size="small" icon={<SearchOutlined />} data-key="r" aria-label={wording.findAndReplace} />
      </Popover>
    </span>
  );
}

function FindReplaceForm({ edit, onDone }: { edit: RecordDraft; onDone: () => void }) {
  const [find, setFind] = useState('');
  const [by, setBy] = useState('');
  const [matchCase, setMatchCase] = useState(true);
  const say = useShell((s) => s.say);
  const { transaction, count } = replaceText(edit.marc, { find, by, matchCase });
  const replace = () => {
    if (count === 0) return;
    edit.apply(transaction, { find, by, matchCase });
    say(wording.replaced(count));
    onDone();
  };
  return (
    <form
      className="find-replace"
      onSubmit={(e) => {
        e.preventDefault();
        replace();
      }}
      onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
    >
      <label>
        {wording.find}
        <Input autoFocus value={find} onChange={(e) => setFind(e.target.value)} />
      </label>
      <label>
        {wording.replaceBy}
        <Input value={by} onChange={(e) => setBy(e.target.value)} />
      </label>
      <Checkbox checked={matchCase} onChange={(e) => setMatchCase(e.target.checked)}>
        {wording.matchCase}
      </Checkbox>
      <div className="row spread">
        <span className="faded">{find && count === 0 ? wording.notInThisRecord : ''}</span>
        <Button type="primary" htmlType="submit" disabled={count === 0}>
          {wording.replaceAll(count)}
        </Button>
      </div>
    </form>
  );
}
