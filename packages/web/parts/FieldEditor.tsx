import { isControl, type DataField, type Field } from '@osier/core/marc';
import { Button } from 'antd';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useKeepsScansOut } from '../shell/scan-target';
import { useFormat } from './format';
import { partWords as wording } from './words';

/** Numbers that are scanned: ISBN, ISSN, other standard numbers. */
const CODE_FIELDS = new Set(['020', '022', '024', '028']);

interface Part {
  readonly code: string;
  readonly value: string;
  readonly key: number;
}

/** Edits one field in place: indicators, and a code and a text for each subfield. Enter keeps, Esc cancels. Ctrl S keeps too, and goes on to what saves the whole. */
export function FieldEditor({
  field,
  onSave,
  onCancel,
}: {
  field: Field;
  onSave: (field: Field | null) => void;
  onCancel: () => void;
}) {
  const format = useFormat();
  const form = useRef<HTMLFormElement>(null);
  const [inds, setInds] = useState(isControl(field) ? ['', ''] : [field.ind1, field.ind2]);
  const [text, setText] = useState(isControl(field) ? field.value : '');
  const [parts, setParts] = useState<Part[]>(
    isControl(field) ? [] : field.subfields.map((s, key) => ({ ...s, key })),
  );
  useKeepsScansOut(wording.field(field.tag));
  const takesCodes = CODE_FIELDS.has(field.tag);
  const [focusOn, setFocusOn] = useState<number | null>(null);
  useEffect(() => {
    const inputs = form.current!.querySelectorAll<HTMLInputElement>('input.sub-text');
    const wanted =
      focusOn === null
        ? inputs[0]
        : form.current!.querySelector<HTMLInputElement>(`input.sub-code[data-key="${focusOn}"]`);
    wanted?.focus();
  }, [focusOn]);
  const save = () => {
    if (isControl(field)) return onSave({ ...field, value: text });
    const subfields = parts
      .filter((p) => p.code !== '' && p.value.trim() !== '')
      .map(({ code, value }) => ({ code, value }));
    const next: DataField = { tag: field.tag, ind1: inds[0] || ' ', ind2: inds[1] || ' ', subfields };
    onSave(subfields.length ? next : null);
  };
  const add = () => {
    const key = Math.max(-1, ...parts.map((p) => p.key)) + 1;
    setParts([...parts, { code: '', value: '', key }]);
    setFocusOn(key);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape') {
      event.stopPropagation();
      onCancel();
    } else if (
      (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) ||
      (event.code === 'KeyS' && event.ctrlKey)
    ) {
      event.preventDefault();
      save();
    } else if (event.altKey && (event.key === '+' || event.key === '=')) {
      event.preventDefault();
      add();
    }
  };
  const set = (key: number, change: Partial<Part>) =>
    setParts(parts.map((p) => (p.key === key ? { ...p, ...change } : p)));
  return (
    <form
      ref={form}
      className="field-editor"
      onKeyDown={onKey}
      onSubmit={(e) => e.preventDefault()}
      aria-label={wording.editingField(field.tag)}
    >
      <span className="field-tag">{field.tag}</span>
      {isControl(field) ? (
        <input
          className="sub-text mono"
          aria-label={wording.text}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      ) : (
        <div className="field-editor-body">
          <div className="row">
            {[0, 1].map((n) => (
              <label key={n} className="ind-edit">
                <span>{wording.indicator(n === 0 ? wording.first : wording.second)}</span>
                <input
                  className="ind"
                  maxLength={1}
                  value={inds[n]}
                  onChange={(e) => setInds(inds.map((v, i) => (i === n ? e.target.value : v)))}
                  onFocus={(e) => e.target.select()}
                />
                <small>
                  {format?.indicatorMeaning(field.tag, n === 0 ? 1 : 2, inds[n] || ' ') ?? wording.notDefined}
                </small>
              </label>
            ))}
          </div>
          {parts.map((p) => (
            <div key={p.key} className="sub-edit">
              <input
                className="sub-code"
                data-key={p.key}
                maxLength={1}
                aria-label={wording.subfieldCode}
                value={p.code}
                onChange={(e) => set(p.key, { code: e.target.value })}
                onFocus={(e) => e.target.select()}
              />
              <input
                className="sub-text"
                data-takes-codes={takesCodes && p.code === 'a' ? 'text' : undefined}
                aria-label={wording.subfield(
                  p.code || 'new',
                  format?.subfieldName(field.tag, p.code) ?? 'text',
                )}
                value={p.value}
                onChange={(e) => set(p.key, { value: e.target.value })}
              />
              <small>
                {p.code
                  ? (format?.subfieldName(field.tag, p.code) ?? wording.notDefined)
                  : wording.codeThenText}
              </small>
            </div>
          ))}
        </div>
      )}
      <div className="row field-editor-acts">
        <Button size="small" type="primary" onClick={save}>
          {wording.ok} <kbd>Enter</kbd>
        </Button>
        {isControl(field) ? null : (
          <Button size="small" onClick={add}>
            {wording.addSubfield} <kbd>Alt +</kbd>
          </Button>
        )}
        <Button size="small" onClick={onCancel}>
          {wording.cancel} <kbd>Esc</kbd>
        </Button>
        <Button size="small" danger onClick={() => onSave(null)}>
          {wording.deleteField}
        </Button>
      </div>
    </form>
  );
}
