import { api, stocktakeBody } from '@osier/contract';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { stocktakeWords as wording } from './words';

const SCHEMES = [
  { value: 'dewey', label: wording.dewey },
  { value: 'lc', label: wording.lc },
  { value: 'nlm', label: wording.nlm },
  { value: 'own', label: wording.ourOwn },
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
      title={wording.aNewStocktake}
      schema={stocktakeBody}
      initial={{ branch, scheme: 'dewey' }}
      fields={(typed) => [
        { name: 'name', label: wording.name, width: 'wide', placeholder: wording.millraceTextiles },
        {
          name: 'branch',
          label: wording.branch,
          kind: 'code',
          list: lists.branches,
          placeholder: wording.chooseABranch,
        },
        {
          name: 'locations',
          label: wording.locations,
          kind: 'codes',
          placeholder: wording.allLocations,
          list: lists.locations.filter((l) => l.branch === typed.branch),
        },
        {
          name: 'types',
          label: wording.types,
          kind: 'codes',
          placeholder: wording.allTypes,
          list: lists.types,
        },
        { name: 'scheme', label: wording.scheme, kind: 'choice', options: SCHEMES },
        { name: 'from', label: wording.callNumberFrom, isMono: true, placeholder: wording.theBeginning },
        {
          name: 'to',
          label: wording.callNumberTo,
          isMono: true,
          placeholder: wording.theEnd,
          help: wording.includingAllThatBeginWith,
        },
        {
          name: 'seenSince',
          label: wording.countAsFoundIfSeen,
          kind: 'date',
          help: wording.copiesLastSeenOnOr,
        },
      ]}
      // Locations are those of a branch.
      follow={(changed) => ('branch' in changed ? { locations: [] } : {})}
      draft={{ key: 'new stocktake', title: wording.aNewStocktake, path: '/stocktake?start=1' }}
      verb={wording.startTheStocktake}
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
