import type { SavedOf } from '@osier/core/find';

/** What of an address is the search itself, for each list. */
const PARTS: Readonly<Record<SavedOf, readonly string[]>> = {
  record: [
    ...['q', 'language', 'branch', 'material', 'finding', 'status', 'type', 'suppressed'],
    ...['pile', 'delivery', 'sort'],
  ],
  holding: ['q', 'branch', 'location'],
  heading: ['q', 'kind', 'only'],
  copy: [
    ...['q', 'barcode', 'branch', 'location', 'type', 'status', 'fund', 'supplier', 'numberFrom', 'numberTo'],
    ...['scheme', 'acquiredFrom', 'acquiredTo', 'notSeenSince', 'noPrice', 'unread', 'pile', 'sort', 'down'],
  ],
};

/** The parts of a search that stand in an address. */
export const searchIn = (of: SavedOf, query: URLSearchParams): Record<string, string> =>
  Object.fromEntries(
    PARTS[of].flatMap((name) => {
      const value = query.get(name);
      return value && !(name === 'branch' && value === EVERYWHERE) ? [[name, value]] : [];
    }),
  );

/** In the address of the Catalogue for the branch: not one’s own, which a look around begins at. */
const EVERYWHERE = 'all';

/** Where each list is, and what its address says beside the search. */
const LISTS: Readonly<Record<SavedOf, { readonly path: string; readonly begins: Record<string, string> }>> = {
  record: { path: '/catalogue', begins: { branch: EVERYWHERE } },
  holding: { path: '/copies/holdings', begins: {} },
  copy: { path: '/copies/all', begins: {} },
  heading: { path: '/headings', begins: { show: 'all' } },
};

/** The address of the list that shows a search. */
export function addressOfSearch(of: SavedOf, search: Readonly<Record<string, string>>): string {
  const { path, begins } = LISTS[of];
  return `${path}?${new URLSearchParams({ ...begins, ...search }).toString()}`;
}
