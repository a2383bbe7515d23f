import {
  HEADING_FORM,
  HEADING_NUMBER,
  HEADING_WORDS,
  headingText,
  identityOf,
  isEstablished,
  SEE_ALSO,
  type Distinct,
  type Heading,
} from '../headings';
import { describeKind } from './kind';

/** A controlled form with its authority record. */
export const heading = describeKind<Heading>()({
  kind: 'heading',
  noun: ['heading', 'headings'],
  label: headingText,
  table: 'headings',
  columns: {
    kind: 'text',
    key: 'text',
    text: 'text',
    merged_into: 'integer',
    vocabulary: 'text',
    established: 'integer',
  },
  computed: 2,
  compute: (h) => {
    const { kind, key, vocabulary } = identityOf(h);
    const established = isEstablished(h) ? 1 : 0;
    return { kind, key, text: headingText(h), merged_into: h.mergedInto, vocabulary, established };
  },
  access: { words: HEADING_WORDS, keys: [HEADING_FORM, HEADING_NUMBER, SEE_ALSO] },
  parents: [
    { kind: 'heading', field: 'mergedInto', column: 'merged_into', whenGone: 'holds', optional: true },
  ],
  once: [{ columns: ['vocabulary', 'kind', 'key'], among: { column: 'merged_into', is: null } }],
});

/** Two headings that a person has said are different, or has put by. */
export const distinct = describeKind<Distinct>()({
  kind: 'distinct',
  noun: ['pair kept apart', 'pairs kept apart'],
  label: ({ a, b }) => `headings ${a} and ${b}`,
  table: 'distinct_pairs',
  columns: { a: 'integer', b: 'integer', later: 'integer' },
  compute: ({ a, b, later }) => ({ a, b, later: later ? 1 : 0 }),
  parents: [
    { kind: 'heading', field: 'a', column: 'a', whenGone: 'holds' },
    { kind: 'heading', field: 'b', column: 'b', whenGone: 'holds' },
  ],
  once: [{ columns: ['a', 'b'] }],
});
