/** Words of headings by column, so that a heading is found by any of its forms. */
export const headingWords: readonly string[] = [
  `CREATE VIRTUAL TABLE heading_words USING fts5 (form, seefrom, seealso, note, identifier, content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 0 categories 'L* M* N* P* S* C*'", prefix='2 3')`,
];
