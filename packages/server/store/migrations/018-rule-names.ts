/** Rules of checks by the names that they had, and those that they have from here on. */
const RENAMED: readonly (readonly [was: string, is: string])[] = [
  ['several-main-entries', 'multiple-main-entries'],
  ['twice-encoded', 'double-encoded'],
  ['not-composed', 'decomposed-letter'],
  ['isbn-form', 'isbn-invalid'],
  ['isbn-plain', 'isbn-hyphens'],
  ['isbn-twice', 'isbn-duplicate'],
  ['issn-form', 'issn-invalid'],
  ['lccn-form', 'lccn-invalid'],
  ['name-marks', 'name-punctuation'],
  ['title-marks', 'title-punctuation'],
  ['physical-form', 'physical-punctuation'],
  ['same-name-twice', 'duplicate-name'],
  ['publication-twice', 'duplicate-publication'],
  ['link-twice', 'duplicate-link'],
  ['link-form', 'link-invalid'],
  ['coded-and-free', 'uncontrolled-duplicate'],
  ['dropped-subdivision', 'deleted-subdivision'],
  ['subdivision-in-text', 'uncoded-subdivision'],
  ['parts-order', 'title-order'],
  ['country-against-place', 'country-and-place'],
  ['date-against-text', 'date-and-text'],
  ['form-against-description', 'form-and-description'],
  ['language-against-041', 'language-and-041'],
  ['language-against-240', 'language-and-240'],
  ['type-against-content', 'type-and-content'],
  ['series-traced', 'series-tracing'],
  ['not-defined', 'undefined-tag'],
  ['not-repeatable', 'repeated-field'],
];
const was = RENAMED.map(([rule]) => `'${rule}'`).join(', ');
const renamed = `CASE rule ${RENAMED.map(([from, to]) => `WHEN '${from}' THEN '${to}'`).join(' ')} ELSE rule END`;
/** A text of JSON in which a rule stands as a word of its own. */
const inText = (column: string): string =>
  RENAMED.reduce((text, [from, to]) => `replace(${text}, '"${from}"', '"${to}"')`, column);

/** What is kept by the rule of a check goes on under its new name. */
export const ruleNames: readonly string[] = [
  `UPDATE record_findings SET rule = ${renamed} WHERE rule IN (${was})`,
  `UPDATE finding_counts SET rule = ${renamed} WHERE rule IN (${was})`,
  `UPDATE incoming_fields SET findings = ${inText('findings')} WHERE findings <> '[]'`,
  `UPDATE incoming_read SET before = ${inText('before')} WHERE before <> '[]'`,
  `UPDATE settings SET value = ${inText('value')}`,
  `UPDATE recipes SET value = ${inText('value')}`,
];
