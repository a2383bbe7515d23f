import type { DataField, MarcRecord } from '@osier/core/marc';
import { CompletedInput } from './CompletedInput';
import { useCompletions } from './completions';

/** The text of a subfield, with what may complete it: headings, codes of a list, terms used before. */
export function SubfieldText({
  tag,
  ind2,
  source,
  fieldNow,
  record,
  code,
  value,
  takesCodes,
  label,
  onChange,
  onTaken,
  onHeading,
}: {
  tag: string;
  ind2: string;
  /** $2 of the field. */
  source: string | undefined;
  /** The field as it is typed by now. */
  fieldNow: () => DataField;
  record: MarcRecord;
  code: string;
  value: string;
  /** A scan may be typed here. */
  takesCodes: boolean;
  label: string;
  onChange: (value: string) => void;
  onTaken: (value: string) => void;
  onHeading: (field: DataField) => void;
}) {
  const { completions, asked } = useCompletions({
    tag,
    ind2,
    subject: source,
    fieldNow,
    record,
    code,
    value,
    onTaken,
    onHeading,
  });
  const shared = {
    className: 'sub-text',
    'data-takes-codes': takesCodes ? 'text' : undefined,
    'aria-label': label,
    dir: 'auto',
  };
  return asked ? (
    <CompletedInput {...shared} value={value} completions={completions} onChange={onChange} />
  ) : (
    <input {...shared} value={value} onChange={(e) => onChange(e.target.value)} />
  );
}
