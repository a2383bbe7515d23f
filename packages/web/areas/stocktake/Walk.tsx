import { api, type ScanAnswer } from '@osier/contract';
import { call } from '../../api/call';
import { groupedBarcode } from '@osier/core/barcodes';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { problemText } from '../../api/request';
import { Mark } from '../../parts/Mark';
import { ScanField } from '../../parts/ScanField';
import { chime } from './sound';
import { Progress } from './Progress';
import { scanSource } from './scan-source';
import { useStocktakes } from './use-stocktakes';
import './stocktake.css';
import { stocktakeWords as wording } from './words';

type Verdict = ScanAnswer['verdicts'][number];
const SAYS: Record<Verdict['outcome'], string> = {
  'in place': wording.inPlace2,
  'out-of-order': wording.outOfOrder2,
  'should-not-be-here': wording.shouldNotBeHere2,
  'scanned before': wording.scannedBefore,
  unknown: wording.unknownBarcode,
};
const MARKS: Record<Verdict['outcome'], 'clear' | 'caution' | 'stop' | 'information'> = {
  'in place': 'clear',
  'out-of-order': 'caution',
  'should-not-be-here': 'stop',
  'scanned before': 'information',
  unknown: 'stop',
};
const isGood = ({ outcome }: Verdict) => outcome === 'in place' || outcome === 'scanned before';

/** Scans that the server has not answered yet, with the number of the first within the run. */
interface Unsent {
  readonly number: number;
  readonly codes: readonly string[];
}

/** For the walk along the shelf, phone in hand: one large field, one large answer, a sound for good and one for bad. */
export default function Walk() {
  const id = Number(useParams().id);
  const { data: rows } = useStocktakes();
  const stocktake = rows?.find((r) => r.id === id);
  const [answer, setAnswer] = useState<ScanAnswer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const source = useRef(scanSource());
  const unsent = useRef<Unsent>({ number: 0, codes: [] });
  const sending = useRef(false);
  /** Sends what is waiting, one request at a time; what fails stays and goes with the next scan. */
  const send = async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (unsent.current.codes.length > 0) {
        const { number, codes } = unsent.current;
        const from = { ...source.current, number };
        const said = await call(api.stocktakes.scan, { params: { id }, body: { codes, from } });
        unsent.current = {
          number: number + codes.length,
          codes: unsent.current.codes.slice(codes.length),
        };
        setAnswer(said);
        setProblem(null);
        chime(said.verdicts.every(isGood));
      }
    } catch (e) {
      setProblem(
        `${problemText(e)} ${unsent.current.codes.length} scans are kept here and go with the next one.`,
      );
      chime(false);
    } finally {
      sending.current = false;
    }
  };
  const scan = (raw: readonly string[]) => {
    unsent.current = { ...unsent.current, codes: [...unsent.current.codes, ...raw] };
    void send();
  };
  if (!stocktake) return null;
  const last = answer?.verdicts.at(-1);
  const { found, expected } = answer ?? stocktake;
  return (
    <div className="walk">
      <div className="row spread">
        <h1>{stocktake.stocktake.name}</h1>
        <Link to={`/stocktake/${id}`}>{wording.findings2}</Link>
      </div>
      <ScanField large label={stocktake.placeName} name={stocktake.stocktake.name} onScan={scan} />
      {problem ? (
        <p className="note stop" role="alert">
          {problem}
        </p>
      ) : null}
      <div className={`walk-answer ${last?.outcome ?? ''}`} role="status" aria-live="assertive">
        {last ? (
          <>
            <p className="walk-state">
              <Mark kind={MARKS[last.outcome]} name={last.outcome} /> {SAYS[last.outcome]}
            </p>
            <p className="walk-number mono">{last.callNumber || groupedBarcode(last.code)}</p>
            <p>{last.title}</p>
            {last.message ? <p>{last.message}</p> : null}
          </>
        ) : (
          <p className="faded">{wording.scanTheFirstCopyOf}</p>
        )}
      </div>
      {answer?.next ? (
        <p className="faded">
          {wording.next} <span className="mono">{answer.next.callNumber}</span> {answer.next.title}
        </p>
      ) : null}
      <p>
        <b>{found}</b> {wording.ofFound2(expected)}
      </p>
      <Progress part={found} whole={expected} name={stocktake.stocktake.name} />
    </div>
  );
}
