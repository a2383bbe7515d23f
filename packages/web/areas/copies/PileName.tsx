import { api, pileChangeBody, type PileRow } from '@osier/contract';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useShell } from '../../shell/shell-store';
import { copiesWords as wording } from './words';

/** Changes name and note of a pile. */
export function PileName({ pile, onDone }: { pile: PileRow; onDone: () => void }) {
  const say = useShell((s) => s.say);
  return (
    <div className="shelf-form">
      <SchemaForm
        takesFocus
        schema={pileChangeBody}
        initial={{ name: pile.name, note: pile.note, version: pile.version }}
        fields={[
          { name: 'name', label: wording.name },
          { name: 'note', label: wording.note },
        ]}
        verb={wording.saveNameAndNote}
        onCancel={onDone}
        onSend={async (body) => {
          const done = await call(api.piles.change, { params: { id: pile.id }, body });
          say(done.sentence, done.entry);
          onDone();
          void refresh();
        }}
      />
    </div>
  );
}
