/** Rules of checks by the names that they had before, in stores, recipe files and addresses. */
export const RENAMED_RULES: Readonly<Record<string, string>> = {
  'several-main-entries': 'multiple-main-entries',
  'twice-encoded': 'double-encoded',
  'not-composed': 'decomposed-letter',
  'isbn-form': 'isbn-invalid',
  'isbn-plain': 'isbn-hyphens',
  'isbn-twice': 'isbn-duplicate',
  'issn-form': 'issn-invalid',
  'lccn-form': 'lccn-invalid',
  'name-marks': 'name-punctuation',
  'title-marks': 'title-punctuation',
  'physical-form': 'physical-punctuation',
  'same-name-twice': 'duplicate-name',
  'publication-twice': 'duplicate-publication',
  'link-twice': 'duplicate-link',
  'link-form': 'link-invalid',
  'coded-and-free': 'uncontrolled-duplicate',
  'dropped-subdivision': 'deleted-subdivision',
  'subdivision-in-text': 'uncoded-subdivision',
  'parts-order': 'title-order',
  'country-against-place': 'country-and-place',
  'date-against-text': 'date-and-text',
  'form-against-description': 'form-and-description',
  'language-against-041': 'language-and-041',
  'language-against-240': 'language-and-240',
  'type-against-content': 'type-and-content',
  'series-traced': 'series-tracing',
  'not-defined': 'undefined-tag',
  'not-repeatable': 'repeated-field',
};

/** The name that a rule has now. */
export const ruleNow = (rule: string): string =>
  Object.hasOwn(RENAMED_RULES, rule) ? RENAMED_RULES[rule]! : rule;
