import { paramNames, type AnyEndpoint } from '@osier/contract';

/** Statuses with which any request may be refused, whatever it asks for: see docs/architecture.md. */
export const ANY_REQUEST: readonly number[] = [400, 408, 413, 415, 421, 422, 499, 500, 503, 507];

/** Statuses of the problem details of an endpoint, beside those that any request may end with. */
export function statusesOf(e: AnyEndpoint): number[] {
  const said = new Set(e.problems);
  if (e.permission !== null) said.add(401).add(403);
  if (paramNames(e.path).length) said.add(404);
  if (e.query || e.body || e.method !== 'get') said.add(422);
  if (e.method !== 'get') said.add(403).add(409);
  return [...said].sort((a, b) => a - b);
}
