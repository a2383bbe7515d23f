import { counted } from '@osier/core/changes';
import type { SavedOf } from '@osier/core/find';

/** What saved searches say. */
export const searchWords = {
  saveSearch: 'Save search',
  savedSearches: 'Saved searches',
  name: 'Name',
  cancel: 'Cancel',
  shareWithAll: 'Share with everybody',
  showItsNumberInToday: 'Show its number in Today',
  shared: 'shared',
  sharedBy: (name: string) => `shared by ${name}`,
  wordsOrQuery: 'Words or query',
  changeSearch: (name: string) => `Change the saved search ${name}`,
  deleteSearch: (name: string) => `Delete the saved search ${name}`,
  found: (of: SavedOf, n: number, isMore: boolean) => {
    const what = counted(n, of, of === 'copy' ? 'copies' : undefined);
    return isMore ? `over ${what}` : what;
  },
};
