// What core says matches, the full-text index finds.
import { TITLE_WORDS, wordsAt } from '@osier/core/access';
import { creation } from '@osier/core/changes';
import { field } from '@osier/core/marc';
import { foldedWords } from '@osier/core/text';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { withWords } from '../catalogue/queries.find';
import { TESTED } from '../testing/tested';
import { commit } from './commit';
import { openEmpty } from '../testing/library';
import type { Store } from './store';

let folder: string;
let store: Store;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-words-'));
  store = await openEmpty(folder);
});
afterAll(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});

const finds = async (words: readonly string[]): Promise<number[]> => {
  const { sql, params } = withWords(words);
  return (await store.rows<{ id: number }>(sql, { ...params })).map((r) => r.id);
};
const marc = (title: string) => ({
  leader: '00000nam a2200000 i 4500',
  fields: [field('245', '00', 'a', title)],
});
let next = 0;
const title = fc.oneof(
  fc.string({ unit: 'grapheme', minLength: 1, maxLength: 30 }),
  fc.string({ unit: 'binary', minLength: 1, maxLength: 30 }),
  fc.constantFrom(
    'Œuvres d’Ægir',
    'Łódź, 2³ Straßen',
    'Война и мир',
    '源氏物語 卷1',
    'ʻAmmān al-Qadīmah',
    'Ⅳ. ½ ﬁn',
    // Letters that Unicode took for marks, or did not have, in 2012.
    'ᦰᦱ ᦵᦲ',
    'Ꞛꞛ 𞤀𞤁',
  ),
);

test('every word of a title, and every beginning of one, finds the record that core folds it for', async () => {
  await fc.assert(
    fc.asyncProperty(title, fc.nat(), async (text, at) => {
      const id = ++next;
      await commit(store, { did: TESTED, person: 1, changes: [creation('record', id, marc(text))] });
      const words = foldedWords(text);
      expect(wordsAt(TITLE_WORDS, marc(text)).split(' ').filter(Boolean)).toEqual(words);
      if (words.length === 0) return;
      expect([text, await finds(words)]).toEqual([text, expect.arrayContaining([id])]);
      const word = [...words[at % words.length]!];
      // A single letter of ASCII begins too much; it is looked for as a word.
      const beginning = word.slice(0, Math.min(word.length, 2 + (at % word.length))).join('');
      expect([text, beginning, await finds([beginning])]).toEqual([
        text,
        beginning,
        expect.arrayContaining([id]),
      ]);
    }),
    { numRuns: 300 },
  );
}, 120_000);

test('a word that core does not see in it does not find it', async () => {
  await commit(store, {
    did: TESTED,
    person: 1,
    changes: [creation('record', ++next, marc('Hazel hurdles'))],
  });
  expect(await finds(['azel'])).not.toContain(next);
  expect(await finds(['hazels'])).not.toContain(next);
  expect(await finds(['hazel', 'willow'])).not.toContain(next);
});
