import { api, stocktakeBody } from '@osier/contract';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';

const SCHEMES = [
  { value: 'dewey', label: 'Dewey' },
  { value: 'lc', label: 'LC' },
  { value: 'nlm', label: 'NLM' },
  { value: 'own', label: 'our own' },
];

/** Chooses the stretch: branch, locations, call-number range, types. */
export function StartStocktake({ onClose }: { onClose: () => void }) {
  const lists = useSetUp()?.lists.value;
  const [branch] = useMyBranch();
  const { say } = useShell();
  const navigate = useNavigate();
  if (!lists) return null;
  return (
    <SchemaForm
      takesFocus
      title="A new stocktake"
      schema={stocktakeBody}
      initial={{ branch, scheme: 'dewey' }}
      fields={(typed) => [
        { name: 'name', label: 'Name', width: 'wide', placeholder: 'Millrace, textiles' },
        {
          name: 'branch',
          label: 'Branch',
          kind: 'code',
          list: lists.branches,
          placeholder: 'Choose a branch',
        },
        {
          name: 'locations',
          label: 'Locations',
          kind: 'codes',
          placeholder: 'all locations',
          list: lists.locations.filter((l) => l.branch === typed.branch),
        },
        { name: 'types', label: 'Types', kind: 'codes', placeholder: 'all types', list: lists.types },
        { name: 'scheme', label: 'Scheme', kind: 'choice', options: SCHEMES },
        { name: 'from', label: 'Call number from', isMono: true, placeholder: 'the beginning' },
        {
          name: 'to',
          label: 'Call number to',
          isMono: true,
          placeholder: 'the end',
          help: 'with all that begins so',
        },
        {
          name: 'seenSince',
          label: 'Seen since counts as found',
          kind: 'date',
          help: 'copies last seen on or after this day need no scan',
        },
      ]}
      // Locations are those of a branch.
      follow={(changed) => ('branch' in changed ? { locations: [] } : {})}
      verb="Start the stocktake"
      onCancel={onClose}
      onSend={async (body) => {
        const done = await call(api.stocktakes.start, { body });
        say(done.sentence, done.entry);
        await refresh();
        void navigate(`/stocktake/${done.id}`);
      }}
    />
  );
}
