import { createHash } from 'node:crypto';

/** The digest of nothing. */
export const NOTHING = '';

/** A digest that two values share when they are equal in content (`sameValue`): SHA-256 over the value with its keys in order. */
export function digestOf(value: unknown): string {
  if (value === null || value === undefined) return NOTHING;
  return createHash('sha256')
    .update(JSON.stringify(inOrder(value)))
    .digest('base64url');
}

function inOrder(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map(inOrder);
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([k, v]) => [k, inOrder(v)]));
}
