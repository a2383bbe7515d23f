import { Button } from 'antd';
import type { Finding } from '@osier/core/checks';
import { isTakenField } from '@osier/core/holdings';
import { isControl, lineOf, withPartners, type Field, type MarcRecord } from '@osier/core/marc';
import { Fragment, useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import './field-view.css';
import { FieldEditor } from './FieldEditor';
import { useFormat } from './format';
import { KIND_OF_SEVERITY, Mark } from './Mark';
import { stretches } from './stretches';

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
      aria-label="Fields of the record"
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
              <FieldBody field={field} leader={record.leader} findings={own} />
              <div className="field-side">
                {takenIntoHoldings && isTakenField(field.tag) ? (
                  <span className="faded">taken into holdings</span>
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
                    aria-label={`Edit field ${field.tag}`}
                  >
                    Edit
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

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufefc]/;

/** Tag, indicators and content of one field; fixed fields as labelled positions with their meaning. */
export function FieldBody({
  field,
  leader,
  findings = [],
}: {
  field: Field;
  leader: string;
  findings?: readonly Finding[];
}) {
  const format = useFormat();
  const kind = format?.formatOf(leader);
  const tag =
    field.tag === '880' && !isControl(field)
      ? (field.subfields.find((s) => s.code === '6')?.value ?? '').slice(0, 3)
      : field.tag;
  const name = field.tag === 'LDR' ? 'Leader' : format?.fieldName(tag, kind);
  return (
    <>
      <span className="field-tag" title={name}>
        {field.tag}
        <span className="unseen">{name}</span>
      </span>
      {isControl(field) ? (
        <>
          <span className="field-inds" />
          <FixedContent field={field} leader={leader} findings={findings} />
        </>
      ) : (
        <>
          <span className="field-inds">
            {([1, 2] as const).map((n) => {
              const value = n === 1 ? field.ind1 : field.ind2;
              return (
                <span key={n} className="ind" title={format?.indicatorMeaning(tag, n, value, kind)}>
                  {value === ' ' ? <i aria-label="blank">·</i> : value}
                </span>
              );
            })}
          </span>
          <span
            className="field-text"
            dir={RIGHT_TO_LEFT.test(field.subfields.map((s) => s.value).join('')) ? 'rtl' : undefined}
          >
            {field.subfields.map((s, i) => (
              <span key={i}>
                <span className="code" title={format?.subfieldName(tag, s.code, kind)}>
                  {s.code}
                </span>
                {underlined(
                  s.value,
                  findings.filter((f) => f.where.subfield === i),
                )}{' '}
              </span>
            ))}
          </span>
        </>
      )}
    </>
  );
}

/** Text with what each finding concerns underlined; where two overlap, the first one is. */
function underlined(text: string, findings: readonly Finding[]): ReactNode {
  return (
    <bdi>
      {stretches(text, findings).map(({ part, finding }, i) =>
        finding ? (
          <u key={i} className={`found ${finding.severity}`} title={finding.message}>
            {part}
          </u>
        ) : (
          part
        ),
      )}
    </bdi>
  );
}

/** Leader, 006, 007 and 008 as labelled positions; other control fields as they are. */
function FixedContent({
  field,
  leader,
  findings,
}: {
  field: Field;
  leader: string;
  findings: readonly Finding[];
}) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  if (!isControl(field)) return null;
  const positions =
    format && /^(LDR|006|007|008)$/.test(field.tag)
      ? format.readPositions(field.tag, field.value, leader)
      : [];
  return (
    <span className="field-text fixed">
      <span className="fixed-value">
        {underlined(
          field.value.replaceAll(' ', '·'),
          findings.filter((f) => f.where.start !== undefined),
        )}
      </span>
      {positions.length ? (
        <Button size="small" className="fix" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Codes' : 'Decoded'}
        </Button>
      ) : null}
      {open ? (
        <span className="positions">
          {positions.map((p) => (
            <span key={p.from}>
              <b>{p.name}</b> {p.meaning ?? <code>{p.value.replaceAll(' ', '·')}</code>}
            </span>
          ))}
        </span>
      ) : null}
    </span>
  );
}
