import type { MarcRecord } from '@osier/core/marc';
import { create } from 'zustand';

/** A record as somebody changed it without having saved it yet. */
export interface Draft {
  /** What it was begun from, and the version of that. */
  readonly version: number;
  readonly base: MarcRecord;
  readonly marc: MarcRecord;
  readonly title: string;
}

interface Drafts {
  readonly drafts: Readonly<Record<string, Draft>>;
  keep(id: number, draft: Draft | null): void;
}
const KEY = 'osier-drafts';

function read(): Record<string, Draft> {
  try {
    return JSON.parse(sessionStorage.getItem(KEY) ?? '{}') as Record<string, Draft>;
  } catch {
    return {};
  }
}

/** Unsaved records of this tab. They outlast a scan, another area and a reload; only saving or discarding ends them. */
export const useDrafts = create<Drafts>((set) => ({
  drafts: read(),
  keep: (id, draft) =>
    set(({ drafts }) => {
      const { [String(id)]: _, ...rest } = drafts;
      const next = draft ? { ...rest, [String(id)]: draft } : rest;
      sessionStorage.setItem(KEY, JSON.stringify(next));
      return { drafts: next };
    }),
}));
