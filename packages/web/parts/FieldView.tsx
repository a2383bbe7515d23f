import { Button } from 'antd';
import type { Finding } from '@osier/core/checks';
import { columnAt, LANGUAGE } from '@osier/core/access';
import { isTakenField } from '@osier/core/holdings';
import { lineOf, withPartners, type Field, type MarcRecord } from '@osier/core/marc';
import { Fragment, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import './field-view.css';
import { FieldBody } from './FieldBody';
import { FieldEditor } from './FieldEditor';
import { KIND_OF_SEVERITY, Mark } from './Mark';
import { partWords as wording } from './words';

interface Props {
  readonly record: MarcRecord;
  readonly findings?: readonly Finding[];
  /** Given when fields can be edited: the record with the field exchanged, or without it when null. */
  readonly onChange?: (at: number, field: Field | null) => void;
  readonly onFix?: (finding: Finding) => void;
  /** The field that is being added, with its place; it is in the record when it has been filled in. */
  readonly adding?: AddedField | null;
  /** Given the field as it was filled in; null when it was left empty. */
  readonly onAdded?: (field: Field | null) => void;
  /** What 852 and 876 say stands in the holdings and copies by now. */
  readonly takenIntoHoldings?: boolean;
}

/** A field to come, and before which field of the record. */
export interface AddedField {
  readonly at: number;
  readonly field: Field;
}

/** A record field by field: tag, indicators, running text with small raised subfield codes, findings in the margin. */
export function FieldView({
  record,
  findings = [],
  onChange,
  onFix,
  takenIntoHoldings = false,
  adding = null,
  onAdded,
}: Props) {
  const [editing, setEditing] = useState<number | null>(null);
  const view = useRef<HTMLDivElement>(null);
  const edited = useRef<number | null>(null);
  useEffect(() => {
    if (adding) return;
    if (editing !== null) edited.current = editing;
    else if (edited.current !== null) {
      // The arrow keys go on from the field that was edited, or from what stands in its place.
      const row = (at: number) => view.current?.querySelector<HTMLElement>(`[data-at="${at}"]`);
      (row(edited.current) ?? row(edited.current - 1))?.focus();
      edited.current = null;
    }
  }, [editing, adding]);
  const language = columnAt(LANGUAGE, record);
  const rows = [{ at: -1, field: { tag: 'LDR', value: record.leader } as Field }, ...withPartners(record)];
  /** The row before which the field to come stands: what stands at its place, else the end. */
  const before = adding ? rows.findIndex(({ at }) => at >= adding.at) : -1;
  const addedEditor = adding ? (
    <FieldEditor
      key="added"
      field={adding.field}
      onCancel={() => onAdded?.(null)}
      onSave={(field) => {
        edited.current = field ? adding.at : null;
        onAdded?.(field);
      }}
    />
  ) : null;
  const onKey = (event: KeyboardEvent<HTMLDivElement>, at: number) => {
    const row = event.currentTarget;
    if (event.target !== row) return;
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const next = event.key === 'ArrowDown' ? row.nextElementSibling : row.previousElementSibling;
      (next as HTMLElement | null)?.focus();
    } else if (event.key === 'Enter' && onChange && at >= 0) {
      event.preventDefault();
      setEditing(at);
    } else if (event.key === 'f' && onFix) {
      const fixable = findings.find((f) => f.where.field === at && f.fix);
      if (fixable) onFix(fixable);
    }
  };
  return (
    <div
      className="field-view"
      ref={view}
      role="group"
      aria-label={wording.fieldsOfTheRecord}
      onCopy={(e) => copyPlain(e, record)}
    >
      {rows.map(({ at, field }, i) => {
        const own = findings.filter((f) => f.where.field === at);
        const added = i === before ? addedEditor : null;
        if (editing === at && at >= 0)
          return (
            <FieldEditor
              key={`edit-${at}`}
              field={field}
              onCancel={() => setEditing(null)}
              onSave={(f) => {
                setEditing(null);
                onChange!(at, f);
              }}
            />
          );
        return (
          <Fragment key={at}>
            {added}
            <div
              className={field.tag === '880' ? 'field-row partner' : 'field-row'}
              tabIndex={0}
              data-at={at}
              onKeyDown={(e) => onKey(e, at)}
              onDoubleClick={() => onChange && at >= 0 && setEditing(at)}
            >
              <FieldBody field={field} leader={record.leader} language={language} findings={own} />
              <div className="field-side">
                {takenIntoHoldings && isTakenField(field.tag) ? (
                  <span className="faded">{wording.inHoldings}</span>
                ) : null}
                {own.map((f, i) => (
                  <Mark key={i} kind={KIND_OF_SEVERITY[f.severity]} name={f.message} />
                ))}
                {onChange && at >= 0 ? (
                  <Button
                    type="text"
                    size="small"
                    className="field-edit"
                    onClick={() => setEditing(at)}
                    aria-label={wording.editField(field.tag)}
                  >
                    {wording.edit}
                  </Button>
                ) : null}
              </div>
              {own.length ? (
                <ul className="field-findings">
                  {own.map((f, i) => (
                    <li key={i}>
                      {f.message}{' '}
                      {f.fix && onFix ? (
                        <Button size="small" className="fix" onClick={() => onFix(f)}>
                          {f.fix.sentence} <kbd>f</kbd>
                        </Button>
                      ) : null}
                    </li>
                  ))}
                </ul>
              ) : null}
            </div>
          </Fragment>
        );
      })}
      {before < 0 ? addedEditor : null}
    </div>
  );
}

function copyPlain(event: React.ClipboardEvent, record: MarcRecord): void {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed) return;
  const rows = [...event.currentTarget.querySelectorAll<HTMLElement>('.field-row')].filter((r) =>
    selection.containsNode(r, true),
  );
  const fields = rows
    .map((r) => record.fields[Number(r.dataset.at)])
    .filter((f): f is Field => f !== undefined);
  if (rows.length < 2 || fields.length === 0) return;
  event.preventDefault();
  event.clipboardData.setData('text/plain', fields.map(lineOf).join('\n'));
}
