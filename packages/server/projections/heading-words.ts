import { HEADING_WORDS, type Heading } from '@osier/core/headings';
import { indexHeadingWords } from '../store/index-records';
import type { Projection } from './projection';

const AT_ONCE = 500;

/** The words of headings by column. */
export const headingWords: Projection = {
  name: 'heading-words',
  version: HEADING_WORDS.reduce((n, p) => n + p.version, 0),
  of: ['heading'],
  apply: (store, changes, tx) =>
    indexHeadingWords(store, new Map(changes.of('heading').map((c) => [c.id, c.after])), tx),
  async rebuild(store) {
    for (let after = 0; ;) {
      const held = await store.select('heading', `id > :after ORDER BY id LIMIT ${AT_ONCE}`, { after });
      const last = held.at(-1);
      if (last === undefined) return;
      const written = new Map(held.map((h): [number, Heading] => [h.id, h.value]));
      await store.write((tx) => indexHeadingWords(store.within(tx), written, tx));
      after = last.id;
    }
  },
};
