import { api, RECORD_ORDERS, type RecordRow, type SearchBody } from '@osier/contract';
import { counted } from '@osier/core/changes';
import { isQueryText } from '@osier/core/find';
import { recogniseInput } from '@osier/core/query';
import { COPY_STATUSES } from '@osier/core/holdings';
import { Button } from 'antd';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useAddress } from '../../parts/use-address';
import { useSetUp } from '../setup/use-set-up';
import { useApi } from '../../api/queries';
import { useFacetCounts, useFoundRecords } from './use-found-records';
import { AreaHead } from '../../parts/AreaHead';
import { BatchSheet } from '../../parts/BatchSheet';
import { cleanRecordsBatch } from '../../parts/clean-batch';
import { PutOnPile } from '../../parts/PutOnPile';
import { ListRow, rowHeightOf } from '../../parts/ListRow';
import { useListView } from '../../parts/list-view';
import { ListViewMenu } from '../../parts/ListViewMenu';
import { RecipeSelect } from '../../parts/RecipeSelect';
import { SelectionBar } from '../../parts/SelectionBar';
import { useStable } from '../../parts/use-stable';
import { useTicks } from '../../parts/ticks';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMyBranch } from '../../shell/my-branch';
import { useMay } from '../../shell/person';
import { AddRecord } from './AddRecord';
import { BriefRecord } from './BriefRecord';
import { CatalogueOverview } from './CatalogueOverview';
import { FoundTools } from './FoundTools';
import { CataloguePages } from './CataloguePages';
import { COLUMNS, FIRST_VIEW, ORDERS } from './record-columns';
import { UnknownIsbn } from './UnknownIsbn';
import { NothingFound } from './NothingFound';
import { NewRecord } from './NewRecord';
import { QueryLine } from './QueryLine';
import { RecordPiece } from './RecordPiece';
import { FacetLines } from './FacetLines';
import { foundCount, TOOK_FOR } from './search-words';
import { catalogueWords as wording } from './words';

/** In the address, for the branch: no branch, one's own neither. */
const EVERYWHERE = 'all';

/** Search, read and edit records. */
export default function Catalogue() {
  const id = useParams().id;
  const [query, changeAddress] = useAddress();
  const navigate = useNavigate();
  const q = query.get('q') ?? '';
  const [language, material, finding] = ['language', 'material', 'finding'].map(
    (k) => query.get(k) ?? undefined,
  );
  const setUp = useSetUp();
  const lists = setUp?.lists.value;
  const { data: recipes = [] } = useApi(api.recipes.list);
  const mayEdit = useMay('edit records');
  const mayPile = useMay('keep piles');
  const [recipe, setRecipe] = useState<{ readonly id: string; readonly of: 'found' | 'chosen' } | null>(null);
  const [piling, setPiling] = useState<'found' | 'chosen' | null>(null);
  const status = COPY_STATUSES.find((s) => s === query.get('status'));
  const type = query.get('type') ?? undefined;
  const suppressed = query.get('suppressed') === 'yes' ? ('yes' as const) : undefined;
  const [pile, delivery] = ['pile', 'delivery'].map((k) => Number(query.get(k)) || undefined);
  const named = recogniseInput(q, setUp?.house.value.barcodes);
  const [mine] = useMyBranch();
  // A look around and a search by words begin at one's own branch; what names one thing, or comes with a count, looks everywhere.
  const isQuery = isQueryText(q);
  const begins = !q || (named.as === 'words' && !isQuery);
  const ownBranch = begins && !finding && !pile && !delivery && !status && !type && !suppressed ? mine : '';
  const branch = (query.get('branch') ?? ownBranch).replace(EVERYWHERE, '') || undefined;
  const search = { q, language, branch, material, finding, pile, delivery, status, type, suppressed };
  const isbn = named.as === 'isbn' ? named.code : null;
  const narrowed = Object.values(search).some(Boolean);
  const order = RECORD_ORDERS.find((o) => o === query.get('sort'));
  const [view, setView] = useListView('records', FIRST_VIEW);
  const ticks = useTicks('records');
  const list = useFoundRecords(search, order);
  const chosen: SearchBody = { q: '', records: [...ticks.ids] };
  const first = list.data?.pages[0];
  // What can be ranked is sorted so where no order is chosen.
  const isRanked = q !== '' && (order !== undefined || first?.sortedBy === 'relevance');
  const { data: facetCounts } = useFacetCounts({ q, pile, delivery, status, type, suppressed });
  const rows = list.data?.pages.flatMap((p) => p.rows) ?? [];
  const choose = (key: string) => (value: string | undefined) =>
    changeAddress({ [key]: key === 'branch' && ownBranch ? (value ?? EVERYWHERE) : value });
  const cleanFound = useStable((recipe: string) => setRecipe({ id: recipe, of: 'found' }));
  const chooseFacet = useStable((name: string, value: string | undefined) => choose(name)(value));
  const open = (r: RecordRow) => {
    const rest = new URLSearchParams(query);
    rest.delete('copy');
    void navigate(`/catalogue/${r.id}${rest.size ? `?${rest.toString()}` : ''}`);
  };
  const branchName = (code: string) => lists?.branches.find((b) => b.code === code)?.name ?? code;
  const atBranch = branch && branch === ownBranch ? wording.at(branchName(branch)) : '';
  const state = !first
    ? list.error
      ? wording.cannotBeSearched
      : '…'
    : q || first.within
      ? `${foundCount(first)}${q ? wording.for(q) : ''}${atBranch}${!q || first.tookFor === 'words' ? '' : wording.searchedAs(TOOK_FOR[first.tookFor] ?? first.tookFor)}${first.within ? wording.of(first.within) : ''}.`
      : wording.searchWithTheLineAt(foundCount(first) + atBranch);
  return (
    <>
      <AreaHead name={wording.catalogue} state={state}>
        <CataloguePages />
        {mayEdit ? <AddRecord /> : null}
        {mayPile && first && first.total > 0 ? (
          <Button data-key="p" onClick={() => setPiling('found')}>
            {wording.addToPile}
          </Button>
        ) : null}
        {mayEdit && first && first.total > 0 && recipes.length > 0 ? (
          <RecipeSelect
            actKey="c"
            label={wording.runARecipeOverThe}
            placeholder={narrowed ? wording.cleanThoseFound : wording.cleanTheCatalogue}
            recipes={recipes}
            onChoose={cleanFound}
          />
        ) : null}
      </AreaHead>
      <WorkSplit
        open={id !== undefined}
        list={
          <>
            <div className="facets">
              {q ? <QueryLine key={q} q={q} onSearch={(next) => changeAddress({ q: next })} /> : null}
              <FacetLines
                counts={facetCounts}
                {...{ branch, material, language, finding, mine, setUp }}
                onChoose={chooseFacet}
              />
              <ListViewMenu
                view={view}
                onView={setView}
                columns={COLUMNS}
                order={order ?? first?.sortedBy ?? 'title'}
                orders={isRanked ? [['relevance', wording.relevance], ...ORDERS] : ORDERS}
                onOrder={(key) =>
                  choose('sort')(key === 'relevance' || (key === 'title' && !isRanked) ? undefined : key)
                }
              />
              <FoundTools
                search={search}
                first={first}
                facetCounts={facetCounts}
                isNarrowed={narrowed}
                onSearch={(next) => changeAddress({ q: next })}
              />
            </div>
            <WorkList
              items={rows}
              label={wording.records}
              idOf={(r) => r.id}
              selected={Number(id) || null}
              onOpen={open}
              onEnd={() => list.hasNextPage && !list.isFetchingNextPage && void list.fetchNextPage()}
              answer={list}
              empty={
                typeof first?.running === 'number' ? (
                  wording.stillLooking
                ) : atBranch ? (
                  <>
                    {wording.nothingAtYourBranch(branchName(mine))}{' '}
                    <Button size="small" onClick={() => choose('branch')(undefined)}>
                      {wording.searchAllBranches}
                    </Button>
                  </>
                ) : (language ?? branch ?? material ?? finding) ? (
                  wording.noRecordsMatchAllChosen
                ) : isbn ? (
                  <UnknownIsbn isbn={isbn} />
                ) : q ? (
                  <NothingFound
                    q={q}
                    meant={first?.meant ?? null}
                    onSearch={(next) => changeAddress({ q: next })}
                  />
                ) : first?.within ? (
                  wording.nothingOfIsInThe(first.within)
                ) : (
                  wording.theCatalogueIsEmptyAccept
                )
              }
              rowHeight={rowHeightOf(view)}
              ticked={ticks.ids}
              onTick={(r) => ticks.flip(r.id)}
              onTickAll={(all) => ticks.add(all.map((r) => r.id))}
              row={(r) => <ListRow row={r} title={<bdi>{r.title}</bdi>} columns={COLUMNS} view={view} />}
            />
            <SelectionBar ticks={ticks}>
              {mayPile ? (
                <Button size="small" onClick={() => setPiling('chosen')}>
                  {wording.addToPile}
                </Button>
              ) : null}
              {mayEdit && recipes.length > 0 ? (
                <RecipeSelect
                  isSmall
                  label={wording.runARecipeOverTheRecords}
                  placeholder={wording.cleanThese}
                  recipes={recipes}
                  onChoose={(id) => setRecipe({ id, of: 'chosen' })}
                />
              ) : null}
            </SelectionBar>
          </>
        }
        piece={
          id === 'new' ? (
            <NewRecord
              beginning={{
                starter: query.get('starter'),
                like: Number(query.get('like')) || null,
                isbn: query.get('isbn'),
              }}
              onBack={() => void navigate('/catalogue')}
            />
          ) : id === 'brief' ? (
            <BriefRecord
              isbn={query.get('isbn') ?? ''}
              barcode={query.get('barcode') ?? ''}
              onBack={() => void navigate('/catalogue')}
            />
          ) : id ? (
            <RecordPiece
              key={id}
              id={Number(id)}
              copy={query.get('copy') ? Number(query.get('copy')) : null}
              onBack={() => void navigate(`/catalogue?${query.toString()}`)}
            />
          ) : (
            <CatalogueOverview />
          )
        }
      />
      {piling && first ? (
        <PutOnPile
          search={piling === 'chosen' ? chosen : search}
          count={piling === 'chosen' ? ticks.ids.size : first.total}
          onDone={piling === 'chosen' ? ticks.clear : undefined}
          onClose={() => setPiling(null)}
        />
      ) : null}
      {recipe !== null ? (
        <BatchSheet
          title={wording.clean(
            recipe.of === 'chosen'
              ? counted(ticks.ids.size, 'record')
              : q
                ? wording.whatFinds(q)
                : (first?.within ?? wording.theCatalogue),
          )}
          batch={cleanRecordsBatch({ recipe: recipe.id, ...(recipe.of === 'chosen' ? chosen : search) })}
          onClose={() => setRecipe(null)}
        />
      ) : null}
    </>
  );
}
