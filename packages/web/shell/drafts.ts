import type { MarcRecord } from '@osier/core/marc';
import { create } from 'zustand';

/** A record as somebody changed it without having saved it yet. */
export interface Draft {
  /** What it was begun from, and the version of that. */
  readonly version: number;
  readonly base: MarcRecord;
  readonly marc: MarcRecord;
  readonly title: string;
  /** The address where it is edited. */
  readonly path: string;
}

/** What somebody typed in a form and has not sent yet. */
export interface FormDraft {
  /** What the form is called, and the address where it stands. */
  readonly title: string;
  readonly path: string;
  /** By its name, what was there when it was typed over, and what was typed. */
  readonly typed: Readonly<Record<string, { readonly was: unknown; readonly is: unknown }>>;
}

interface Kept {
  readonly drafts: Readonly<Record<string, Draft>>;
  readonly forms: Readonly<Record<string, FormDraft>>;
}
interface Drafts extends Kept {
  readonly person: number | null;
  /** Takes up what a person left unsaved in this browser. */
  open(person: number): void;
  keep(key: string, draft: Draft | null): void;
  keepForm(key: string, draft: FormDraft | null): void;
}

const keyOf = (person: number) => `osier-drafts-${person}`;

function read(person: number): Kept {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(person)) ?? '{}') as Partial<Kept>;
    return { drafts: kept.drafts ?? {}, forms: kept.forms ?? {} };
  } catch {
    return { drafts: {}, forms: {} };
  }
}

function exchanged<T>(all: Readonly<Record<string, T>>, key: string, value: T | null): Record<string, T> {
  const { [key]: _, ...rest } = all;
  return value ? { ...rest, [key]: value } : rest;
}

/**
 * What a person has not saved yet, in this browser: records and forms. It outlasts a scan, another area, a reload and the closing of the
 * page; only saving or discarding ends it. The pages of one browser share it.
 */
export const useDrafts = create<Drafts>((set, get) => {
  const write = (change: (kept: Kept) => Kept) => {
    const { person } = get();
    if (person === null) return;
    // Another page may have kept something meanwhile.
    const next = change(read(person));
    set(next);
    try {
      localStorage.setItem(keyOf(person), JSON.stringify(next));
    } catch {
      // The browser gives no more room: this page still has it.
    }
  };
  return {
    person: null,
    drafts: {},
    forms: {},
    open: (person) => {
      if (get().person !== person) set({ person, ...read(person) });
    },
    keep: (key, draft) => write((k) => ({ ...k, drafts: exchanged(k.drafts, key, draft) })),
    keepForm: (key, draft) => write((k) => ({ ...k, forms: exchanged(k.forms, key, draft) })),
  };
});

/** Follows what other pages of this browser keep; gives the way to stop. */
export function followDrafts(): () => void {
  const onStorage = ({ key }: StorageEvent) => {
    const { person } = useDrafts.getState();
    if (person !== null && key === keyOf(person)) useDrafts.setState(read(person));
  };
  window.addEventListener('storage', onStorage);
  return () => window.removeEventListener('storage', onStorage);
}

/** What waits to be saved: its name and the address where it stands. */
export function unsavedWork({
  drafts,
  forms,
}: Kept): readonly { readonly path: string; readonly title: string }[] {
  return [...Object.values(drafts), ...Object.values(forms)].map(({ path, title }) => ({ path, title }));
}
