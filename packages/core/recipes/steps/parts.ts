/** What several kinds of step ask for. */
export const PARTS = {
  /** The fields that a step is for. */
  tags: { key: 'tags', kind: 'tags', name: 'in fields' },
  /** One field. */
  tag: { key: 'tag', kind: 'tag', name: 'field' },
  /** The field that something goes to. */
  to: { key: 'to', kind: 'tag', name: 'to field' },
  /** One subfield. */
  code: { key: 'code', kind: 'code', name: 'subfield' },
  /** The subfield that something goes to. */
  toCode: { key: 'toCode', kind: 'code', name: 'to subfield' },
  /** Several subfields. */
  codes: { key: 'codes', kind: 'codes', name: 'subfields (none: all)' },
  /** Which of several. */
  which: { key: 'which', kind: 'which', name: 'which of them' },
  /** What the text must be like. */
  match: { key: 'match', kind: 'match', name: 'whose text has', optional: true },
  /** A subdivision of subject headings. */
  subdivision: { key: 'text', kind: 'text', name: 'subdivision', wanted: true },
} as const;
