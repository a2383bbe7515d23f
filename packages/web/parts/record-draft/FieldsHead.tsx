import { Button, Input } from 'antd';
import { useState } from 'react';
import type { RecordDraft } from './use-record-draft';
import { partWords as wording } from '../words';

/** The heading of a record's fields, with what can be done to all of them. */
export const FieldsHead = ({ edit, mayEdit }: { edit: RecordDraft; mayEdit: boolean }) => (
  <div className="row spread">
    <h3>{wording.fields}</h3>
    {mayEdit ? (
      <span className="row">
        {edit.fixable > 1 ? (
          <Button size="small" onClick={() => void edit.fixAll()}>
            {wording.fixAll(edit.fixable)}
          </Button>
        ) : null}
        <NewField onAdd={edit.beginField} />
      </span>
    ) : null}
  </div>
);

function NewField({ onAdd }: { onAdd: (tag: string) => void }) {
  const [tag, setTag] = useState('');
  const isTag = /^\d{3}$/.test(tag);
  const add = () => {
    if (!isTag) return;
    onAdd(tag);
    setTag('');
  };
  return (
    <span className="row" data-key="t" aria-label={wording.tagOfANewField}>
      <Input
        size="small"
        className="mono"
        aria-label={wording.tagOfANewField}
        placeholder={wording.tag}
        maxLength={3}
        style={{ width: 60 }}
        value={tag}
        onChange={(e) => setTag(e.target.value)}
        onPressEnter={(e) => {
          e.preventDefault();
          add();
        }}
      />
      <Button size="small" onClick={add} disabled={!isTag}>
        {wording.addField}
      </Button>
    </span>
  );
}
