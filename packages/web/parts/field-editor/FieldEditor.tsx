import { isControl, type Field, type MarcRecord } from '@osier/core/marc';
import { useKeepsScansOut } from '../../shell/scan-target';
import { useShell } from '../../shell/shell-store';
import { ControlFieldForm } from './ControlFieldForm';
import { DataFieldForm } from './DataFieldForm';
import { FixedFieldForm } from './FixedFieldForm';
import { fieldWords as wording } from './words';

const FIXED = /^(LDR|006|007|008)$/;

/**
 * Edits one field in place. Enter keeps, Esc cancels; Ctrl S keeps too, and goes on to what saves the whole. Null is given for a field
 * that was emptied or deleted. The leader is edited as a field with the tag LDR.
 */
export function FieldEditor({
  field,
  record,
  onSave,
  onCancel,
}: {
  field: Field;
  /** The record that it stands in: fixed fields are read by its leader, marks are set as it sets them. */
  record: MarcRecord;
  onSave: (field: Field | null) => void;
  onCancel: () => void;
}) {
  const complain = useShell((s) => s.complain);
  useKeepsScansOut(wording.field(field.tag));
  if (!isControl(field))
    return (
      <DataFieldForm field={field} record={record} onSave={onSave} onCancel={onCancel} complain={complain} />
    );
  return FIXED.test(field.tag) ? (
    <FixedFieldForm field={field} record={record} onSave={onSave} onCancel={onCancel} />
  ) : (
    <ControlFieldForm field={field} onSave={onSave} onCancel={onCancel} />
  );
}
