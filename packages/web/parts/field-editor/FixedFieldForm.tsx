import { emptyFixedField, fixedCategories, withLeader, withPosition } from '@osier/core/editing';
import type { PositionDefinition } from '@osier/core/format';
import type { ControlField, MarcRecord } from '@osier/core/marc';
import { useEffect, useRef, useState } from 'react';
import { CodePicker } from '../CodePicker';
import { useFormat } from '../format';
import { FieldActs } from './FieldActs';
import { keepKeys } from './keep-keys';
import { PositionInput } from './PositionInput';
import { fieldWords as wording } from './words';

/** Positions of the leader that are lengths, addresses and fixed values: they are written with the record. */
const isSet = (tag: string, { from }: PositionDefinition) =>
  tag !== 'LDR' || (from >= 5 && from < 10) || (from >= 17 && from < 20);

/** Edits the leader, 006, 007 or 008: as labelled positions with the values that the format gives them, and as codes; both live. */
export function FixedFieldForm({
  field,
  record,
  onSave,
  onCancel,
}: {
  field: ControlField;
  record: MarcRecord;
  onSave: (field: ControlField | null) => void;
  onCancel: () => void;
}) {
  const format = useFormat();
  const form = useRef<HTMLFormElement>(null);
  const [value, setValue] = useState(field.value);
  const { tag } = field;
  const isLeader = tag === 'LDR';
  const needsCategory = (tag === '006' || tag === '007') && value === '';
  useEffect(() => {
    form.current?.querySelector<HTMLInputElement>('input')?.focus();
  }, [needsCategory]);
  if (!format) return null;
  const save = () => onSave(value.trim() === '' ? null : { ...field, value });
  const positions = format
    .positionsOf(tag, value, isLeader ? value : record.leader)
    .filter((p) => isSet(tag, p));
  const { lost } = isLeader && value.length === 24 ? withLeader(record, value) : { lost: [] };
  return (
    <form
      ref={form}
      className="field-editor"
      onKeyDown={keepKeys(save, onCancel)}
      onSubmit={(e) => e.preventDefault()}
      aria-label={wording.editingField(tag)}
    >
      <span className="field-tag">{tag}</span>
      <div className="field-editor-body">
        {needsCategory ? (
          <>
            <span>{wording.chooseTheCategoryFirst}</span>
            <CodePicker
              label={wording.category}
              list={fixedCategories(tag)}
              value=""
              onChange={(code) => setValue(emptyFixedField(tag, record.leader, code))}
            />
          </>
        ) : (
          <>
            <input
              className="sub-text mono"
              aria-label={wording.codesOf(tag)}
              value={value}
              spellCheck={false}
              onChange={(e) => setValue(e.target.value)}
            />
            <div className="position-inputs">
              {positions.map((p) => (
                <PositionInput
                  key={p.from}
                  position={p}
                  value={value.slice(p.from, p.to)}
                  onChange={(code) => setValue(withPosition(value, p, code))}
                />
              ))}
            </div>
          </>
        )}
        {lost.length ? (
          <div className="note caution" role="status">
            {wording.lostByThis}
            <ul>
              {lost.map((p) => (
                <li key={p.name}>
                  {wording.lostCode(p.name, p.value.trim(), p.meaning ? ` (${p.meaning})` : '')}
                </li>
              ))}
            </ul>
          </div>
        ) : null}
      </div>
      <FieldActs onSave={save} onCancel={onCancel} onDelete={isLeader ? undefined : () => onSave(null)} />
    </form>
  );
}
