import type { ReactNode } from 'react';
import { create } from 'zustand';

/** A column that a work list can show beside what its rows are called. */
export interface ListColumn<T> {
  readonly key: string;
  readonly name: string;
  readonly of: (row: T) => ReactNode;
  /** Width on a line, in pixels. */
  readonly width: number;
  readonly isMono?: boolean;
  readonly isNumber?: boolean;
  /** Shown whole when a row has two lines: at the end of the first or of the second. Codes stand on the first, numbers on the second. */
  readonly endOf?: 'first' | 'second';
}

/** How one looks at a work list. */
export interface ListView {
  /** One line a row with columns, or two lines. */
  readonly isDense: boolean;
  readonly columns: readonly string[];
}

interface Views {
  readonly of: Readonly<Record<string, ListView>>;
  set(name: string, view: ListView): void;
}
const keyOf = (name: string) => `osier-list ${name}`;

function read(name: string, first: ListView): ListView {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(name)) ?? 'null');
    if (typeof kept !== 'object' || kept === null) return first;
    return {
      isDense: 'isDense' in kept ? kept.isDense === true : first.isDense,
      columns:
        'columns' in kept && Array.isArray(kept.columns)
          ? kept.columns.filter((c) => typeof c === 'string')
          : first.columns,
    };
  } catch {
    return first;
  }
}

const useViews = create<Views>((set) => ({
  of: {},
  set: (name, view) => {
    localStorage.setItem(keyOf(name), JSON.stringify(view));
    set((s) => ({ of: { ...s.of, [name]: view } }));
  },
}));

/** How a list is looked at, kept in this browser, and the way to change it. */
export function useListView(name: string, first: ListView): readonly [ListView, (view: ListView) => void] {
  const { of, set } = useViews();
  return [of[name] ?? read(name, first), (view) => set(name, view)];
}
