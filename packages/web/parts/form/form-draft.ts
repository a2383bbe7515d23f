import { useState } from 'react';
import { useDrafts, type FormDraft } from '../../shell/drafts';

/** Under which key a form's draft is kept, what it is called, and where the form stands. */
export interface DraftPlace {
  readonly key: string;
  readonly title: string;
  readonly path: string;
  /** What the form begins with is kept by the library, where somebody else may change it; else it only makes a beginning. */
  readonly isOfKept?: boolean;
}

interface FormDraftHold<T> {
  /** What the form begins with: what is saved, and over it what was typed and not sent. */
  readonly begin: T;
  readonly isKept: boolean;
  /** What was typed over has been saved otherwise since: sending it would put it in the place of that. */
  readonly isOvertaken: boolean;
  readonly keep: (typed: T) => void;
  readonly drop: () => void;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What differs from what is saved; with what stood there when it was begun to be typed over. */
const typedOver = (saved: object, typed: object, begun: FormDraft['typed'] = {}): FormDraft['typed'] => {
  const before: Record<string, unknown> = { ...saved };
  const after: Record<string, unknown> = { ...typed };
  return Object.fromEntries(
    Object.entries(after)
      .filter(([name, is]) => !same(before[name], is))
      .map(([name, is]) => [name, { was: (begun[name] ?? { was: before[name] }).was, is }]),
  );
};

const valueAt = (of: object, name: string): unknown => new Map<string, unknown>(Object.entries(of)).get(name);

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
    isOvertaken:
      place?.isOfKept === true &&
      Object.entries(kept?.typed ?? {}).some(([name, { was, is }]) => {
        const saved = valueAt(initial, name);
        return !same(was, saved) && !same(is, saved);
      }),
    keep: (typed) => {
      if (!place) return;
      const over = typedOver(initial, typed, kept?.typed);
      const { key, title, path } = place;
      if (Object.keys(over).length) keepForm(key, { title, path, typed: over });
      else if (kept) keepForm(key, null);
    },
    drop: () => {
      if (place) keepForm(place.key, null);
    },
  };
}
