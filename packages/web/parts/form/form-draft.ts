import { useState } from 'react';
import { useDrafts, type FormDraft } from '../../shell/drafts';

/** Under which key a form's draft is kept, what it is called, and where the form stands. */
export interface DraftPlace {
  readonly key: string;
  readonly title: string;
  readonly path: string;
}

interface FormDraftHold<T> {
  /** What the form begins with: what is saved, and over it what was typed and not sent. */
  readonly begin: T;
  readonly isKept: boolean;
  readonly keep: (typed: T) => void;
  readonly drop: () => void;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What differs from what is saved. */
const typedOver = (saved: object, typed: object): FormDraft['typed'] => {
  const before: Record<string, unknown> = { ...saved };
  const after: Record<string, unknown> = { ...typed };
  return Object.fromEntries(
    Object.entries(after)
      .filter(([name, is]) => !same(before[name], is))
      .map(([name, is]) => [name, { was: before[name], is }]),
  );
};

/**
 * Keeps what is typed in a form in the browser. When what is saved has changed meanwhile, only the parts that were typed over differ
 * from it.
 */
export function useFormDraft<T extends object>(place: DraftPlace | undefined, initial: T): FormDraftHold<T> {
  const kept = useDrafts((s) => (place ? s.forms[place.key] : undefined));
  const keepForm = useDrafts((s) => s.keepForm);
  const [begin] = useState<T>(() => ({
    ...initial,
    ...Object.fromEntries(Object.entries(kept?.typed ?? {}).map(([name, { is }]) => [name, is])),
  }));
  return {
    begin,
    isKept: kept !== undefined,
    keep: (typed) => {
      if (!place) return;
      const over = typedOver(initial, typed);
      const { key, title, path } = place;
      if (Object.keys(over).length) keepForm(key, { title, path, typed: over });
      else if (kept) keepForm(key, null);
    },
    drop: () => {
      if (place) keepForm(place.key, null);
    },
  };
}
