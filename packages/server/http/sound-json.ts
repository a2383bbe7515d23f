import { isFit } from '@osier/contract';
import { wrong } from './problem';

const DEEPEST = 40;
/** Names that mean something else to JavaScript than a part of a value. */
const NO_NAMES = new Set(['__proto__', 'constructor', 'prototype']);

/**
 * Refuses a body that no schema should have to look at: one that is nested without end, has parts by names that are not data, or
 * texts with characters that cannot be kept. Goes through it without calling itself.
 */
export function soundJson(body: unknown): void {
  const waiting: { value: unknown; path: string; depth: number }[] = [{ value: body, path: '', depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, path, depth } = next;
    if (typeof value === 'string' && !isFit(value))
      throw wrong(path, 'There is a control character in it, which cannot be kept.');
    if (typeof value !== 'object' || value === null) continue;
    if (depth >= DEEPEST) throw wrong(path.slice(0, 100), 'This is nested deeper than anything here is.');
    for (const [name, part] of Object.entries(value)) {
      if (NO_NAMES.has(name)) throw wrong(path, `“${name}” is no part of it.`);
      if (typeof part === 'string' || (typeof part === 'object' && part !== null))
        waiting.push({
          value: part,
          path: Array.isArray(value) ? `${path}[${name}]` : path ? `${path}.${name}` : name,
          depth: depth + 1,
        });
    }
  }
}
