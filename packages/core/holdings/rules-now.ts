import type { HouseRules } from '../house';
import type { CodeLists } from './objects';

/** The house rules with what is on the code lists now, as the checks want them: the same in the browser and on the server. */
export const withCodes = (house: HouseRules, lists: CodeLists): HouseRules => ({
  ...house,
  codes: {
    branches: lists.branches.map((b) => b.code),
    locations: lists.locations.map((l) => l.code),
  },
});
