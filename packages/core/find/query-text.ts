import { OF_RECORDS, type FindLanguage } from './language';

/**
 * Whether an input of the scan line is a query in CQL and no plain words: it has an index that we know with a relation behind it, or it is in
 * quotation marks or brackets from its beginning. What only looks a little like one is looked for as words.
 */
export function isQueryText(
  text: string,
  { indexNamed }: Pick<FindLanguage<unknown>, 'indexNamed'> = OF_RECORDS,
): boolean {
  const start = text.trim();
  if (/^"[^"]*[^\s"][^"]*"/.test(start) || /^\(.*[("=]/s.test(start)) return true;
  if (/^>\s*[\w."]/.test(start)) return true;
  const bare = start.replace(/"(?:\\.|[^"\\])*"/gs, '""');
  for (const [, name = ''] of bare.matchAll(/(?:^|[\s(])([\w.-]+)\s*(?:==|<>|<=|>=|=|<|>)/g))
    if (indexNamed(name) || /^(dc|cql|bath|rec)\./i.test(name)) return true;
  if (/\S\s+sortby\s+\w/i.test(bare)) return true;
  return [...bare.matchAll(/(?:^|[\s(])([\w.-]+)\s+(?:any|all|adj|exact|within)\s*"/g)].some(
    ([, name = '']) => indexNamed(name) !== undefined,
  );
}
