import type { CodeList } from '../format';

/** What may be completed in a subfield while it is typed: from where. */
export type CompletionSource =
  | { readonly from: 'headings' }
  | { readonly from: 'used'; readonly term: UsedTerm }
  | { readonly from: 'codes'; readonly list: CodeList; readonly write: 'code' | 'name' };

/** Terms that are offered because records have them: publishers, places of publication, series. */
export const USED_TERMS = ['publisher', 'place', 'series'] as const;
export type UsedTerm = (typeof USED_TERMS)[number];

const codes = (list: CodeList, write: 'code' | 'name' = 'code'): CompletionSource => ({
  from: 'codes',
  list,
  write,
});

/** Where completions for a subfield come from; null where nothing is known that could stand there. */
export function completionSource(tag: string, code: string): CompletionSource | null {
  if (/^([178](00|10|11)|[17]30|6(00|10|11|30|48|50|51|55))$/.test(tag)) {
    if (code === 'a') return { from: 'headings' };
    const isRelator = /11$/.test(tag) ? code === 'j' : code === 'e';
    if (isRelator) return codes('relators', 'name');
    if (code === '4') return codes('relators');
    if (code !== '2') return null;
    return codes(tag === '655' ? 'genreSources' : 'subjectSources');
  }
  if (tag === '264' || tag === '260') {
    if (code === 'a') return { from: 'used', term: 'place' };
    return code === 'b' ? { from: 'used', term: 'publisher' } : null;
  }
  if ((tag === '490' || tag === '830') && code === 'a') return { from: 'used', term: 'series' };
  if (tag === '041' && /[a-z]/.test(code)) return codes('languages');
  if (tag === '040' && code === 'b') return codes('languages');
  if (tag === '044' && code === 'a') return codes('countries');
  if (tag === '043' && code === 'a') return codes('areas');
  if (tag[0] === '6' && code === '2') return codes('subjectSources');
  if (tag === '024' && code === '2') return codes('identifierSources');
  return tag === '084' && code === '2' ? codes('classSources') : null;
}
