import { lineOf, type MarcRecord } from '@osier/core/marc';
import { Button } from 'antd';
import { useShell } from '../../shell/shell-store';
import type { RecordDraft } from '../record-draft/use-record-draft';
import { fieldWords as wording } from './words';

/** What can be done with the fields that are selected. */
export function SelectedFields({
  edit,
  record,
  selected,
  onClear,
}: {
  edit: RecordDraft;
  record: MarcRecord;
  selected: ReadonlySet<number>;
  onClear: () => void;
}) {
  const say = useShell((s) => s.say);
  const places = [...selected].sort((a, b) => a - b);
  const copy = async () => {
    await navigator.clipboard.writeText(
      places
        .flatMap((at) => record.fields[at] ?? [])
        .map(lineOf)
        .join('\n'),
    );
    say(wording.copied(places.length));
  };
  return (
    <div className="selected-fields row" role="status">
      <span>{wording.fieldsSelected(selected.size)}</span>
      <Button size="small" onClick={() => void copy()}>
        {wording.copy} <kbd>Ctrl C</kbd>
      </Button>
      <Button size="small" onClick={() => edit.duplicate(places)}>
        {wording.duplicate} <kbd>d</kbd>
      </Button>
      <Button
        size="small"
        danger
        onClick={() => {
          onClear();
          edit.removeFields(places);
        }}
      >
        {wording.remove} <kbd>{wording.deleteKey}</kbd>
      </Button>
      <Button size="small" onClick={onClear}>
        {wording.clearSelection} <kbd>Esc</kbd>
      </Button>
    </div>
  );
}
