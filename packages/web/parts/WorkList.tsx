import { BorderOutlined, CheckSquareFilled } from '@ant-design/icons';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import './work-list.css';

interface Props<T> {
  readonly items: readonly T[];
  readonly label: string;
  readonly idOf: (item: T) => number;
  readonly selected: number | null;
  readonly onOpen: (item: T) => void;
  readonly row: (item: T) => ReactNode;
  /** Rows that are ticked; Space toggles. */
  readonly ticked?: ReadonlySet<number>;
  readonly onTick?: (item: T) => void;
  readonly rowHeight?: number;
  readonly empty: ReactNode;
  /** Asked when the end comes into sight. */
  readonly onEnd?: () => void;
}

/** The focus goes to where the work of the piece is: its fields, else the first thing in it that is on screen. */
function enterPiece(): void {
  const all = [
    ...document.querySelectorAll<HTMLElement>('.work-piece .field-row'),
    ...document.querySelectorAll<HTMLElement>(
      '.work-piece [tabindex="0"], .work-piece button, .work-piece input',
    ),
  ];
  all.find((e) => typeof e.checkVisibility !== 'function' || e.checkVisibility())?.focus();
}

/** A list of any length by keyboard: ↑ ↓ moves and opens, Enter goes to the piece, Space ticks. Only what is in sight is drawn. */
export function WorkList<T>({
  items,
  label,
  idOf,
  selected,
  onOpen,
  row,
  ticked,
  onTick,
  rowHeight = 46,
  empty,
  onEnd,
}: Props<T>) {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowHeight,
    overscan: 8,
  });
  const placeOf = (id: number | null) => items.findIndex((i) => idOf(i) === id);
  const at = placeOf(selected);
  // Keys may come faster than pieces open: the next one counts from where the last one asked to go.
  const asked = useRef<number | null>(null);
  const open = (item: T) => {
    asked.current = idOf(item);
    onOpen(item);
  };
  const shown = virtual.getVirtualItems();
  const lastShown = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (onEnd && items.length > 0 && lastShown >= items.length - 10) onEnd();
  }, [lastShown, items.length, onEnd]);
  useEffect(() => {
    if (asked.current === selected) asked.current = null;
  }, [selected]);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  const onKey = (event: KeyboardEvent) => {
    const going = placeOf(asked.current);
    const from = going >= 0 ? going : at;
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    const to =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? items.length - 1
          : step === undefined
            ? null
            : Math.min(items.length - 1, Math.max(0, from + step));
    if (to !== null && items[to]) {
      event.preventDefault();
      open(items[to]);
    } else if (event.key === ' ' && onTick && items[from]) {
      event.preventDefault();
      onTick(items[from]);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      enterPiece();
    }
  };
  if (items.length === 0) return <div className="work-list empty">{empty}</div>;
  return (
    <div
      ref={box}
      className="work-list"
      role="listbox"
      aria-label={label}
      tabIndex={0}
      onKeyDown={onKey}
      onBlur={() => (asked.current = null)}
      aria-activedescendant={at >= 0 ? `row-${selected}` : undefined}
      aria-multiselectable={onTick ? true : undefined}
    >
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="presentation">
        {shown.map((v) => {
          const item = items[v.index]!;
          const id = idOf(item);
          return (
            <div
              key={id}
              id={`row-${id}`}
              role="option"
              aria-selected={onTick ? (ticked?.has(id) ?? false) : id === selected}
              aria-posinset={v.index + 1}
              aria-setsize={items.length}
              className={id === selected ? 'work-row selected' : 'work-row'}
              style={{ height: v.size, transform: `translateY(${v.start}px)` }}
              onClick={() => open(item)}
            >
              {onTick ? (
                <span
                  className="tick"
                  title="Space"
                  onClick={(e) => {
                    e.stopPropagation();
                    onTick(item);
                  }}
                >
                  {ticked?.has(id) ? <CheckSquareFilled /> : <BorderOutlined />}
                </span>
              ) : null}
              <div className="work-row-body">{row(item)}</div>
            </div>
          );
        })}
      </div>
    </div>
  );
}
