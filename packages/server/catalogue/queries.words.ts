import type { KnownWord } from '@osier/core/find';
import type { Store } from '../store/store';

/** Whether any word of the library begins so. */
export const beginsAWord = async (store: Store, word: string): Promise<boolean> =>
  (await store.row('SELECT 1 AS n FROM record_vocabulary WHERE term >= :word AND term < :end LIMIT 1', {
    word,
    end: `${word}\u{10ffff}`,
  })) !== undefined;

/** Which of some texts are words of the library. */
export const wordsAmong = (store: Store, words: readonly string[]): Promise<KnownWord[]> =>
  store.rows<KnownWord>(
    'SELECT v.term AS word, v.doc AS records FROM json_each(:words) w CROSS JOIN record_vocabulary v ON v.term = w.value',
    { words: JSON.stringify(words) },
  );

/** Words of the library that begin so, of about a length; the first `atMost` by the alphabet. */
export const wordsBeginning = (
  store: Store,
  beginning: string,
  [least, most]: readonly [least: number, most: number],
  atMost: number,
): Promise<KnownWord[]> =>
  store.rows<KnownWord>(
    `SELECT term AS word, doc AS records FROM (SELECT term, doc FROM record_vocabulary WHERE term >= :beginning AND term < :end LIMIT :atMost)
      WHERE length(term) BETWEEN :least AND :most`,
    { beginning, end: `${beginning}\u{10ffff}`, least, most, atMost },
  );
