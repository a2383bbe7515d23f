import { Button } from 'antd';
import type { Spine } from '@osier/core/stocktake';
import { groupedBarcode } from '@osier/core/barcodes';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState, type KeyboardEvent } from 'react';
import { stocktakeWords as wording } from './words';

const WIDTHS = [4, 12, 26];
const STATES: Record<Spine['state'], string> = {
  'in place': wording.inPlace,
  'out-of-order': wording.outOfOrder,
  'should-not-be-here': wording.shouldNotBeHere,
  unknown: 'unknown',
  'not-found': wording.notFound,
};

/** A hue for a class, so that neighbours of one class look alike. */
function hue(callNumber: string): number {
  const number = Number(/\d+(\.\d+)?/.exec(callNumber)?.[0] ?? 0);
  return Math.round((number * 997) % 360);
}

/**
 * A scanned shelf spine by spine: in the order of the walk, a ghost where a copy should stand, lifted when out of
 * order, a square foot on what must not be here, a notch where a stretch was jumped. ← → walks it.
 */
export function ShelfStrip({
  spines,
  onOpen,
}: {
  spines: readonly Spine[];
  onOpen?: (spine: Spine) => void;
}) {
  const [zoom, setZoom] = useState(1);
  const [at, setAt] = useState(0);
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    horizontal: true,
    count: spines.length,
    getScrollElement: () => box.current,
    estimateSize: () => WIDTHS[zoom]!,
    overscan: 40,
  });
  const current = spines[at];
  const walk = (to: number) => {
    const next = Math.min(spines.length - 1, Math.max(0, to));
    setAt(next);
    virtual.scrollToIndex(next, { align: 'auto' });
  };
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowLeft: -1, PageDown: 20, PageUp: -20 }[event.key];
    if (step) walk(at + step);
    else if (event.key === 'Home') walk(0);
    else if (event.key === 'End') walk(spines.length - 1);
    else if (event.key === 'n')
      walk(
        at +
          1 +
          Math.max(
            0,
            spines.slice(at + 1).findIndex((s) => s.state !== 'in place' || s.jumped),
          ),
      );
    else if (event.key === '+' || event.key === '-') rescale(zoom + (event.key === '+' ? 1 : -1));
    else if (event.key === 'Enter' && current) onOpen?.(current);
    else return;
    event.preventDefault();
  };
  const rescale = (to: number) => {
    setZoom(Math.min(2, Math.max(0, to)));
    setTimeout(() => virtual.measure());
  };
  if (spines.length === 0) return null;
  const label = current
    ? `${current.callNumber || wording.noCallNumber} ${current.title || groupedBarcode(current.code)}: ${STATES[current.state]}${current.jumped ? wording.copiesJumpedBeforeIt(current.jumped) : ''}`
    : '';
  return (
    <div className="strip">
      <div
        ref={box}
        className="strip-shelf"
        role="slider"
        tabIndex={0}
        aria-label={wording.shelfStrip}
        aria-valuemin={1}
        aria-valuemax={spines.length}
        aria-valuenow={at + 1}
        aria-valuetext={label}
        onKeyDown={onKey}
      >
        <div style={{ width: virtual.getTotalSize(), height: '100%', position: 'relative' }}>
          {virtual.getVirtualItems().map((v) => {
            const s = spines[v.index]!;
            return (
              <span
                key={v.index}
                className={`spine ${s.state}${v.index === at ? ' here' : ''}${s.jumped ? ' notch' : ''}`}
                title={`${s.callNumber} ${s.title} – ${STATES[s.state]}`}
                onClick={() => {
                  setAt(v.index);
                  onOpen?.(s);
                }}
                style={{
                  left: v.start,
                  width: v.size - (zoom === 0 ? 0 : 1),
                  ['--hue' as string]: hue(s.callNumber),
                  height: `${74 + ((s.code.charCodeAt(s.code.length - 2) * 7) % 20)}%`,
                }}
              >
                {zoom === 2 ? <i>{s.callNumber}</i> : null}
              </span>
            );
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
          >
            −
          </Button>
          <Button
            size="small"
            className="fix"
            onClick={() => rescale(zoom + 1)}
            disabled={zoom === 2}
            aria-label={wording.larger}
          >
            +
          </Button>
        </span>
      </div>
    </div>
  );
}
