import { api, type StocktakeDetail, type StripPart } from '@osier/contract';
import type { Spine } from '@osier/core/stocktake';
import { groupedBarcode } from '@osier/core/barcodes';
import { MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Button, Select } from 'antd';
import { useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { useApi } from '../../api/queries';
import { spineHue } from '../../parts/spine-hue';
import '../../parts/spines.css';
import { lengthOf, partsAround, useSpines, wrongOf } from './use-spines';
import { stocktakeWords as wording } from './words';

/** Widths of a spine, from the density of a whole stretch to single spines. */
const WIDTHS = [2, 4, 12, 26];
const WITH_TEXT = WIDTHS.length - 1;

const said = (s: Spine): string =>
  [
    `${s.callNumber || wording.noCallNumber} ${s.title || groupedBarcode(s.code)}: ${wording.states[s.state]}`,
    s.after ? wording.belongsBehind(groupedBarcode(s.after)) : '',
    s.jumped ? wording.copiesJumpedBeforeIt(s.jumped) : '',
  ].join('');

/** The shelves of a stocktake as they were walked: the walk with most to look at first, others to be chosen. */
export function ShelfStrip({ stocktake }: { stocktake: StocktakeDetail }) {
  const { data: parts = [] } = useApi(api.stocktakes.strip, { params: { id: stocktake.id } });
  const [chosen, setChosen] = useState<number | null>(null);
  const runs = [...new Set(parts.map((p) => p.run))];
  const longest = runs.toSorted((a, b) => lengthIn(parts, b) - lengthIn(parts, a))[0];
  const run = chosen !== null && runs.includes(chosen) ? chosen : longest;
  if (run === undefined) return null;
  const nameOf = (id: number) => {
    const of = stocktake.runs.find((r) => r.id === id);
    return of ? of.name || wording.walkOf(of.person) : String(id);
  };
  return (
    <div className="strip">
      {runs.length > 1 ? (
        <Select<number>
          size="small"
          aria-label={wording.walkShown}
          value={run}
          onChange={setChosen}
          options={runs.map((r) => ({ value: r, label: `${nameOf(r)} (${lengthIn(parts, r)})` }))}
        />
      ) : null}
      <Strip key={run} stocktake={stocktake.id} parts={parts.filter((p) => p.run === run)} />
    </div>
  );
}

const lengthIn = (parts: readonly StripPart[], run: number): number =>
  parts.reduce((n, p) => (p.run === run ? n + lengthOf(p) : n), 0);

/**
 * A scanned shelf spine by spine: in the order of the walk, a ghost where a copy should stand, lifted when out of order, with a thread to
 * its place; a square foot on what must not be here, a notch where a shelf was skipped. ← → walks it, Enter opens a copy.
 */
function Strip({ stocktake, parts }: { stocktake: number; parts: readonly StripPart[] }) {
  const [zoom, setZoom] = useState(2);
  const [here, setHere] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const navigate = useNavigate();
  const width = WIDTHS[zoom]!;
  const count = parts.reduce((n, p) => n + lengthOf(p), 0);
  const virtual = useVirtualizer({
    horizontal: true,
    count,
    getScrollElement: () => box.current,
    estimateSize: () => width,
    overscan: 40,
  });
  const items = virtual.getVirtualItems();
  const spines = useSpines(stocktake, parts, [
    ...partsAround(items[0]?.index ?? 0, items.at(-1)?.index ?? 0),
    ...partsAround(here, here),
  ]);
  const current = spines.at(here);
  const walk = (to: number) => {
    const next = Math.min(count - 1, Math.max(0, to));
    setHere(next);
    virtual.scrollToIndex(next, { align: 'auto' });
  };
  const open = (spine: Spine | undefined) => {
    if (spine?.record && spine.copy) void navigate(`/catalogue/${spine.record}?copy=${spine.copy}`);
  };
  const rescale = (to: number) => {
    setZoom(Math.min(WITH_TEXT, Math.max(0, to)));
    setTimeout(() => {
      virtual.measure();
      virtual.scrollToIndex(here, { align: 'center' });
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowLeft: -1, PageDown: 20, PageUp: -20 }[event.key];
    if (step) walk(here + step);
    else if (event.key === 'Home') walk(0);
    else if (event.key === 'End') walk(count - 1);
    else if (event.key === 'n') void spines.nextWrong(here).then(walk);
    else if (event.key === '+' || event.key === '-') rescale(zoom + (event.key === '+' ? 1 : -1));
    else if (event.key === 'Enter') open(current);
    else return;
    event.preventDefault();
  };
  const label = current ? said(current) : '';
  return (
    <>
      <DensityBar parts={parts} count={count} onChoose={walk} />
      <div
        ref={box}
        className="strip-shelf"
        role="slider"
        tabIndex={0}
        aria-label={wording.shelfStrip}
        aria-valuemin={1}
        aria-valuemax={count}
        aria-valuenow={here + 1}
        aria-valuetext={label}
        onKeyDown={onKey}
      >
        <div style={{ width: virtual.getTotalSize(), height: '100%', position: 'relative' }}>
          {items.map(({ index, start }) => {
            const s = spines.at(index);
            return s ? (
              <SpineMark
                key={index}
                spine={s}
                zoom={zoom}
                left={start}
                isHere={index === here}
                onClick={() => setHere(index)}
                onOpen={() => open(s)}
                threadTo={s.after ? spines.indexOf(s.after) : null}
              />
            ) : null;
          })}
        </div>
      </div>
      <div className="row spread strip-said">
        <span>{label}</span>
        <span className="row">
          <span className="faded">{wording.walkNNextFinding}</span>
          <Button
            size="small"
            className="fix"
            onClick={() => rescale(zoom - 1)}
            disabled={zoom === 0}
            aria-label={wording.smaller}
            icon={<MinusOutlined />}
          />
          <Button
            size="small"
            className="fix"
            onClick={() => rescale(zoom + 1)}
            disabled={zoom === WITH_TEXT}
            aria-label={wording.larger}
            icon={<PlusOutlined />}
          />
        </span>
      </div>
    </>
  );
}

/** The whole walk in one line: how much of each piece is to be looked at. A piece leads to its beginning. */
function DensityBar({
  parts,
  count,
  onChoose,
}: {
  parts: readonly StripPart[];
  count: number;
  onChoose: (index: number) => void;
}) {
  if (parts.length < 2) return null;
  return (
    <div className="strip-density" aria-hidden>
      {parts.map((p) => {
        const share = wrongOf(p) / Math.max(1, lengthOf(p));
        return (
          <span
            key={p.part}
            style={{
              width: `${(100 * lengthOf(p)) / count}%`,
              ['--share' as string]: `${Math.min(100, Math.round(share * 400))}%`,
            }}
            onClick={() => onChoose(p.part * 500)}
          />
        );
      })}
    </div>
  );
}

function SpineMark({
  spine: s,
  zoom,
  left,
  isHere,
  threadTo,
  onClick,
  onOpen,
}: {
  spine: Spine;
  zoom: number;
  left: number;
  isHere: boolean;
  threadTo: number | null;
  onClick: () => void;
  onOpen: () => void;
}) {
  const width = WIDTHS[zoom]!;
  const to = threadTo === null ? null : (threadTo + 1) * width;
  return (
    <>
      <span
        className={`spine ${s.state}${isHere ? ' here' : ''}${s.jumped ? ' notch' : ''}`}
        title={said(s)}
        onClick={onClick}
        onDoubleClick={onOpen}
        style={{
          left,
          width: width - (zoom <= 1 ? 0 : 1),
          ['--hue' as string]: spineHue(s.callNumber),
          height: `${74 + ((s.code.charCodeAt(s.code.length - 2) * 7) % 20)}%`,
        }}
      >
        {zoom === WITH_TEXT ? <i>{s.callNumber}</i> : null}
        {s.jumped && zoom >= 2 ? <b className="notch-count">{s.jumped}</b> : null}
      </span>
      {to !== null && s.state === 'misplaced' ? (
        <span
          className="thread"
          style={{ left: Math.min(to, left + width / 2), width: Math.abs(to - left - width / 2) }}
        />
      ) : null}
    </>
  );
}
