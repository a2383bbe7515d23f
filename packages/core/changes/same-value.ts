/** Whether two plain values (numbers, strings, booleans, null, arrays, objects) are equal in content. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a).filter((k) => (a as Record<string, unknown>)[k] !== undefined);
  const otherKeys = Object.keys(b).filter((k) => (b as Record<string, unknown>)[k] !== undefined);
  return (
    keys.length === otherKeys.length &&
    keys.every((k) => sameValue((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  );
}
