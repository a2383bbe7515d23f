import { StateShape } from '../../parts/Mark';
import { api, type IncomingDetail } from '@osier/contract';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { Mark } from '../../parts/Mark';
import { deliveriesWords as wording } from './words';

/** What the catalogue holds that may be the same, why and why not, and pairing by hand with any other record. */
export function Matches({
  incoming: r,
  onPair,
}: {
  incoming: IncomingDetail;
  /** Absent for those who may not. */
  onPair?: (record: number) => void;
}) {
  const [searching, setSearching] = useState(false);
  const paired = r.target !== null && !r.matches.some((m) => m.record === r.target) ? r.target : null;
  return (
    <section className="matches" aria-label={wording.matching}>
      {r.matches.map((m) => {
        const held = r.held.find((h) => h.id === m.record);
        const chosen = r.target === m.record;
        return (
          <div key={m.record} className={`match${chosen ? ' chosen' : ''}`}>
            <p>
              <Mark
                kind={m.sure ? 'information' : 'caution'}
                name={m.sure ? wording.theSame : wording.doubtful}
              />{' '}
              <Link to={`/catalogue/${m.record}`}>{wording.record5(m.record)}</Link>{' '}
              {m.points.map((p) => p.said).join(', ')}
              {held ? (
                <span className="faded">
                  {' '}
                  {wording.weight(
                    held.copies === 1 ? wording.n1Copy2 : wording.copies3(held.copies),
                    m.strength,
                  )}
                </span>
              ) : null}
              {onPair && r.matches.length + (paired ? 1 : 0) > 1 && !chosen ? (
                <Button size="small" className="fix" onClick={() => onPair(m.record)}>
                  {wording.matchWithThis}
                </Button>
              ) : null}
            </p>
            {m.doubts.map((d) => (
              <p key={d} className="doubt">
                {d}
              </p>
            ))}
            {held ? (
              <ul className="likeness" aria-label={`${held.likeness.score} % alike`}>
                <li>
                  <b>{wording.alike(held.likeness.score)}</b>
                </li>
                {held.likeness.parts.map((p) => (
                  <li key={p.name} className={p.like >= 0.9 ? 'like' : p.like >= 0.5 ? 'half' : 'unlike'}>
                    <StateShape kind={p.like >= 0.9 ? 'clear' : p.like >= 0.5 ? 'caution' : 'stop'} />{' '}
                    {p.said}
                  </li>
                ))}
              </ul>
            ) : null}
          </div>
        );
      })}
      {paired ? (
        <p className="match chosen">
          <Mark kind="information" /> {wording.matchedByHandWith}{' '}
          <Link to={`/catalogue/${paired}`}>{wording.record6(paired)}</Link>.
        </p>
      ) : null}
      {onPair ? (
        searching ? (
          <PairByHand
            first={r.title}
            onPair={(record) => {
              setSearching(false);
              onPair(record);
            }}
          />
        ) : (
          <Button size="small" className="fix" onClick={() => setSearching(true)}>
            {r.matches.length ? wording.matchWithAnotherRecord : wording.findItInTheCatalogue}
          </Button>
        )
      ) : null}
    </section>
  );
}

function PairByHand({ first, onPair }: { first: string; onPair: (record: number) => void }) {
  const [q, setQ] = useState(first.split(/[:/]/)[0]!.trim());
  const { data } = useApi(api.records.search, q.trim().length > 1 ? { query: { q } } : null);
  return (
    <div className="pair-by-hand">
      <Input
        aria-label={wording.searchTheCatalogueForIts}
        value={q}
        autoFocus
        onChange={(e) => setQ(e.target.value)}
        placeholder={wording.wordsIsbnOrNumberOf}
      />
      <ul>
        {data?.rows.slice(0, 6).map((row) => (
          <li key={row.id}>
            <span>
              <b>{row.title}</b>{' '}
              <span className="faded">{[row.author, row.year, row.isbn].filter(Boolean).join(' · ')}</span>
            </span>
            <Button size="small" className="fix" onClick={() => onPair(row.id)}>
              {wording.matchWithRecord(row.id)}
            </Button>
          </li>
        ))}
        {data && data.rows.length === 0 ? <li className="faded">{wording.nothingFound}</li> : null}
      </ul>
    </div>
  );
}
