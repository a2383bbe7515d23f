import { api, filledPath, type Suggestion } from '@osier/contract';
import { useEffect, useState } from 'react';
import { call } from '../api/call';
import { AREAS } from './areas';
import { shellWords as wording } from './words';

/** Something that can be chosen under the scan line: what it is, and where it leads. */
export interface ScanChoice {
  readonly key: string;
  readonly what: string;
  readonly text: string;
  readonly more: string;
  /** Where it leads; null for a text that is looked up as if it were typed. */
  readonly to: string | null;
}

const WHAT = {
  record: wording.title,
  heading: wording.heading,
  copy: wording.copy,
  pile: wording.pile,
} as const;
const toOf = ({ as, id, record }: Suggestion): string => {
  if (as === 'heading') return `/headings/${id}`;
  if (as === 'pile') return `/copies/${id}`;
  return as === 'copy' ? filledPath('/catalogue/:id', { id: record ?? 0 }, { copy: id }) : `/catalogue/${id}`;
};

/** Areas whose name begins so. */
export const areasNamed = (typed: string): ScanChoice[] =>
  AREAS.filter((a) => a.name.toLowerCase().startsWith(typed.trim().toLowerCase())).map((a) => ({
    ...{ key: a.path, what: wording.area, text: a.name, more: '', to: a.path },
  }));

/** Typing is waited for this long before the server is asked, so that a scanner's burst never asks. */
const PAUSE = 180;
const LEAST = 3;

/** What a text that is being typed may mean; the areas at once, the rest when the server has answered. */
export function useSuggestions(typed: string): readonly ScanChoice[] {
  const [found, setFound] = useState<{ readonly of: string; readonly rows: readonly ScanChoice[] }>({
    of: '',
    rows: [],
  });
  useEffect(() => {
    if (typed.trim().length < LEAST) return;
    let isLate = false;
    const timer = setTimeout(() => {
      call(api.records.suggest, { query: { q: typed } }).then(
        ({ rows }) => {
          if (isLate) return;
          const choices = rows.map((r) => ({
            ...{ key: `${r.as} ${r.id}`, what: WHAT[r.as], text: r.text, more: r.more, to: toOf(r) },
          }));
          setFound({ of: typed, rows: choices });
        },
        () => undefined,
      );
    }, PAUSE);
    return () => {
      isLate = true;
      clearTimeout(timer);
    };
  }, [typed]);
  if (typed.trim().length < LEAST) return [];
  return [...(found.of === typed ? found.rows : []), ...areasNamed(typed)];
}
