import type { Finding } from '@osier/core/checks';
import type { Prompt } from '@osier/core/editing';
import { columnAt, LANGUAGE } from '@osier/core/access';
import { isTakenField } from '@osier/core/holdings';
import { isData, lineOf, withPartners, type Field, type MarcRecord } from '@osier/core/marc';
import {
  Fragment,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type MouseEvent,
} from 'react';
import type { RecordDraft } from '../record-draft/use-record-draft';
import './field-view.css';
import { FieldEditor } from './FieldEditor';
import { FieldRow } from './FieldRow';
import { fieldKeys, selectedIn } from './field-keys';
import { PromptRow } from './PromptRow';
import { SelectedFields } from './SelectedFields';
import { useSelected } from './use-selected';
import { fieldWords as wording } from './words';

interface Props {
  readonly record: MarcRecord;
  readonly findings?: readonly Finding[];
  /** Given when the record can be edited. */
  readonly edit?: RecordDraft | undefined;
  /** What 852 and 876 say stands in the holdings and copies by now. */
  readonly takenIntoHoldings?: boolean;
  /** Fields that are asked for and not there yet. */
  readonly prompts?: readonly Prompt[];
}

const NONE: readonly Finding[] = [];
/** The least height of a row in pixels, and how many more rows than fill the window are drawn at once. */
const [ROW_HEIGHT, SPARE_ROWS] = [30, 4];

/** A record field by field: tag, indicators, running text with small raised subfield codes, findings in the margin. */
export function FieldView({ record, findings = NONE, edit, takenIntoHoldings = false, prompts = [] }: Props) {
  const [editing, setEditing] = useState<number | null>(null);
  const [selected, setSelected] = useSelected(record);
  const [active, setActive] = useState<number | null>(null);
  const view = useRef<HTMLDivElement>(null);
  /** The field that takes the focus when nothing is edited any more. */
  const focusOn = useRef<number | null>(null);
  const adding = edit?.adding ?? null;
  useEffect(() => {
    if (adding) return;
    if (editing !== null) focusOn.current = editing;
    else if (focusOn.current !== null) {
      // The arrow keys go on from the field that was edited, or from what stands in its place.
      const row = (at: number) => view.current?.querySelector<HTMLElement>(`[data-at="${at}"]`);
      (row(focusOn.current) ?? row(focusOn.current - 1))?.focus();
      focusOn.current = null;
    }
  }, [editing, adding, record]);
  const language = columnAt(LANGUAGE, record);
  const rows = useMemo(
    () => [{ at: -1, field: { tag: 'LDR', value: record.leader } }, ...withPartners(record)],
    [record],
  );
  // Of a long record the first screenful is drawn at once, the rest behind it.
  const firstRows = Math.ceil(window.innerHeight / ROW_HEIGHT) + SPARE_ROWS;
  const isWhole = useDeferredValue(true, rows.length <= firstRows);
  const byField = useMemo(() => {
    const found = new Map<number, Finding[]>();
    for (const f of findings) found.set(f.where.field, [...(found.get(f.where.field) ?? []), f]);
    return found;
  }, [findings]);
  const open = (at: number | null) => {
    edit?.hold(at !== null);
    setEditing(at);
  };
  const act = edit && {
    edit: open,
    select: setSelected,
    focus: (at: number) => (focusOn.current = at),
    fillIn: (n: number) => {
      const prompt = prompts[n];
      if (prompt) edit.beginField(prompt.asked, prompt.at);
    },
    fix: (at: number, n = 0) => {
      const fixable = (byField.get(at) ?? NONE).filter((f, i) => f.fix && (n === 0 || i === n));
      if (fixable[0]) edit.fix(fixable[0]);
    },
  };
  const onClick = (event: MouseEvent<HTMLDivElement>) => {
    if (!act || !(event.target instanceof Element)) return;
    const asked = event.target.closest<HTMLElement>('[data-prompt]');
    if (asked) return act.fillIn(Number(asked.dataset.prompt));
    const row = event.target.closest<HTMLElement>('.field-row');
    const button = event.target.closest<HTMLElement>('[data-act]');
    if (!row || !button) return;
    const at = Number(row.dataset.at);
    if (button.dataset.act === 'fix') act.fix(at, Number(button.dataset.fix));
    else open(at);
  };
  const onDoubleClick = ({ target }: MouseEvent) => {
    const row = target instanceof Element ? target.closest<HTMLElement>('.field-row[data-at]') : null;
    if (act && row) open(Number(row.dataset.at));
  };
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (!edit || !edit.isPasteOfFields(text, event.target)) return;
    event.preventDefault();
    edit.paste(text);
  };
  /** The row before which the field to come stands: what stands at its place, else the end. */
  const before = adding ? rows.findIndex(({ at }) => at >= adding.at) : -1;
  const addedEditor =
    edit && adding ? (
      <FieldEditor
        key={`added ${adding.field.tag}`}
        field={adding.field}
        record={record}
        onCancel={() => edit.added(null)}
        onSave={(typed) => {
          // What only has the texts that the starter put there was not filled in.
          const field = adding.isAsked && typed && !isFilledIn(adding.field, typed) ? null : typed;
          focusOn.current = field ? adding.at : null;
          edit.added(field);
          if (!adding.isAsked) return;
          // What a starter asks for is filled in one after the other; Enter on an empty one goes on.
          const asked = prompts.findIndex((q) => q.at === adding.at && q.asked.tag === adding.field.tag);
          const next = prompts[asked + 1];
          if (next) edit.beginField(next.asked, next.at + (field ? 1 : 0));
        }}
      />
    ) : null;
  /** Whether a prompt is the one that is being filled in. */
  const isOpen = ({ at, asked }: Prompt) =>
    adding?.isAsked === true && adding.at === at && adding.field.tag === asked.tag;
  const isAmongPrompts = prompts.some(isOpen);
  const promptsAt = (at: number) =>
    prompts.map((prompt, n) =>
      prompt.at !== at ? null : isOpen(prompt) ? (
        addedEditor
      ) : (
        <PromptRow key={`asked ${n}`} prompt={prompt} n={n} />
      ),
    );
  return (
    <>
      <div
        className="field-view"
        ref={view}
        role="group"
        aria-label={wording.fieldsOfTheRecord}
        onMouseOver={(e) => setActive(rowAt(e.target))}
        onMouseLeave={() => setActive(null)}
        onFocus={(e) => setActive(rowAt(e.target))}
        onCopy={(e) => copyPlain(e, record, selected)}
        onCut={(e) => {
          if (edit && copyPlain(e, record, selected)) edit.removeFields(selectedIn(e.target, selected));
        }}
        onPaste={onPaste}
        onClick={onClick}
        onDoubleClick={onDoubleClick}
        onKeyDown={(e) => fieldKeys(e, { record, edit, selected, act })}
      >
        {(isWhole ? rows : rows.slice(0, firstRows)).map(({ at, field }, i) => (
          <Fragment key={at}>
            {i > 0 ? promptsAt(at) : null}
            {i === before && !isAmongPrompts ? addedEditor : null}
            {editing === at && edit ? (
              <FieldEditor
                field={field}
                record={record}
                onCancel={() => open(null)}
                onSave={(f) => {
                  open(null);
                  focusOn.current = edit.changeField(at, f);
                }}
              />
            ) : (
              <FieldRow
                at={at}
                field={field}
                leader={record.leader}
                language={language}
                findings={byField.get(at) ?? NONE}
                isEditable={edit !== undefined}
                isSelected={selected.has(at)}
                isActive={active === at}
                isInHoldings={takenIntoHoldings && isTakenField(field.tag)}
              />
            )}
          </Fragment>
        ))}
        {promptsAt(record.fields.length)}
        {before < 0 && !isAmongPrompts ? addedEditor : null}
      </div>
      {edit && selected.size > 0 ? (
        <SelectedFields
          edit={edit}
          record={record}
          selected={selected}
          onClear={() => setSelected(new Set())}
        />
      ) : null}
    </>
  );
}

/** The field of the row that something stands in; null outside. */
function rowAt(target: EventTarget): number | null {
  const row = target instanceof Element ? target.closest<HTMLElement>('.field-row[data-at]') : null;
  return row ? Number(row.dataset.at) : null;
}

/** Whether something was typed in a field beside what stood there when it was opened. */
const isFilledIn = (begun: Field, typed: Field): boolean =>
  !isData(begun) ||
  !isData(typed) ||
  typed.subfields.some((s) => !begun.subfields.some((b) => b.code === s.code && b.value === s.value));

/** Copies what is selected, or the field with the focus, as lines; a stretch of text of one field is left to the browser. */
function copyPlain(event: ClipboardEvent, record: MarcRecord, selected: ReadonlySet<number>): boolean {
  const selection = window.getSelection();
  const inText = event.target instanceof HTMLInputElement;
  if (inText) return false;
  let places = selectedIn(event.target, selected);
  if (selection && !selection.isCollapsed) {
    const rows = [...event.currentTarget.querySelectorAll<HTMLElement>('.field-row[data-at]')].filter((r) =>
      selection.containsNode(r, true),
    );
    if (rows.length < 2) return false;
    places = rows.map((r) => Number(r.dataset.at));
  }
  const fields = places.flatMap((at) => record.fields[at] ?? []);
  if (fields.length === 0) return false;
  event.preventDefault();
  event.clipboardData.setData('text/plain', fields.map(lineOf).join('\n'));
  return true;
}
