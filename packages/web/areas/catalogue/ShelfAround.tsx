import { api, type BrowseRow } from '@osier/contract';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useApi } from '../../api/queries';
import { spineHue } from '../../parts/spine-hue';
import '../../parts/spines.css';
import { catalogueWords as wording } from './words';

/** Width of a spine with its gap, in pixels. */
const WIDTH = 26;
/** Nearer to an end than so many, the shelf is read on. */
const NEAR = 8;
const params = { list: 'callnumber' } as const;

/** The shelf around a title as a strip of spines, both ways: Left and Right walk it, Enter opens what stands there. */
export function ShelfAround({ at, onOpen }: { at: BrowseRow; onOpen: (row: BrowseRow) => void }) {
  const [anchor, setAnchor] = useState(at);
  const before = useApi(api.browse.page, { params, query: { ahead: anchor.place } }).data;
  const behind = useApi(api.browse.page, { params, query: { behind: anchor.place } }).data;
  const read = useMemo(
    () => (before && behind ? [...before.rows, anchor, ...behind.rows] : null),
    [before, behind, anchor],
  );
  // What was read is shown until what is around another title is there.
  const [spines, setSpines] = useState([at]);
  const [walked, setWalked] = useState(at);
  const [opened, setOpened] = useState(at.place);
  if (read && read !== spines) setSpines(read);
  if (opened !== at.place) {
    setOpened(at.place);
    setWalked(at);
    if (!spines.some((s) => s.place === at.place)) setAnchor(at);
  }
  const here = spines.findIndex((s) => s.place === walked.place);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const shelf = box.current;
    if (shelf && here >= 0) shelf.scrollLeft = here * WIDTH - shelf.clientWidth / 2 + WIDTH / 2;
  }, [here, spines]);
  const walk = (to: number) => {
    const next = spines[Math.min(spines.length - 1, Math.max(0, to))];
    if (!next) return;
    setWalked(next);
    if (read && ((to < NEAR && before?.before) || (to >= spines.length - NEAR && behind?.next)))
      setAnchor(next);
  };
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowLeft: -1, PageDown: 10, PageUp: -10 }[event.key];
    if (step) walk(here + step);
    else if (event.key === 'Enter' && here >= 0) onOpen(spines[here]!);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="strip strip-around">
      <div
        ref={box}
        className="strip-shelf"
        role="slider"
        tabIndex={0}
        aria-label={wording.shelfAround}
        aria-valuemin={1}
        aria-valuemax={Math.max(1, spines.length)}
        aria-valuenow={here + 1}
        aria-valuetext={saidOf(walked)}
        onKeyDown={onKey}
      >
        <div className="strip-row" style={{ width: spines.length * WIDTH }}>
          {spines.map((s, i) => (
            <span
              key={s.place}
              className={`spine${i === here ? ' here' : ''}`}
              title={saidOf(s)}
              onClick={() => {
                walk(i);
                onOpen(s);
              }}
              style={{
                left: i * WIDTH,
                width: WIDTH - 1,
                ['--hue' as string]: spineHue(s.text),
                height: `${74 + ((s.more.length * 7) % 20)}%`,
              }}
            >
              <i>{s.text}</i>
            </span>
          ))}
        </div>
      </div>
      <div className="strip-said">
        <bdi>{saidOf(walked)}</bdi>
      </div>
    </div>
  );
}

const saidOf = ({ text, more }: BrowseRow): string => `${text} ${more}`;
