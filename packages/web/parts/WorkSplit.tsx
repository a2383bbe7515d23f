import { useRef, useState, type PointerEvent, type ReactNode } from 'react';
import './work-split.css';
import { partWords as wording } from './words';

/** Work list at the left, work piece at the right; the border between them can be dragged. On a phone one at a time. `share` is the list's part at first, in percent. */
export function WorkSplit({
  list,
  piece,
  open,
  share: first = 40,
}: {
  list: ReactNode;
  piece: ReactNode;
  open: boolean;
  share?: number;
}) {
  // Where the border was dragged to is kept for each part that a list has at first.
  const [dragged, setDragged] = useState<Readonly<Record<number, number>>>({});
  const share = dragged[first] ?? (Number(localStorage.getItem(`osier-split-${first}`)) || first);
  const box = useRef<HTMLDivElement>(null);
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const border = event.currentTarget;
    border.setPointerCapture(event.pointerId);
    border.onpointermove = (move) => {
      const { left, width } = box.current!.getBoundingClientRect();
      const next = Math.min(70, Math.max(22, ((move.clientX - left) / width) * 100));
      setDragged((before) => ({ ...before, [first]: next }));
      localStorage.setItem(`osier-split-${first}`, String(Math.round(next)));
    };
    border.onpointerup = () => (border.onpointermove = null);
  };
  return (
    <div
      className={open ? 'work-split open' : 'work-split'}
      ref={box}
      style={{ gridTemplateColumns: `${share}% 5px minmax(0, 1fr)` }}
    >
      <section className="work-list-pane" aria-label={wording.workList}>
        {list}
      </section>
      <div className="work-border" onPointerDown={drag} aria-hidden />
      <section className="work-piece" aria-label={wording.workPiece}>
        {piece}
      </section>
    </div>
  );
}
