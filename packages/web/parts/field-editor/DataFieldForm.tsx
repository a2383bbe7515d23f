import { isDataTag } from '@osier/core/editing';
import type { DataField, MarcRecord } from '@osier/core/marc';
import { Button } from 'antd';
import {
  memo,
  useCallback,
  useEffect,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
} from 'react';
import { useFormat } from '../format';
import { isChoosing } from './CompletedInput';
import { FieldActs } from './FieldActs';
import * as typing from './field-parts';
import { IndicatorInput } from './IndicatorInput';
import { SpecialCharacters } from './SpecialCharacters';
import { SubfieldRow } from './SubfieldRow';
import { fieldWords as wording } from './words';

/** Numbers that are scanned: ISBN, ISSN, other standard numbers. */
const CODE_FIELDS = new Set(['020', '022', '024', '028']);
/** No subfield holds more (ISO 2709: a field has 9,999 bytes; here it is told when a record is exported). */
const MOST_TEXT = 99_999;

/** Edits a data field in place: indicators with their meanings, and a code and a text for each subfield. */
export function DataFieldForm({
  field,
  record,
  onSave,
  onCancel,
  complain,
}: {
  field: DataField;
  record: MarcRecord;
  onSave: (field: DataField | null) => void;
  onCancel: () => void;
  complain: (what: string) => void;
}) {
  const format = useFormat();
  const form = useRef<HTMLFormElement>(null);
  const [typedTag, setTag] = useState(field.tag);
  const tag = isDataTag(typedTag) ? typedTag : field.tag;
  const [inds, setInds] = useState([field.ind1, field.ind2]);
  const [state, setState] = useState(() => typing.partsOf(field.subfields));
  const { parts, caret } = state;
  const lastText = useRef<HTMLInputElement | null>(null);
  const textOf = (key: number) =>
    form.current?.querySelector<HTMLInputElement>(`.sub-edit[data-key="${key}"] input.sub-text`);
  useEffect(() => {
    // All of it is seen, not only what has the focus; its beginning where it is longer than the pane.
    form.current?.scrollIntoView?.({ block: 'nearest' });
    form.current?.querySelector<HTMLInputElement>('input.sub-text')?.focus();
  }, []);
  useEffect(() => {
    if (!caret) return;
    if (caret.at === 'code') {
      form.current
        ?.querySelector<HTMLInputElement>(`.sub-edit[data-key="${caret.key}"] input.sub-code`)
        ?.focus();
      return;
    }
    const text = textOf(caret.key);
    text?.focus();
    const at = caret.at === 'end' ? (text?.value.length ?? 0) : caret.at;
    text?.setSelectionRange(at, at);
  }, [caret]);
  const save = () => {
    if (isDataTag(typedTag)) return onSave(typed);
    complain(wording.noTag(typedTag));
    form.current?.querySelector<HTMLInputElement>('input.field-tag')?.focus();
  };
  const keyOf = (target: EventTarget): number | null => {
    const row = target instanceof HTMLElement ? target.closest<HTMLElement>('.sub-edit') : null;
    return row ? Number(row.dataset.key) : null;
  };
  /** Another subfield's text, above or below the one with the caret. */
  const goTo = (from: number, by: 1 | -1) => {
    const next = parts[parts.findIndex((p) => p.key === from) + by];
    if (next) setState({ parts, caret: { key: next.key, at: 'end' } });
  };
  const onKey = (event: KeyboardEvent<HTMLFormElement>) => {
    const { target } = event;
    const isButton = target instanceof HTMLButtonElement;
    const done = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    const choosing = isChoosing(target);
    if (event.key === 'Escape' && !choosing) {
      done();
      return onCancel();
    }
    if (event.key === 'Enter' && !isButton && !choosing && !event.ctrlKey) {
      done();
      return save();
    }
    // What saves the whole record hears it as well.
    if (event.code === 'KeyS' && event.ctrlKey) {
      if (!isDataTag(typedTag)) done();
      return save();
    }
    const key = keyOf(target);
    if (event.altKey && (event.key === '+' || event.key === '=')) {
      done();
      return setState(typing.added(state, key ?? undefined));
    }
    if (key === null || !(target instanceof HTMLInputElement)) return;
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      done();
      return setState(typing.movedBy(state, key, event.key === 'ArrowUp' ? -1 : 1));
    }
    if (!target.classList.contains('sub-text') || choosing || event.ctrlKey || event.metaKey) return;
    if (target.getAttribute('aria-expanded') !== 'true' && /^Arrow(Up|Down)$/.test(event.key)) {
      done();
      return goTo(key, event.key === 'ArrowUp' ? -1 : 1);
    }
    const { selectionStart: at, selectionEnd: end } = target;
    const next =
      event.key === 'Backspace' && at === 0 && end === 0
        ? typing.joinedToBefore(state, key)
        : at !== null && at === end
          ? typing.splitAtDollar(state, key, at, event.key)
          : null;
    if (!next) return;
    done();
    setState(next);
  };
  const onPaste = (event: ClipboardEvent) => {
    if (event.clipboardData.getData('text/plain').length <= MOST_TEXT) return;
    event.preventDefault();
    complain(wording.tooLongToPaste);
  };
  const takesCodes = CODE_FIELDS.has(tag);
  const typed = typing.fieldTyped({ ...field, tag }, inds, state);
  const insert = (text: string) => {
    const input = lastText.current;
    const key = input && form.current?.contains(input) ? keyOf(input) : (parts[0]?.key ?? null);
    if (key === null) return;
    const part = parts.find((p) => p.key === key)!;
    const at = input?.selectionStart ?? part.value.length;
    const value = part.value.slice(0, at) + text + part.value.slice(input?.selectionEnd ?? at);
    setState({ ...typing.changed(state, key, { value }), caret: { key, at: at + text.length } });
  };
  // What the parts of the form are given stays the same while one types, so that only what is typed in is drawn anew.
  const now = useRef({ typed, save, insert, onCancel, onSave });
  useEffect(() => {
    now.current = { typed, save, insert, onCancel, onSave };
  });
  const change = useCallback((next: (before: typing.Parts) => typing.Parts) => setState(next), []);
  const fieldNow = useCallback(() => now.current.typed ?? field, [field]);
  const onHeading = useCallback(({ ind1, ind2, subfields }: DataField) => {
    setInds([ind1, ind2]);
    setState({ ...typing.partsOf(subfields), caret: { key: subfields.length - 1, at: 'end' } });
  }, []);
  const setFirst = useCallback((value: string) => setInds((all) => [value, all[1] ?? ' ']), []);
  const setSecond = useCallback((value: string) => setInds((all) => [all[0] ?? ' ', value]), []);
  const onSaveNow = useCallback(() => now.current.save(), []);
  const onCancelNow = useCallback(() => now.current.onCancel(), []);
  const onDeleteNow = useCallback(() => now.current.onSave(null), []);
  const onInsert = useCallback((text: string) => now.current.insert(text), []);
  const onAdd = useCallback(() => setState((s) => typing.added(s)), []);
  const source = parts.find((p) => p.code === '2')?.value;
  return (
    <form
      ref={form}
      className="field-editor"
      onKeyDownCapture={onKey}
      onPaste={onPaste}
      onSubmit={(e) => e.preventDefault()}
      onFocus={({ target }) => {
        if (target instanceof HTMLInputElement && target.classList.contains('sub-text'))
          lastText.current = target;
      }}
      aria-label={wording.editingField(field.tag)}
    >
      <input
        className="field-tag"
        aria-label={wording.tag}
        inputMode="numeric"
        maxLength={3}
        value={typedTag}
        onChange={(e) => setTag(e.target.value)}
        onFocus={(e) => e.target.select()}
      />
      <div className="field-editor-body">
        <b className="field-name">{format?.fieldName(tag, format.formatOf(record.leader))}</b>
        <div className="row">
          {([1, 2] as const).map((n) => (
            <IndicatorInput
              key={n}
              tag={tag}
              which={n}
              value={inds[n - 1]!}
              onChange={n === 1 ? setFirst : setSecond}
            />
          ))}
        </div>
        {parts.map((p) => (
          <SubfieldRow
            key={p.key}
            part={p}
            tag={tag}
            ind2={inds[1] ?? ' '}
            source={source}
            record={record}
            takesCodes={takesCodes && p.code === 'a'}
            isAgain={parts.some((q) => q.code === p.code && q.key !== p.key)}
            change={change}
            fieldNow={fieldNow}
            onHeading={onHeading}
          />
        ))}
      </div>
      <Acts
        onSave={onSaveNow}
        onCancel={onCancelNow}
        onDelete={onDeleteNow}
        onAdd={onAdd}
        onInsert={onInsert}
      />
    </form>
  );
}

/** The buttons under the field. */
const Acts = memo(function Acts({
  onSave,
  onCancel,
  onDelete,
  onAdd,
  onInsert,
}: {
  onSave: () => void;
  onCancel: () => void;
  onDelete: () => void;
  onAdd: () => void;
  onInsert: (text: string) => void;
}) {
  return (
    <FieldActs onSave={onSave} onCancel={onCancel} onDelete={onDelete}>
      <Button size="small" onClick={onAdd}>
        {wording.addSubfield} <kbd>Alt +</kbd>
      </Button>
      <SpecialCharacters onChoose={onInsert} />
    </FieldActs>
  );
});
