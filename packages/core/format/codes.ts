import data from './data/codes.json';

/** MARC code lists (Library of Congress); the source vocabularies are those of $2. */
export type CodeList =
  | 'languages'
  | 'countries'
  | 'areas'
  | 'relators'
  | 'subjectSources'
  | 'genreSources'
  | 'classSources'
  | 'identifierSources';

const lists = data.fields as Record<CodeList, Record<string, string>>;

/** Whether a code is on a list now, was once, or never. */
export function codeStanding(list: CodeList, code: string): 'current' | 'obsolete' | 'unknown' {
  if (lists[list][code] !== undefined) return 'current';
  return lists[list][`-${code}`] === undefined ? 'unknown' : 'obsolete';
}

/** What a code stands for, such as "English". */
export const codeName = (list: CodeList, code: string): string | undefined =>
  lists[list][code] ?? lists[list][`-${code}`];

/** The current codes of a list with their names, in the order of the names: to choose from. */
export const codeOptions = (list: CodeList): readonly { readonly code: string; readonly name: string }[] =>
  Object.entries(lists[list])
    .filter(([code]) => !code.startsWith('-'))
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => (a.name < b.name ? -1 : 1));

/** Each list the other way: the current codes by their names in small letters, without a qualifier in brackets. */
const NAMED: Readonly<Record<string, ReadonlyMap<string, string>>> = Object.fromEntries(
  Object.entries(lists).map(([list, codes]) => [
    list,
    new Map(
      Object.entries(codes)
        .filter(([code]) => !code.startsWith('-'))
        .map(([code, name]) => [name.replace(/ \(.*\)$/, '').toLowerCase(), code]),
    ),
  ]),
);

/** The code whose name this is, but for case. */
export const codeNamed = (list: CodeList, name: string): string | undefined =>
  NAMED[list]?.get(name.toLowerCase());
