import { CloseOutlined } from '@ant-design/icons';
import type { DataField, MarcRecord } from '@osier/core/marc';
import { Button } from 'antd';
import { memo, type KeyboardEvent } from 'react';
import { useFormat } from '../format';
import { CompletedInput } from './CompletedInput';
import * as typing from './field-parts';
import { SubfieldText } from './SubfieldText';
import { fieldWords as wording } from './words';

/** How the state of the field that is edited becomes another. */
export type PartsChange = (next: (now: typing.Parts) => typing.Parts) => void;

/** A subfield that is edited: its code, its text with what completes it, its name. While one is typed in, the others stay as they are. */
export const SubfieldRow = memo(function SubfieldRow({
  part,
  tag,
  ind2,
  source,
  record,
  takesCodes,
  isAgain,
  change,
  fieldNow,
  onHeading,
}: {
  part: typing.Part;
  tag: string;
  ind2: string;
  /** $2 of the field. */
  source: string | undefined;
  record: MarcRecord;
  /** A scan may be typed into its text. */
  takesCodes: boolean;
  /** The code stands in the field more than once. */
  isAgain: boolean;
  change: PartsChange;
  /** The field as it is typed by now. */
  fieldNow: () => DataField;
  onHeading: (field: DataField) => void;
}) {
  const format = useFormat();
  const { key, code, value } = part;
  const codes = format?.fieldDefinition(tag)?.subfields;
  const name = format?.subfieldName(tag, code);
  const mayRepeat = codes?.[code]?.[1] === 1;
  const repeats = !codes?.[code]
    ? ''
    : mayRepeat
      ? wording.repeatable
      : isAgain
        ? wording.isThereAlready
        : wording.notRepeatable;
  return (
    <div className="sub-edit" data-key={key} onKeyDown={betweenCodeAndText}>
      <CompletedInput
        className="sub-code"
        data-key={key}
        maxLength={1}
        // Tab goes from text to text: a code is seldom another one, and is not typed over by who types on.
        tabIndex={code === '' ? 0 : -1}
        title={wording.leadsToTheCode}
        aria-label={wording.subfieldCode}
        value={code}
        completions={
          code === '' && codes
            ? Object.keys(codes).map((c) => ({
                key: c,
                label: `${c}  ${format?.subfieldName(tag, c) ?? ''}`,
                take: () =>
                  change((s) => ({ ...typing.changed(s, key, { code: c }), caret: { key, at: 'end' } })),
              }))
            : NONE
        }
        onChange={(c) => change((s) => typing.changed(s, key, { code: c }))}
        onFocus={(e) => e.target.select()}
      />
      <SubfieldText
        tag={tag}
        ind2={ind2}
        source={source}
        fieldNow={fieldNow}
        record={record}
        code={code}
        value={value}
        takesCodes={takesCodes}
        label={wording.subfield(code || 'new', name ?? 'text')}
        onChange={(text) => change((s) => typing.changed(s, key, { value: text }))}
        onTaken={(text) =>
          change((s) => ({
            ...typing.changed(s, key, { value: text }),
            caret: { key, at: text.length },
          }))
        }
        onHeading={onHeading}
      />
      <small>
        {code ? (name ?? wording.notDefined) : wording.codeThenText}
        {code && repeats ? <span> · {repeats}</span> : null}
      </small>
      <Button
        type="text"
        size="small"
        tabIndex={-1}
        icon={<CloseOutlined />}
        aria-label={`${wording.deleteSubfield} ${code}`}
        onClick={() => change((s) => typing.removed(s, key))}
      />
    </div>
  );
});

const NONE: readonly never[] = [];

/** From the beginning of a text an arrow leads to the code before it, and from a code to its text. */
function betweenCodeAndText(event: KeyboardEvent<HTMLDivElement>): void {
  const { target, currentTarget, key } = event;
  if (
    !(target instanceof HTMLInputElement) ||
    event.ctrlKey ||
    event.altKey ||
    event.metaKey ||
    event.shiftKey
  )
    return;
  const isCode = target.classList.contains('sub-code');
  const back = getComputedStyle(target).direction === 'rtl' ? 'ArrowRight' : 'ArrowLeft';
  const isAtBeginning = target.selectionStart === 0 && target.selectionEnd === 0;
  if (isCode ? key !== 'ArrowRight' : key !== back || !isAtBeginning) return;
  event.preventDefault();
  currentTarget.querySelector<HTMLInputElement>(isCode ? '.sub-text' : '.sub-code')?.focus();
}
