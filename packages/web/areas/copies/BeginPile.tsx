import { api, pileBody } from '@osier/contract';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { PILE_OF } from '../../parts/pile-of';
import { useShell } from '../../shell/shell-store';

/** Begins an empty pile, to be scanned onto. */
export function BeginPile({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const say = useShell((s) => s.say);
  return (
    <SchemaForm
      takesFocus
      title="New pile"
      schema={pileBody}
      initial={{ of: 'copy' }}
      fields={[
        { name: 'name', label: 'Name' },
        { name: 'of', label: 'A pile of', kind: 'choice', options: PILE_OF },
        { name: 'note', label: 'Note', width: 'wide', help: 'what it is for, until when, for whom' },
      ]}
      draft={{ key: 'new pile', title: 'New pile', path: '/copies?start=1' }}
      verb="Add pile"
      onCancel={onClose}
      onSend={async (body) => {
        const done = await call(api.piles.make, { body });
        say(done.sentence, done.entry);
        onClose();
        void navigate(`/copies/${done.id}`);
        void refresh();
      }}
    />
  );
}
