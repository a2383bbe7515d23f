import { BorderOutlined, CheckSquareFilled } from '@ant-design/icons';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';
import { useKeptPlace } from './kept-place';
import './work-list.css';
import { partWords as wording } from './words';

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
  /** Ticks several at once: Shift with a click or an arrow key, Ctrl A. */
  readonly onTickAll?: (items: readonly T[]) => void;
  readonly rowHeight?: number;
  readonly empty: ReactNode;
  /** What was asked has not been answered yet, or was refused: then the list is not empty but unknown. */
  readonly answer?: {
    readonly isPending: boolean;
    readonly error: Error | null;
    /** The rows are those of the question before: nothing is done with them, and keys wait for the rows that are asked for. */
    readonly isPlaceholderData?: boolean;
  };
  /** Asked when the end comes into sight. */
  readonly onEnd?: () => void;
}

/** Keys that the list takes by themselves. */
const LIST_KEYS = new Set(['ArrowDown', 'ArrowUp', 'PageDown', 'PageUp', 'Home', 'End', ' ', 'Enter']);

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

/**
 * A list of any length by keyboard: ↑ ↓ moves and opens, Enter goes to the piece, Space ticks, Shift ticks on the way, Ctrl Enter goes
 * to the acts of the selection. Only what is in sight is drawn, and the place is kept for when one comes back.
 */
export function WorkList<T>({
  items,
  label,
  idOf,
  selected,
  onOpen,
  row,
  ticked,
  onTick,
  onTickAll,
  rowHeight = 46,
  empty,
  answer,
  onEnd,
}: Props<T>) {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowHeight,
    overscan: 8,
  });
  useEffect(() => {
    virtual.measure();
  }, [rowHeight, virtual]);
  const placeOf = (id: number | null) => items.findIndex((i) => idOf(i) === id);
  const at = placeOf(selected);
  // Keys may come faster than pieces open: the next one counts from where the last one asked to go.
  const asked = useRef<number | null>(null);
  const open = (item: T) => {
    asked.current = idOf(item);
    onOpen(item);
  };
  /** Where a run of ticks began. */
  const anchor = useRef(0);
  const tickRun = (to: number) => {
    const [first, last] = [Math.min(anchor.current, to), Math.max(anchor.current, to)];
    onTickAll?.(items.slice(first, last + 1));
  };
  const tick = (item: T, index: number) => {
    anchor.current = index;
    onTick?.(item);
  };
  const onClick = (event: MouseEvent, item: T, index: number) => {
    if (event.shiftKey && onTickAll) {
      event.preventDefault();
      window.getSelection()?.removeAllRanges();
      tickRun(index);
    } else if ((event.ctrlKey || event.metaKey) && onTick) tick(item, index);
    else {
      anchor.current = index;
      open(item);
    }
  };
  useKeptPlace(box, label, items.length > 0);
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
  const isOfBefore = answer?.isPlaceholderData === true;
  /** Keys that came while the rows were still those of the question before. */
  const held = useRef<KeyboardEvent[]>([]);
  const onKey = (event: KeyboardEvent) => {
    if (isOfBefore) {
      if (!LIST_KEYS.has(event.key) && !(event.code === 'KeyA' && event.ctrlKey)) return;
      event.preventDefault();
      held.current.push(event);
      return;
    }
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
      if (event.shiftKey && onTickAll) {
        if (!event.repeat && ticked?.size === 0) anchor.current = Math.max(0, from);
        tickRun(to);
      } else anchor.current = to;
      open(items[to]);
    } else if (event.key === ' ' && onTick && items[from]) {
      event.preventDefault();
      tick(items[from], from);
    } else if (event.code === 'KeyA' && event.ctrlKey && onTickAll) {
      event.preventDefault();
      onTickAll(items);
    } else if (event.key === 'Enter' && event.ctrlKey) {
      const act = box.current?.parentElement?.querySelector<HTMLElement>('.selection-bar button');
      if (!act) return;
      event.preventDefault();
      event.stopPropagation();
      act.focus();
    } else if (event.key === 'Enter') {
      event.preventDefault();
      enterPiece();
    }
  };
  useEffect(() => {
    if (isOfBefore) return;
    for (const event of held.current.splice(0)) onKey(event);
  });
  if (items.length === 0)
    return (
      <div className="work-list empty">
        {answer?.error ? (
          <p role="alert" className="field-problem">
            {answer.error.message}
          </p>
        ) : answer?.isPending || isOfBefore ? (
          wording.reading
        ) : (
          empty
        )}
      </div>
    );
  return (
    <div
      ref={box}
      className={isOfBefore ? 'work-list of-before' : 'work-list'}
      role="listbox"
      aria-label={label}
      aria-busy={isOfBefore || undefined}
      aria-disabled={isOfBefore || undefined}
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
              aria-current={id === selected ? 'true' : undefined}
              aria-selected={onTick ? (ticked?.has(id) ?? false) : id === selected}
              aria-posinset={v.index + 1}
              aria-setsize={items.length}
              className={['work-row', id === selected && 'selected', ticked?.has(id) && 'ticked']
                .filter(Boolean)
                .join(' ')}
              style={{ height: v.size, transform: `translateY(${v.start}px)` }}
              onClick={(e) => onClick(e, item, v.index)}
            >
              {onTick ? (
                <span
                  className="tick"
                  title={wording.space}
                  onClick={(e) => {
                    e.stopPropagation();
                    if (e.shiftKey && onTickAll) tickRun(v.index);
                    else tick(item, v.index);
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
