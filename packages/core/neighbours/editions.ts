import { DEFAULT_RULE, titlesAgree, weigh, type Description } from '../matching';

/** Records of one edition; numbers are places in the list that was grouped. */
export interface EditionGroup {
  /** The best first. */
  readonly records: readonly number[];
}

/** Editions of one work. */
export interface WorkGroup {
  readonly editions: readonly EditionGroup[];
}

/** Groups records that were found by work and edition, the best record first in each, the best group first in all. */
export function groupedByWork(
  found: readonly { readonly description: Description; readonly score: number }[],
): WorkGroup[] {
  const byScore = found.map((_, i) => i).sort((a, b) => found[b]!.score - found[a]!.score || a - b);
  const editions: number[][] = [];
  for (const i of byScore) {
    const same = editions.find((group) =>
      group.some((j) => isSameEdition(found[i]!.description, found[j]!.description)),
    );
    if (same) same.push(i);
    else editions.push([i]);
  }
  const works: number[][][] = [];
  for (const edition of editions) {
    const first = found[edition[0]!]!.description;
    const work = works.find((group) => isSameWork(first, found[group[0]![0]!]!.description));
    if (work) work.push(edition);
    else works.push([edition]);
  }
  return works.map((group) => ({ editions: group.map((records) => ({ records })) }));
}

/** Whether matching is sure of two records; what speaks against it makes them two. */
const isSameEdition = (a: Description, b: Description): boolean =>
  weigh(a, b, 0, DEFAULT_RULE)?.sure ?? false;

/** The same title by the same surname, whatever the edition. */
function isSameWork(a: Description, b: Description): boolean {
  const surname = (d: Description) => d.author.split(' ')[0] ?? '';
  const named = surname(a) !== '' && surname(b) !== '';
  return titlesAgree(a, b) && a.part === b.part && (!named || surname(a) === surname(b));
}
