import type { CodeLists } from '../holdings';
import type { HouseRules } from '../house';
import { describeKind } from './kind';

/** The rules of the house. */
export const house = describeKind<HouseRules>()({
  kind: 'house',
  noun: ['house rules', 'house rules'],
  label: () => 'House rules',
  table: 'settings',
  columns: {},
  compute: () => ({}),
  parents: [],
  single: 1,
});

/** The short code lists of the library. */
export const lists = describeKind<CodeLists>()({
  kind: 'lists',
  noun: ['code lists', 'code lists'],
  label: () => 'Code lists',
  table: 'settings',
  columns: {},
  compute: () => ({}),
  parents: [],
  single: 2,
});
