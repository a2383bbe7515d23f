import { api, type Done, type JobState, type ScanAnswer } from '@osier/contract';
import { call } from '../../api/call';
import { groupedBarcode } from '@osier/core/barcodes';
import type { Settlement, StockFinding, StockFindingKind } from '@osier/core/stocktake';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { DropZone } from '../../parts/DropZone';
import { Mark } from '../../parts/Mark';
import { useKeptState } from '../../parts/kept-state';
import { ScanField } from '../../parts/ScanField';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { ShelfStrip } from './ShelfStrip';
import { PaceChart } from './PaceChart';
import { Progress } from './Progress';
import { SettleSheet } from './SettleSheet';
import { stocktakeWords as wording } from './words';

const KINDS: readonly (readonly [StockFindingKind, string, 'stop' | 'caution' | 'information'])[] = [
  ['should-not-be-here', wording.shouldNotBeHere2, 'stop'],
  ['unknown', wording.unknown, 'stop'],
  ['out-of-order', wording.outOfOrder2, 'caution'],
  ['not-found', wording.notFound2, 'caution'],
];
const SETTLEMENTS: readonly Settlement[] = ['mark-missing', 'mark-found', 'correct-location'];
const ACTS: Record<Settlement, string> = {
  'mark-missing': wording.markMissing,
  'mark-found': wording.markFound,
  'correct-location': wording.setLocationToHere,
};
const SHOWN_AT_ONCE = 60;

/** How findings are to be settled, by copy, as they are kept in the page. */
const settlementsIn = (kept: unknown): readonly (readonly [number, Settlement])[] =>
  !Array.isArray(kept)
    ? []
    : kept.flatMap((pair: unknown) => {
        const parts: readonly unknown[] = Array.isArray(pair) ? pair : [];
        const [copy, named] = parts;
        const settlement = SETTLEMENTS.find((s) => s === named);
        return typeof copy === 'number' && settlement ? [[copy, settlement] as const] : [];
      });

/** Scans that go in one request; more are loaded as a file, by a job. */
const AT_ONCE = 5000;

/** A stocktake: its progress, the shelf as it was scanned, and what books and shelf do not agree on. */
export function StocktakePiece({ id }: { id: number }) {
  const { data: s, error } = useApi(api.stocktakes.read, { params: { id } });
  const [kept, keep] = useKeptState(`settling ${id}`, settlementsIn);
  const ticked = new Map(kept);
  const change = (make: (next: Map<number, Settlement>) => void) => {
    const next = new Map(kept);
    make(next);
    keep([...next]);
  };
  const [settling, setSettling] = useState(false);
  const [said, setSaid] = useState('');
  const [maySettle, mayManage, mayScan] = [
    useMay('edit copies'),
    useMay('manage stocktakes'),
    useMay('scan'),
  ];
  const { say, complain } = useShell();
  if (error) return <p role="alert">{error.message}</p>;
  if (!s) return null;
  const open = s.stocktake.state === 'open';
  const params = { id };
  const act = async (ask: () => Promise<Done | ScanAnswer | JobState>) => {
    try {
      const done = await ask();
      if ('sentence' in done) say(done.sentence, done.entry);
      // The next scan does not wait until everything on screen is read again.
      void refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const load = async (files: File[]) => {
    for (const f of files) {
      const codes = (await f.text())
        .split(/\r?\n/)
        .map((l) => l.trim())
        .filter(Boolean);
      const odd = codes.find((c) => c.length > 60);
      if (odd) complain(wording.doesNotLookLikeA(f.name, odd.slice(0, 30)));
      else if (codes.length > AT_ONCE)
        await act(() => call(api.stocktakes.loadFile, { params, query: { name: f.name }, body: f }));
      else await act(() => call(api.stocktakes.load, { params, body: { name: f.name, codes } }));
    }
  };
  const scan = async (codes: string[]) => {
    setSaid(codes.map(groupedBarcode).join(', '));
    await act(() => call(api.stocktakes.scan, { params, body: { codes } }));
  };
  const toggle = (f: StockFinding, settlement: Settlement) =>
    change((next) => {
      if (next.get(f.copy!.copyId) === settlement) next.delete(f.copy!.copyId);
      else next.set(f.copy!.copyId, settlement);
    });
  const { result: r } = s;
  const settleable = r.findings.filter((f) => f.settlements.length && f.copy);
  const items = settleable.flatMap((f) =>
    ticked.has(f.copy!.copyId) && f.settlements.includes(ticked.get(f.copy!.copyId)!)
      ? [{ copy: f.copy!.copyId, act: ticked.get(f.copy!.copyId)! }]
      : [],
  );
  return (
    <div className="stack">
      <div className="piece-head">
        <div>
          <h2>{s.stocktake.name}</h2>
          <p className="faded">
            {wording.started(
              s.placeName,
              s.stocktake.startedOn,
              s.stocktake.closedOn ? wording.closed(s.stocktake.closedOn) : '',
            )}
          </p>
        </div>
        {open ? (
          <span className="row">
            {mayScan ? <Link to={`/stocktake/${id}/walk`}>{wording.walkTheShelf}</Link> : null}
            {mayManage ? (
              <Button onClick={() => void act(() => call(api.stocktakes.close, { params }))}>
                {wording.closeTheStocktake}
              </Button>
            ) : null}
          </span>
        ) : null}
      </div>
      {!s.loansDesk ? (
        <p className="note caution" role="alert">
          <Mark kind="caution" /> {wording.theLoansDeskDoesNot}
        </p>
      ) : null}
      <div className="tallies">
        <span>
          <b>{r.found}</b> {wording.ofFound2(r.expected)}
        </span>
        <span>
          <b>{r.accountedFor}</b> {wording.onLoanOrAccountedFor}
        </span>
        <span>
          <b>{r.expected - r.found - r.accountedFor}</b> {wording.notFound}
        </span>
        <span>
          <b>{r.scans}</b> {wording.scans(r.scannedTwice ? wording.twice(r.scannedTwice) : '')}
        </span>
      </div>
      <Progress part={r.found + r.accountedFor} whole={r.expected} name={s.stocktake.name} />
      {open && mayScan ? (
        <div className="load-row">
          <ScanField label={wording.scan} name={s.stocktake.name} said={said} onScan={scan} />
          <DropZone
            label={wording.orDropAScannersFile}
            accept=".txt,.csv,.dat"
            onFiles={(f) => void load(f)}
          />
        </div>
      ) : null}
      <ShelfStrip spines={r.spines} />
      <PaceChart id={id} />
      {r.jumps.map((j) => (
        <p key={j.from} className="note caution">
          <Mark kind="caution" /> {wording.copiesInARowWere(j.count, j.from, j.to)}
        </p>
      ))}
      {KINDS.map(([kind, name, mark]) => (
        <FindingGroup
          key={kind}
          name={name}
          mark={mark}
          findings={r.findings.filter((f) => f.kind === kind)}
          ticked={ticked}
          toggle={open && maySettle ? toggle : null}
          tickAll={(fs) =>
            change((next) => {
              const all = fs.every((f) => next.get(f.copy!.copyId) === f.settlements[0]);
              for (const f of fs)
                if (all) next.delete(f.copy!.copyId);
                else next.set(f.copy!.copyId, f.settlements[0]!);
            })
          }
        />
      ))}
      {r.scans === 0 ? <p className="faded">{wording.nothingScannedYetEverythingIn}</p> : null}
      {open && maySettle ? (
        <div className="settle-bar">
          <Button type="primary" data-key="s" disabled={items.length === 0} onClick={() => setSettling(true)}>
            {wording.settle(items.length, items.length === 1 ? 'finding' : 'findings')}
          </Button>
        </div>
      ) : null}
      {settling ? (
        <SettleSheet
          stocktake={s}
          items={items}
          onClose={() => setSettling(false)}
          onDone={() => keep(null)}
        />
      ) : null}
    </div>
  );
}

function FindingGroup({
  name,
  mark,
  findings,
  ticked,
  toggle,
  tickAll,
}: {
  name: string;
  mark: 'stop' | 'caution' | 'information';
  findings: readonly StockFinding[];
  ticked: ReadonlyMap<number, Settlement>;
  toggle: ((f: StockFinding, s: Settlement) => void) | null;
  tickAll: (fs: readonly StockFinding[]) => void;
}) {
  const [all, setAll] = useState(false);
  if (findings.length === 0) return null;
  const can = findings.filter((f) => f.settlements.length === 1 && f.copy);
  const shown = all ? findings : findings.slice(0, SHOWN_AT_ONCE);
  return (
    <section className="verdict-group" aria-label={name}>
      <h3>
        <Mark kind={mark} name={name} /> {name} <span className="faded">{findings.length}</span>
        {toggle && can.length > 1 ? (
          <Button size="small" className="fix" onClick={() => tickAll(can)}>
            {wording.tickAll(can.length)}
          </Button>
        ) : null}
      </h3>
      {shown.map((f) => (
        <div key={f.code + f.kind} className="verdict-row">
          <Mark kind={mark} />
          <Barcode code={f.code} />
          <span className="verdict-title">
            {f.copy ? (
              <Link to={`/catalogue/${f.copy.recordId}?copy=${f.copy.copyId}`}>{f.copy.title}</Link>
            ) : (
              <i>{wording.notKnown}</i>
            )}
            <small className="faded">{f.copy?.callNumber}</small>
            <small>
              {f.message}
              {f.near?.length ? <> {f.near.map(groupedBarcode).join(', ')}</> : null}
            </small>
          </span>
          <span className="row">
            {toggle
              ? f.settlements.map((x) => (
                  <Checkbox key={x} checked={ticked.get(f.copy!.copyId) === x} onChange={() => toggle(f, x)}>
                    {ACTS[x]}
                  </Checkbox>
                ))
              : null}
          </span>
        </div>
      ))}
      {findings.length > shown.length ? (
        <Button size="small" className="fix" onClick={() => setAll(true)}>
          {wording.showTheOther(findings.length - shown.length)}
        </Button>
      ) : null}
    </section>
  );
}
