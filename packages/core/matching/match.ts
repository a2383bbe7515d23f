import { briefOf, recordKeys, type RecordKey } from '../access';
import { controlValue, type MarcRecord } from '../marc';
import { editDistance, fold } from '../text';

/** Why a held record is thought to be the same as an incoming one. */
export interface Match {
  readonly record: number;
  readonly by: 'isbn' | 'control';
  /** The key they share, as shown. */
  readonly key: string;
  /** A sentence when something speaks against it. */
  readonly doubt: string | null;
}

/** What is done with an incoming record. */
export type Decision = 'add' | 'replace' | 'skip';

/** The keys of an incoming record that decide a match: ISBN in 13 digits, control number with its organisation. */
export const matchKeys = (record: MarcRecord): RecordKey[] =>
  recordKeys(record).filter((k) => k.kind === 'isbn' || k.kind === 'control');

/** A held record that shares a key, with its title for the comparison. */
export interface Candidate {
  readonly record: number;
  readonly kind: 'isbn' | 'control';
  readonly key: string;
  readonly title: string;
}

/**
 * The matches of an incoming record among the candidates, surest first. The same number with a wholly different
 * title is doubtful: suppliers reuse ISBNs, and a control number without its organisation says little.
 */
export function findMatches(incoming: MarcRecord, candidates: readonly Candidate[]): Match[] {
  const title = briefOf(incoming).title;
  const organisation = controlValue(incoming, '003');
  const best = new Map<number, Match>();
  for (const c of candidates) {
    const unlike = !titlesAgree(title, c.title);
    const doubt = unlike
      ? `The ${c.kind === 'isbn' ? 'ISBN' : 'control number'} is the same, the title is not: “${c.title}”.`
      : null;
    const bare = c.kind === 'control' && c.key.startsWith(':') && !organisation;
    if (bare && unlike) continue;
    const match: Match = { record: c.record, by: c.kind, key: c.key.replace(/^:/, ''), doubt };
    const known = best.get(c.record);
    if (!known || (known.doubt && !doubt) || (known.by === 'control' && c.kind === 'isbn' && !doubt))
      best.set(c.record, match);
  }
  return [...best.values()].sort((a, b) => Number(!!a.doubt) - Number(!!b.doubt) || a.record - b.record);
}

/** Whether two titles can be one: the shorter begins the longer, or they differ by few letters. */
export function titlesAgree(a: string, b: string): boolean {
  const [x, y] = [fold(a), fold(b)].sort((p, q) => p.length - q.length) as [string, string];
  if (x === '' || y.startsWith(x)) return true;
  const limit = Math.max(2, Math.floor(x.length / 5));
  return editDistance(x, y.slice(0, x.length + limit), limit * 2) <= limit * 2;
}

/** What is proposed before a person decides: new ones are added, held ones and doubtful ones left alone. */
export function proposedDecision(matches: readonly Match[], repeats: number | null): Decision {
  return matches.length === 0 && repeats === null ? 'add' : 'skip';
}
