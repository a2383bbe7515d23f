import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type ReactNode } from 'react';

/** Rows of a long list within a piece, of whatever height: only those in sight of the pane are drawn. */
export function RowsInSight<T>({
  rows,
  keyOf,
  height,
  row,
}: {
  rows: readonly T[];
  keyOf: (row: T) => number;
  /** Of a row that has not been drawn yet, in pixels. */
  height: number;
  row: (row: T) => ReactNode;
}) {
  const box = useRef<HTMLDivElement>(null);
  const pane = () => box.current?.closest<HTMLElement>('.work-piece') ?? null;
  const [top, setTop] = useState(0);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: pane,
    estimateSize: () => height,
    getItemKey: (at) => keyOf(rows[at]!),
    overscan: 10,
    scrollMargin: top,
  });
  // What stands above may become longer or shorter: then all that is in the pane does.
  useEffect(() => {
    const scrolled = pane();
    if (!box.current || !scrolled) return;
    const own = box.current;
    const measure = () =>
      setTop(
        Math.round(
          own.getBoundingClientRect().top - scrolled.getBoundingClientRect().top + scrolled.scrollTop,
        ),
      );
    const watched = new ResizeObserver(measure);
    watched.observe(scrolled.firstElementChild ?? scrolled);
    return () => watched.disconnect();
  }, []);
  return (
    <div ref={box} style={{ height: virtual.getTotalSize(), position: 'relative' }}>
      {virtual.getVirtualItems().map((item) => (
        <div
          key={item.key}
          ref={virtual.measureElement}
          data-index={item.index}
          style={{
            ...{ position: 'absolute', top: 0, left: 0, right: 0 },
            transform: `translateY(${item.start - top}px)`,
          }}
        >
          {row(rows[item.index]!)}
        </div>
      ))}
    </div>
  );
}
