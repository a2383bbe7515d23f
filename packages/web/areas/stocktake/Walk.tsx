import type { StocktakeRow } from '@osier/contract';
import { groupedBarcode } from '@osier/core/barcodes';
import { locationsOf } from '@osier/core/stocktake';
import { CameraOutlined, RollbackOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { CodePicker } from '../../parts/CodePicker';
import { Mark } from '../../parts/Mark';
import { ScanField } from '../../parts/ScanField';
import { useSetUp } from '../setup/use-set-up';
import type { WalkVerdict } from './device-verdict';
import { canOpenOffline, openOffline } from './open-offline';
import { Progress } from './Progress';
import { useStocktakes } from './use-stocktakes';
import { useWalk, type WhyWaiting } from './use-walk';
import './stocktake.css';
import { stocktakeWords as wording } from './words';

const Camera = lazy(() => import('./Camera'));

const SAYS: Record<WalkVerdict['outcome'], string> = {
  'in place': wording.inPlace,
  'out-of-order': wording.outOfOrder,
  'should-not-be-here': wording.shouldNotBeHere,
  'scanned before': wording.scannedBefore,
  unknown: wording.unknownBarcode,
  kept: wording.keptHere,
  undone: wording.scanUndone,
};
const MARKS: Record<WalkVerdict['outcome'], 'clear' | 'caution' | 'stop' | 'information'> = {
  'in place': 'clear',
  'out-of-order': 'caution',
  'should-not-be-here': 'stop',
  'scanned before': 'information',
  unknown: 'stop',
  kept: 'information',
  undone: 'information',
};

/** For the walk along the shelf, phone in hand: one large field, one large answer, a sound and a shake for each outcome; goes on without network. */
export default function Walk() {
  const id = Number(useParams().id);
  const { data: rows } = useStocktakes();
  const stocktake = rows?.find((r) => r.id === id);
  useEffect(() => openOffline(), []);
  return stocktake ? <WalkOf stocktake={stocktake} /> : null;
}

function WalkOf({ stocktake: s }: { stocktake: StocktakeRow }) {
  const walk = useWalk(s.id);
  const { scan, walkIn, location, verdict, next, far, waiting, why, times, onDevice } = walk;
  const [isCamera, setCamera] = useState(false);
  const { found, expected } = far ?? s;
  return (
    <div className="walk">
      <div className="row spread">
        <h1>{s.stocktake.name}</h1>
        <Link to={`/stocktake/${s.id}`}>{wording.findings2}</Link>
      </div>
      <WhereWalked stocktake={s} location={location} onChoose={walkIn} />
      <ScanField large label={s.placeName} name={s.stocktake.name} onScan={scan} />
      {isCamera ? (
        <Suspense fallback={null}>
          <Camera onCode={(code) => void scan([code])} />
        </Suspense>
      ) : null}
      <WaitingNote waiting={waiting} why={why} />
      {walk.notTakenBack ? (
        <p className="note stop" role="alert">
          {wording.notTakenBack(walk.notTakenBack)}
        </p>
      ) : null}
      <VerdictBox verdict={verdict} />
      {next ? (
        <p className="faded">
          {wording.next} <span className="mono">{next.callNumber}</span> {next.title}
        </p>
      ) : null}
      <p>
        <b>{found.toLocaleString('en-GB')}</b> {wording.ofFound2(expected.toLocaleString('en-GB'))}
        {times.length ? ` · ${wording.scannedHere(times.length)} · ${wording.paceNow(paceOf(times))}` : ''}
      </p>
      <Progress part={found} whole={expected} name={s.stocktake.name} />
      <div className="row">
        <Button
          icon={<RollbackOutlined />}
          disabled={times.length === 0}
          loading={walk.isTakingBack}
          onClick={() => void walk.takeBack()}
        >
          {wording.takeBackLast}
        </Button>
        {'mediaDevices' in navigator ? (
          <Button icon={<CameraOutlined />} onClick={() => setCamera(!isCamera)}>
            {isCamera ? wording.stopCamera : wording.useCamera}
          </Button>
        ) : null}
      </div>
      <p className="faded">
        {canOpenOffline()
          ? onDevice
            ? wording.loadedForOffline(onDevice.toLocaleString('en-GB'))
            : ''
          : wording.offlineNeedsHttps}
      </p>
    </div>
  );
}

/** Scans of the last five minutes, a minute; of the walk so far when it is shorter. */
function paceOf(times: readonly number[]): number {
  const now = times.at(-1) ?? 0;
  const recent = times.filter((t) => now - t < 300_000);
  const minutes = Math.max(1, (now - (recent[0] ?? now)) / 60_000);
  return Math.round(recent.length / minutes);
}

function WhereWalked({
  stocktake: { stocktake },
  location,
  onChoose,
}: {
  stocktake: StocktakeRow;
  location: string;
  onChoose: (code: string) => void;
}) {
  const all = useSetUp()?.lists.value.locations ?? [];
  const places = locationsOf(stocktake.stretch, all);
  if (places.length < 2) return null;
  return (
    <label>
      {wording.locationWalked}
      <CodePicker
        list={places}
        value={location}
        onChange={onChoose}
        placeholder={wording.allOfTheStretch}
        optional
        label={wording.locationWalked}
      />
    </label>
  );
}

function WaitingNote({ waiting, why }: { waiting: number; why: WhyWaiting | null }) {
  if (waiting === 0 || why === null) return null;
  const text =
    why.kind === 'offline'
      ? wording.waitingToBeSent(waiting)
      : why.kind === 'signed out'
        ? wording.notSignedIn(waiting)
        : wording.refusedScans(why.why, waiting);
  return (
    <p className={why.kind === 'offline' ? 'note caution' : 'note stop'} role="alert">
      {text}
    </p>
  );
}

function VerdictBox({ verdict: v }: { verdict: WalkVerdict | null }) {
  return (
    <div className={`walk-answer ${v?.outcome ?? ''}`} role="status" aria-live="assertive">
      {v ? (
        <>
          <p className="walk-state">
            <Mark kind={MARKS[v.outcome]} name={v.outcome} /> {SAYS[v.outcome]}
          </p>
          <p className="walk-number mono">{v.callNumber || groupedBarcode(v.code)}</p>
          <p>{v.title}</p>
          {v.message ? <p>{v.message}</p> : null}
          {v.jumped ? (
            <p className="note caution">
              <Mark kind="caution" /> {wording.passedAShelf(v.jumped)}
            </p>
          ) : null}
        </>
      ) : (
        <p className="faded">{wording.scanTheFirstCopyOf}</p>
      )}
    </div>
  );
}
