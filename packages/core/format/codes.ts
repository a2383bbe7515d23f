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

/** The code whose name this is, but for case. */
export function codeNamed(list: CodeList, name: string): string | undefined {
  let by = names.get(list);
  if (!by) {
    by = new Map();
    for (const [code, n] of Object.entries(lists[list]))
      if (!code.startsWith('-')) by.set(n.replace(/ \(.*\)$/, '').toLowerCase(), code);
    names.set(list, by);
  }
  return by.get(name.toLowerCase());
}
const names = new Map<CodeList, Map<string, string>>();
