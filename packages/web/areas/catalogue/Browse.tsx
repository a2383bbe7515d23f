import { api, BROWSE_LISTS, type BrowseList, type BrowsePage, type BrowseRow } from '@osier/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { AreaHead } from '../../parts/AreaHead';
import { Overview, OverviewSection } from '../../parts/Overview';
import { useAddress } from '../../parts/use-address';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { BrowseFound } from './BrowseFound';
import { CataloguePages } from './CataloguePages';
import { RecordPiece } from './RecordPiece';
import { ShelfAround } from './ShelfAround';
import { catalogueWords as wording } from './words';
import './browse.css';

type Row = BrowseRow & { readonly at: number };

/** Lists of the catalogue in their order: begun anywhere, read on and back, each entry opened with its records. */
export default function Browse() {
  const [query, changeAddress] = useAddress();
  const list = BROWSE_LISTS.find((l) => l === query.get('list')) ?? 'title';
  const [from, ahead] = [query.get('from') ?? '', query.get('ahead') ?? undefined];
  const [typed, setTyped] = useState(from);
  const [chosen, setChosen] = useState<string | null>(null);
  const pages = useInfiniteQuery({
    queryKey: ['/browse', list, from, ahead],
    initialPageParam: '',
    getNextPageParam: (last: BrowsePage) => last.next,
    queryFn: ({ pageParam }) =>
      call(api.browse.page, {
        params: { list },
        query: pageParam ? { behind: pageParam } : ahead ? { ahead } : { from },
      }),
  });
  const first = pages.data?.pages[0];
  const rows = (pages.data?.pages.flatMap((p) => p.rows) ?? []).map((r, at): Row => ({ ...r, at }));
  // Read back, the page ends where the one before it began.
  const begins = ahead ? first?.rows.length : undefined;
  const opened =
    rows.find((r) => keyOf(r) === chosen) ?? (chosen === null && begins ? rows[begins - 1] : undefined);
  // The shelf is shown around what is opened, else around where the list begins.
  const shelved = list === 'callnumber' ? (opened ?? rows[0]) : undefined;
  const start = (parts: { from?: string | undefined; ahead?: string | undefined; list?: BrowseList }) => {
    setChosen(null);
    changeAddress({ from: undefined, ahead: undefined, ...parts });
  };
  const back = () => setChosen(null);
  return (
    <>
      <AreaHead name={wording.catalogue} state={wording.browseStates[list]}>
        <CataloguePages />
      </AreaHead>
      <WorkSplit
        open={chosen !== null && opened !== undefined}
        list={
          <>
            <div className="facets browse-head">
              <Select<BrowseList>
                size="small"
                aria-label={wording.listToBrowse}
                style={{ width: 128 }}
                value={list}
                onChange={(l) => start({ list: l })}
                options={BROWSE_LISTS.map((l) => ({ value: l, label: wording.browseLists[l] }))}
              />
              <form
                onSubmit={(e) => {
                  e.preventDefault();
                  start({ from: typed.trim() || undefined });
                }}
              >
                <Input
                  autoFocus
                  value={typed}
                  onChange={(e) => setTyped(e.target.value)}
                  size="small"
                  maxLength={200}
                  autoComplete="off"
                  spellCheck={false}
                  aria-label={wording.startAt}
                  placeholder={wording.startAt}
                />
              </form>
              <Button
                size="small"
                data-key="b"
                disabled={!first?.before}
                onClick={() => start({ ahead: first?.before ?? undefined })}
              >
                {wording.earlier} <kbd>b</kbd>
              </Button>
            </div>
            {shelved ? (
              <ShelfAround
                at={shelved}
                onOpen={(row) => {
                  if (!rows.some((r) => keyOf(r) === keyOf(row))) start({ from: row.text });
                  setChosen(keyOf(row));
                }}
              />
            ) : null}
            <WorkList
              key={`${list} ${from}`}
              items={rows}
              label={wording.browseLists[list]}
              idOf={(r) => r.at}
              selected={opened?.at ?? null}
              rowHeight={46}
              answer={pages}
              empty={wording.nothingFromHereOn}
              onEnd={() => pages.hasNextPage && !pages.isFetchingNextPage && void pages.fetchNextPage()}
              onOpen={(r) => setChosen(keyOf(r))}
              row={(r) => <Entry row={r} list={list} />}
            />
          </>
        }
        piece={
          opened?.to.as === 'record' ? (
            <RecordPiece key={opened.to.id} id={opened.to.id} copy={opened.to.copy} onBack={back} />
          ) : opened ? (
            <BrowseFound key={keyOf(opened)} row={opened} list={list} onBack={back} />
          ) : (
            <Overview>
              <OverviewSection title={wording.browse}>
                <p>{wording.howToBrowse}</p>
                <p className="faded">{wording.howListsAreFiled}</p>
              </OverviewSection>
            </Overview>
          )
        }
      />
    </>
  );
}

/** A place may have several entries: a see-from that leads to two headings. */
const keyOf = ({ place, to }: BrowseRow): string => `${place} ${to.as === 'heading' ? to.id : ''}`;

/** One entry: what it is, what tells it from others, how much is under it; where a see-from leads. */
function Entry({ row, list }: { row: Row; list: BrowseList }) {
  const isMono = list === 'callnumber' || list === 'barcode';
  const isOfCopies = list === 'callnumber' || list === 'barcode';
  return (
    <>
      <div className="one">
        <b className={isMono ? 'mono' : undefined}>
          <bdi>{row.text}</bdi>
        </b>
        <span className="faded">
          {row.see === null && list !== 'barcode'
            ? (isOfCopies ? wording.copiesUnder : wording.recordsUnder)(row.n)
            : ''}
        </span>
      </div>
      <div className="two">
        <span className="main">
          {row.see === null ? (
            <bdi>{row.more}</bdi>
          ) : (
            <>
              {wording.see} <bdi>{row.see}</bdi>
            </>
          )}
        </span>
      </div>
    </>
  );
}
