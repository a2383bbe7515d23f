import { useSearchParams } from 'react-router';
import { AreaHead } from '../../parts/AreaHead';
import { PageButtons } from '../../parts/PageButtons';
import { CodeListsForm } from './CodeListsForm';
import { HouseForm } from './HouseForm';
import { LocalFields } from './LocalFields';
import { NeighbourSheets } from './NeighbourSheets';
import { PeopleForm } from './People';
import { Recipes } from './Recipes';
import { Starters } from './Starters';
import { Suppliers } from './Suppliers';
import { useSetUp } from './use-set-up';
import './setup.css';
import { setUpWords as wording } from './words';

const PAGES = [
  ['lists', wording.codeLists],
  ['house', wording.houseRules],
  ['fields', wording.localFields],
  ['suppliers', wording.suppliersAndLabels],
  ['neighbours', wording.neighbours],
  ['recipes', wording.recipes],
  ['starters', wording.starters],
  ['people', wording.people],
] as const;

/** Lists, rules, suppliers, recipes, people. */
export default function SetUp() {
  const data = useSetUp();
  const [query, setQuery] = useSearchParams();
  const page = PAGES.find(([key]) => key === query.get('show'))?.[0] ?? 'lists';
  return (
    <>
      <AreaHead name={wording.setUp} state={wording.whatThisLibraryHasDecided}>
        <PageButtons
          label={wording.page}
          pages={PAGES}
          chosen={page}
          onChoose={(key) => setQuery({ show: key })}
        />
      </AreaHead>
      <div className={page === 'lists' || page === 'house' ? 'setup one-form' : 'setup'}>
        {!data ? null : page === 'lists' ? (
          <CodeListsForm key={data.lists.version} data={data} />
        ) : page === 'house' ? (
          <HouseForm key={data.house.version} data={data} />
        ) : page === 'fields' ? (
          <LocalFields />
        ) : page === 'suppliers' ? (
          <Suppliers />
        ) : page === 'neighbours' ? (
          <NeighbourSheets />
        ) : page === 'recipes' ? (
          <Recipes />
        ) : page === 'starters' ? (
          <Starters />
        ) : (
          <PeopleForm data={data} />
        )}
      </div>
    </>
  );
}
