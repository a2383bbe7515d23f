import { meantWord, oneLetterOff } from '@osier/core/find';
import { foldedWords } from '@osier/core/text';
import type { Store } from '../store/store';
import { withWords } from './queries.find';
import { hitsOf } from './queries.hits';
import { beginsAWord, wordsAmong, wordsBeginning } from './queries.words';

/** Of more words nothing is guessed. */
const MOST_WORDS = 12;
/** Words with the same beginning that are looked at. */
const MOST_LIKE = 5000;
const BEGINNING = 3;

/** What may have been meant by words that find nothing: the same with our own words in place of those that we have not; null where that finds nothing either. */
export async function meantBy(store: Store, text: string): Promise<string | null> {
  const typed = foldedWords(text);
  if (typed.length === 0 || typed.length > MOST_WORDS) return null;
  const words: string[] = [];
  for (const word of typed)
    words.push((await beginsAWord(store, word)) ? word : ((await nearWord(store, word)) ?? word));
  if (words.join(' ') === typed.join(' ')) return null;
  return (await hitsOf(store, withWords(words), {}, 1)).n > 0 ? words.join(' ') : null;
}

/** A word of ours that is near: one letter off anywhere, else two behind the same beginning. */
async function nearWord(store: Store, word: string): Promise<string | null> {
  const near = meantWord(word, await wordsAmong(store, oneLetterOff(word)));
  if (near !== null || [...word].length <= BEGINNING) return near;
  const lengths = [word.length - 2, word.length + 2] as const;
  const beginning = [...word].slice(0, BEGINNING).join('');
  return meantWord(word, await wordsBeginning(store, beginning, lengths, MOST_LIKE));
}
