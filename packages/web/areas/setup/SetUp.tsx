import { useSearchParams } from 'react-router';
import { AreaHead } from '../../parts/AreaHead';
import { PageButtons } from '../../parts/PageButtons';
import { CodeListsForm } from './CodeListsForm';
import { HouseForm } from './HouseForm';
import { PeopleForm } from './People';
import { Recipes } from './Recipes';
import { Suppliers } from './Suppliers';
import { useSetUp } from './use-set-up';
import './setup.css';

const PAGES = [
  ['lists', 'Code lists'],
  ['house', 'House rules'],
  ['suppliers', 'Suppliers and labels'],
  ['recipes', 'Recipes'],
  ['people', 'People'],
] as const;

/** Lists, rules, suppliers, recipes, people. */
export default function SetUp() {
  const data = useSetUp();
  const [query, setQuery] = useSearchParams();
  const page = PAGES.find(([key]) => key === query.get('show'))?.[0] ?? 'lists';
  return (
    <>
      <AreaHead
        name="Set-up"
        state="What this library has decided. Changes are in the daybook and can be undone."
      >
        <PageButtons label="Page" pages={PAGES} chosen={page} onChoose={(key) => setQuery({ show: key })} />
      </AreaHead>
      <div className={page === 'lists' || page === 'house' ? 'setup one-form' : 'setup'}>
        {!data ? null : page === 'lists' ? (
          <CodeListsForm key={data.lists.version} data={data} />
        ) : page === 'house' ? (
          <HouseForm key={data.house.version} data={data} />
        ) : page === 'suppliers' ? (
          <Suppliers />
        ) : page === 'recipes' ? (
          <Recipes />
        ) : (
          <PeopleForm data={data} />
        )}
      </div>
    </>
  );
}
