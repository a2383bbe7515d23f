import type { DataField, Subfield } from '@osier/core/marc';

/** A subfield as it is being typed; the key stays while its place changes. */
export interface Part extends Subfield {
  readonly key: number;
}

/** The subfields of a field that is edited, and where the caret belongs next: `at` characters into a part, or at its code. */
export interface Parts {
  readonly parts: readonly Part[];
  readonly caret: { readonly key: number; readonly at: number | 'code' | 'end' } | null;
}

export const partsOf = (subfields: readonly Subfield[]): Parts => ({
  parts: subfields.map((s, key) => ({ ...s, key })),
  caret: null,
});

const nextKey = (parts: readonly Part[]): number => Math.max(-1, ...parts.map((p) => p.key)) + 1;

/** The parts with one of them changed. */
export const changed = ({ parts }: Parts, key: number, change: Partial<Subfield>): Parts => ({
  parts: parts.map((p) => (p.key === key ? { ...p, ...change } : p)),
  caret: null,
});

/** One more subfield at the end, or behind another one. */
export function added({ parts }: Parts, behind?: number): Parts {
  const key = nextKey(parts);
  const at = parts.findIndex((p) => p.key === behind) + 1 || parts.length;
  return {
    parts: [...parts.slice(0, at), { code: '', value: '', key }, ...parts.slice(at)],
    caret: { key, at: 'code' },
  };
}

/**
 * What typing a character after a `$` makes: a subfield of that code with the text behind the caret. `$$` is a dollar of the
 * text. Null where no subfield begins.
 */
export function splitAtDollar({ parts }: Parts, key: number, caret: number, typed: string): Parts | null {
  const part = parts.find((p) => p.key === key);
  if (!part || !/^[a-z0-9]$/.test(typed) || part.value[caret - 1] !== '$') return null;
  const [before, behind] = [part.value.slice(0, caret - 1), part.value.slice(caret)];
  if (before.endsWith('$')) {
    const value = `${before}${typed}${behind}`;
    return { ...changed({ parts, caret: null }, key, { value }), caret: { key, at: before.length + 1 } };
  }
  const fresh = { code: typed, value: behind.trimStart(), key: nextKey(parts) };
  const at = parts.indexOf(part);
  const kept = { ...part, value: before.trimEnd() };
  return {
    parts: [
      ...parts.slice(0, at),
      ...(kept.value === '' && at > 0 ? [] : [kept]),
      fresh,
      ...parts.slice(at + 1),
    ],
    caret: { key: fresh.key, at: 0 },
  };
}

/** A subfield joined to the one before it; null for the first. */
export function joinedToBefore({ parts }: Parts, key: number): Parts | null {
  const at = parts.findIndex((p) => p.key === key);
  const [before, part] = [parts[at - 1], parts[at]];
  if (!before || !part) return null;
  const gap = before.value && part.value && !before.value.endsWith(' ') ? ' ' : '';
  return {
    parts: [
      ...parts.slice(0, at - 1),
      { ...before, value: before.value + gap + part.value },
      ...parts.slice(at + 1),
    ],
    caret: { key: before.key, at: before.value.length + gap.length },
  };
}

/** A subfield moved one place up or down. */
export function movedBy({ parts }: Parts, key: number, by: 1 | -1): Parts {
  const from = parts.findIndex((p) => p.key === key);
  const to = from + by;
  if (to < 0 || to >= parts.length) return { parts, caret: null };
  const order = [...parts];
  order.splice(to, 0, ...order.splice(from, 1));
  return { parts: order, caret: { key, at: 'end' } };
}

/** The parts without one of them; the caret goes to its neighbour. */
export function removed({ parts }: Parts, key: number): Parts {
  const at = parts.findIndex((p) => p.key === key);
  const left = parts.filter((p) => p.key !== key);
  const next = left[Math.min(at, left.length - 1)];
  return { parts: left, caret: next ? { key: next.key, at: 'end' } : null };
}

/** The field that was typed; parts without a code or a text are none. Null when nothing is left. */
export function fieldTyped(field: DataField, inds: readonly string[], { parts }: Parts): DataField | null {
  const subfields = parts
    .filter((p) => p.code !== '' && p.value.trim() !== '')
    .map(({ code, value }) => ({ code, value }));
  return subfields.length ? { tag: field.tag, ind1: inds[0] || ' ', ind2: inds[1] || ' ', subfields } : null;
}
