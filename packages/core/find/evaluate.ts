import {
  columnAt,
  CONTROL_NUMBER,
  FILING_TITLE,
  ISBN,
  ISSN,
  keysAt,
  LANGUAGE,
  LCCN,
  MATERIAL,
  RECORD_WORDS,
  wordsAt,
  YEAR,
} from '../access';
import { isBriefRecord } from '../editing';
import type { MarcRecord } from '../marc';
import { fold } from '../text';
import { compares, holdsBy, holdsWords, isSo, sameName } from './holds';
import type { FindLeaf, FindPlan } from './plan';

/** A record with what hangs on it, as it is looked at. */
export interface Findable {
  readonly id: number;
  readonly marc: MarcRecord;
  /** Values by the names of their columns. */
  readonly holdings: readonly Readonly<Record<string, string>>[];
  /** What a copy has in local fields stands under `local`, a line each. */
  readonly copies: readonly Readonly<Record<string, string>>[];
  /** Numbers of the headings that it carries, and of those that were merged into them. */
  readonly headings: readonly number[];
  /** Rules of the checks that find something in it. */
  readonly findings: readonly string[];
  readonly isSuppressed: boolean;
  /** When it was added, when and by whom it was changed last (UTC); null where nothing is known of it. */
  readonly entries: { readonly first: string; readonly last: string; readonly by: string } | null;
  /** Deliveries that it came with, and piles that it or a copy lies on. */
  readonly among: readonly { readonly of: 'delivery' | 'pile'; readonly id: number; readonly name: string }[];
}

const KEYS = { isbn: ISBN, issn: ISSN, lccn: LCCN, control: CONTROL_NUMBER };
const COLUMNS: Readonly<Record<string, (marc: MarcRecord) => string>> = {
  year: (marc) => columnAt(YEAR, marc),
  language: (marc) => columnAt(LANGUAGE, marc),
  material: (marc) => columnAt(MATERIAL, marc),
  sort: (marc) => columnAt(FILING_TITLE, marc),
};

/** Whether a record is found by a plan: the plain reading of it, against which every quicker one is held. */
export const isFound = (of: Findable, plan: FindPlan): boolean => holdsBy(plan, (leaf) => holds(of, leaf));

function holds(of: Findable, leaf: FindLeaf): boolean {
  switch (leaf.type) {
    case 'everything':
      return true;
    case 'number':
      return of.id === leaf.id;
    case 'heading':
      return of.headings.includes(leaf.id);
    case 'finding':
      return of.findings.includes(leaf.rule);
    case 'flag':
      return leaf.flag === 'brief' ? isBriefRecord(of.marc) : of.isSuppressed;
    case 'count':
      return compares((leaf.of === 'copy' ? of.copies : of.holdings).length, leaf.is, leaf.n);
    case 'amount':
      return of.copies.some((row) => {
        const amount = row[leaf.column] ?? '';
        return amount !== '' && compares(Number(amount), leaf.is, leaf.n);
      });
    case 'local':
      return of.copies.some((row) =>
        (row.local ?? '').split('\n').some((value) => value !== '' && isSo(fold(value), leaf)),
      );
    case 'key':
      return keysAt(KEYS[leaf.point], of.marc).some(({ key }) => key === leaf.key);
    case 'value': {
      const values =
        leaf.of === 'record'
          ? [COLUMNS[leaf.column]!(of.marc)]
          : (leaf.of === 'copy' ? of.copies : of.holdings).map((row) => row[leaf.column] ?? '');
      return values.some((v) => v !== '' && isSo(v, leaf));
    }
    case 'entry':
      return of.entries !== null && isSo(of.entries[leaf.which], leaf);
    case 'person':
      return of.entries !== null && sameName(of.entries.by, leaf.name);
    case 'among':
      return of.among.some((a) => a.of === leaf.of && (a.id === leaf.id || sameName(a.name, leaf.name)));
    case 'words':
      return hasWords(of.marc, leaf);
  }
}

const hasWords = (marc: MarcRecord, leaf: Extract<FindLeaf, { type: 'words' }>): boolean =>
  holdsWords(
    leaf,
    RECORD_WORDS.filter(
      (p) =>
        leaf.column === null || p.name === leaf.column || (leaf.column === 'public' && p.name !== 'local'),
    ).map((point) => wordsAt(point, marc)),
  );
