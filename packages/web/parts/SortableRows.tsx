import { HolderOutlined } from '@ant-design/icons';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Button } from 'antd';
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import './sortable-rows.css';
import { partWords as wording } from './words';

/**
 * Rows in an order that a person chooses: by dragging the handle, by Space and the arrow keys on it, or at once by Alt and an arrow
 * key. `keyOf` tells rows apart; `nameOf` is what is said of a row.
 */
export function SortableRows<T>({
  rows,
  keyOf,
  nameOf,
  label,
  disabled = false,
  onOrder,
  children,
}: {
  rows: readonly T[];
  keyOf: (row: T, at: number) => string;
  nameOf: (row: T) => string;
  label: string;
  disabled?: boolean;
  onOrder: (rows: T[]) => void;
  children: (row: T, at: number) => ReactNode;
}) {
  const keys = rows.map(keyOf);
  const list = useRef<HTMLOListElement>(null);
  /** The row that was moved by a key: its handle keeps the focus at its new place. */
  const moved = useRef<number | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  useEffect(() => {
    if (moved.current === null) return;
    list.current?.querySelectorAll<HTMLElement>('.sort-handle')[moved.current]?.focus();
    moved.current = null;
  }, [rows]);
  const move = (from: number, to: number) => {
    if (from !== to && rows[from] !== undefined && rows[to] !== undefined)
      onOrder(arrayMove([...rows], from, to));
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over) move(keys.indexOf(String(active.id)), keys.indexOf(String(over.id)));
  };
  const onKey = (event: KeyboardEvent, at: number) => {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    event.stopPropagation();
    const to = event.key === 'ArrowUp' ? at - 1 : at + 1;
    moved.current = rows[to] === undefined ? null : to;
    move(at, to);
  };
  const said = (id: string | number) => {
    const row = rows[keys.indexOf(String(id))];
    return row === undefined ? '' : nameOf(row);
  };
  const place = (id: string | number) => wording.of2(keys.indexOf(String(id)) + 1, rows.length);
  const announcements: Announcements = {
    onDragStart: ({ active }) => wording.pickedUp(said(active.id), place(active.id)),
    onDragOver: ({ over }) => (over ? wording.atPlace(place(over.id)) : ''),
    onDragEnd: ({ active, over }) =>
      over ? wording.movedToPlace(said(active.id), place(over.id)) : wording.stays(said(active.id)),
    onDragCancel: ({ active }) => wording.stays(said(active.id)),
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: wording.spacePicksTheRowUp,
        },
      }}
    >
      <SortableContext items={keys} strategy={verticalListSortingStrategy} disabled={disabled}>
        <ol className="sortable" aria-label={label} ref={list}>
          {rows.map((row, i) => (
            <SortableRow
              key={keys[i]}
              id={keys[i]!}
              name={nameOf(row)}
              disabled={disabled || rows.length < 2}
              onKey={(e) => onKey(e, i)}
            >
              {children(row, i)}
            </SortableRow>
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function SortableRow({
  id,
  name,
  disabled,
  onKey,
  children,
}: {
  id: string;
  name: string;
  disabled: boolean;
  onKey: (event: KeyboardEvent) => void;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      className={isDragging ? 'sort-row dragged' : 'sort-row'}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      {disabled ? null : (
        <span onKeyDownCapture={onKey}>
          <Button
            type="text"
            size="small"
            ref={setActivatorNodeRef}
            className="sort-handle"
            icon={<HolderOutlined />}
            title={wording.dragOrAltWithAn}
            {...attributes}
            {...listeners}
            aria-label={wording.move(name)}
          />
        </span>
      )}
      <div className="sort-body">{children}</div>
    </li>
  );
}
