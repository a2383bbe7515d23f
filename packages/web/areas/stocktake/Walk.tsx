import type { StocktakeDetail } from '@osier/contract';
import { cleanScan, groupedBarcode } from '@osier/core/barcodes';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { post, problemText } from '../../api/request';
import { Mark } from '../../parts/Mark';
import { ScanField } from '../../parts/ScanField';
import { chime } from './sound';
import { Progress } from './Progress';
import './stocktake.css';

interface Last {
  readonly code: string;
  readonly sent: number;
}
const SAYS: Record<string, string> = {
  'in place': 'In place',
  'out-of-order': 'Out of order',
  'should-not-be-here': 'Should not be here',
  unknown: 'Unknown barcode',
  'not-found': '',
};

/** For the walk along the shelf, phone in hand: one large field, one large answer, a sound for good and one for bad. */
export default function Walk() {
  const id = Number(useParams().id);
  const { data: s } = useApi<StocktakeDetail>(`/stocktakes/${id}`);
  const [last, setLast] = useState<Last | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [unsent, setUnsent] = useState<string[]>([]);
  const chimed = useRef<Last | null>(null);
  const spine = last
    ? s?.result.spines.find((x) => x.code === last.code && x.state !== 'not-found')
    : undefined;
  useEffect(() => {
    if (!last || !spine || chimed.current === last) return;
    chimed.current = last;
    chime(spine.state === 'in place');
  }, [last, spine]);
  const scan = async (raw: string[]) => {
    const codes = [...unsent, ...raw];
    setLast({ code: cleanScan(raw.at(-1)!), sent: Date.now() });
    try {
      await post(`/stocktakes/${id}/scans`, { codes });
      setUnsent([]);
      setProblem(null);
      await refresh();
    } catch (e) {
      setUnsent(codes);
      setProblem(`${problemText(e)} ${codes.length} scans are kept here and go with the next one.`);
      chime(false);
    }
  };
  if (!s) return null;
  const finding = last
    ? s.result.findings.find((f) => f.code === last.code && f.kind !== 'not-found')
    : undefined;
  return (
    <div className="walk">
      <div className="row spread">
        <h1>{s.stocktake.name}</h1>
        <Link to={`/stocktake/${id}`}>Findings</Link>
      </div>
      <ScanField large label={s.placeName} name={s.stocktake.name} onScan={(c) => void scan(c)} />
      {problem ? (
        <p className="note stop" role="alert">
          {problem}
        </p>
      ) : null}
      <div className={`walk-answer ${spine?.state ?? ''}`} role="status" aria-live="assertive">
        {last ? (
          <>
            <p className="walk-state">
              <Mark
                kind={
                  !spine
                    ? 'information'
                    : spine.state === 'in place'
                      ? 'clear'
                      : spine.state === 'out-of-order'
                        ? 'caution'
                        : 'stop'
                }
                name={spine?.state}
              />{' '}
              {spine ? SAYS[spine.state] : '…'}
            </p>
            <p className="walk-number mono">{spine?.callNumber || groupedBarcode(last.code)}</p>
            <p>{spine?.title}</p>
            {finding ? <p>{finding.message}</p> : null}
          </>
        ) : (
          <p className="faded">Scan the first copy of the shelf.</p>
        )}
      </div>
      <p>
        <b>{s.found}</b> of {s.expected} found
      </p>
      <Progress part={s.found} whole={s.expected} name={s.stocktake.name} />
    </div>
  );
}
