import { useState } from 'react';
import { AreaHead } from '../../parts/AreaHead';
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
  const [page, setPage] = useState<(typeof PAGES)[number][0]>('lists');
  return (
    <>
      <AreaHead
        name="Set-up"
        state="What this library has decided. Changes are in the daybook and can be undone."
      >
        <div className="seg" role="group" aria-label="Page">
          {PAGES.map(([key, name]) => (
            <button key={key} aria-pressed={page === key} onClick={() => setPage(key)}>
              {name}
            </button>
          ))}
        </div>
      </AreaHead>
      <div className="setup">
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
