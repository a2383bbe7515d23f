import type { ControlField } from '@osier/core/marc';
import { useEffect, useRef, useState } from 'react';
import { FieldActs } from './FieldActs';
import { keepKeys } from './keep-keys';
import { fieldWords as wording } from './words';

/** Edits a control field that is one text. */
export function ControlFieldForm({
  field,
  onSave,
  onCancel,
}: {
  field: ControlField;
  onSave: (field: ControlField | null) => void;
  onCancel: () => void;
}) {
  const [text, setText] = useState(field.value);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const save = () => onSave(text.trim() === '' ? null : { ...field, value: text });
  return (
    <form
      className="field-editor"
      onKeyDown={keepKeys(save, onCancel)}
      onSubmit={(e) => e.preventDefault()}
      aria-label={wording.editingField(field.tag)}
    >
      <span className="field-tag">{field.tag}</span>
      <input
        ref={input}
        className="sub-text mono"
        aria-label={wording.text}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <FieldActs onSave={save} onCancel={onCancel} onDelete={() => onSave(null)} />
    </form>
  );
}
