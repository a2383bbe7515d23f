import { StateShape } from '../../parts/Mark';
import { api, type IncomingDetail } from '@osier/contract';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useApi } from '../../api/queries';
import { Mark } from '../../parts/Mark';

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
    <section className="matches" aria-label="What the catalogue holds">
      {r.matches.map((m) => {
        const held = r.held.find((h) => h.id === m.record);
        const chosen = r.target === m.record;
        return (
          <div key={m.record} className={`match${chosen ? ' chosen' : ''}`}>
            <p>
              <Mark kind={m.sure ? 'information' : 'caution'} name={m.sure ? 'The same' : 'Doubtful'} />{' '}
              <Link to={`/catalogue/${m.record}`}>Record {m.record}</Link>{' '}
              {m.points.map((p) => p.said).join(', ')}
              {held ? (
                <span className="faded">
                  {' '}
                  · {held.copies === 1 ? '1 copy' : `${held.copies} copies`} · weight {m.strength}
                </span>
              ) : null}
              {onPair && r.matches.length + (paired ? 1 : 0) > 1 && !chosen ? (
                <Button size="small" className="fix" onClick={() => onPair(m.record)}>
                  It is this one
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
                  <b>{held.likeness.score} % alike</b>
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
          <Mark kind="information" /> Paired by hand with{' '}
          <Link to={`/catalogue/${paired}`}>record {paired}</Link>.
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
            {r.matches.length ? 'It is another record' : 'Find it in the catalogue'}
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
        aria-label="Search the catalogue for its record"
        value={q}
        autoFocus
        onChange={(e) => setQ(e.target.value)}
        placeholder="words, ISBN or number of the record"
      />
      <ul>
        {data?.rows.slice(0, 6).map((row) => (
          <li key={row.id}>
            <span>
              <b>{row.title}</b>{' '}
              <span className="faded">{[row.author, row.year, row.isbn].filter(Boolean).join(' · ')}</span>
            </span>
            <Button size="small" className="fix" onClick={() => onPair(row.id)}>
              It is record {row.id}
            </Button>
          </li>
        ))}
        {data && data.rows.length === 0 ? <li className="faded">Nothing found.</li> : null}
      </ul>
    </div>
  );
}
