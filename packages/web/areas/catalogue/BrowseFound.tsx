import { api, type BrowseList, type BrowseRow } from '@osier/contract';
import { Button } from 'antd';
import { Link, useNavigate } from 'react-router';
import { useApi } from '../../api/queries';
import { foundCount } from './search-words';
import { catalogueWords as wording } from './words';

/** What is under an entry of a list: its records, the form that stands for it, its authority record. */
export function BrowseFound({ row, list, onBack }: { row: BrowseRow; list: BrowseList; onBack: () => void }) {
  const navigate = useNavigate();
  const { to } = row;
  const q = to.as === 'search' ? to.q : to.as === 'heading' ? `heading ${to.id}` : '';
  const { data, error } = useApi(api.records.search, { query: { q } });
  const asList = `/catalogue?${new URLSearchParams({ q, branch: 'all' }).toString()}`;
  return (
    <div className="browse-found">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <h2>
        <bdi>{row.text}</bdi>
      </h2>
      <p className="faded">
        {row.see === null ? (
          row.more || wording.browseLists[list]
        ) : (
          <>
            {wording.see} <b>{row.see}</b>
          </>
        )}
      </p>
      <div className="acts">
        <Button data-key="l" disabled={!data?.total} onClick={() => void navigate(asList)}>
          {wording.showAsAList} <kbd>l</kbd>
        </Button>
        {to.as === 'heading' ? (
          <Button data-key="h" onClick={() => void navigate(`/headings/${to.id}`)}>
            {wording.openTheHeading} <kbd>h</kbd>
          </Button>
        ) : null}
      </div>
      {error ? <p role="alert">{error.message}</p> : null}
      {data ? (
        <>
          <h3>{foundCount(data)}</h3>
          <ol>
            {data.rows.map((r) => (
              <li key={r.id}>
                <Link to={`/catalogue/${r.id}`}>
                  <bdi>{r.title}</bdi>
                </Link>{' '}
                <span className="faded">{[r.author, r.year, r.callNumber].filter(Boolean).join(' · ')}</span>
              </li>
            ))}
          </ol>
          {data.next ? <p className="faded">{wording.theFirstOfThem(data.rows.length)}</p> : null}
        </>
      ) : null}
    </div>
  );
}
