import { api, pileBody } from '@osier/contract';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { PILE_OF } from '../../parts/pile-of';
import { useShell } from '../../shell/shell-store';
import { copiesWords as wording } from './words';

/** Begins an empty pile, to be scanned onto. */
export function BeginPile({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const say = useShell((s) => s.say);
  return (
    <SchemaForm
      takesFocus
      title={wording.newPile}
      schema={pileBody}
      initial={{ of: 'copy' }}
      fields={[
        { name: 'name', label: wording.name },
        { name: 'of', label: wording.aPileOf, kind: 'choice', options: PILE_OF },
        { name: 'note', label: wording.note, width: 'wide', help: wording.whatItIsForUntil },
      ]}
      draft={{ key: 'new pile', title: wording.newPile, path: '/copies?start=1' }}
      verb={wording.addPile}
      onCancel={onClose}
      onSend={async (body) => {
        const done = await call(api.piles.make, { body });
        say(done.sentence, done.entry);
        void navigate(`/copies/${done.id}`);
        void refresh();
      }}
    />
  );
}
