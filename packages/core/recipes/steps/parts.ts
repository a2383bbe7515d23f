/** The fields that a step is for. */
export const tags = { key: 'tags', kind: 'tags', name: 'in fields' } as const;
/** One field. */
export const tag = { key: 'tag', kind: 'tag', name: 'field' } as const;
/** The field that something goes to. */
export const to = { key: 'to', kind: 'tag', name: 'to field' } as const;
/** One subfield. */
export const code = { key: 'code', kind: 'code', name: 'subfield' } as const;
/** The subfield that something goes to. */
export const toCode = { key: 'toCode', kind: 'code', name: 'to subfield' } as const;
/** Several subfields. */
export const codes = { key: 'codes', kind: 'codes', name: 'subfields (none: all)' } as const;
/** Which of several. */
export const which = { key: 'which', kind: 'which', name: 'which of them' } as const;
/** What the text must be like. */
export const match = { key: 'match', kind: 'match', name: 'whose text has', optional: true } as const;
/** A subdivision of subject headings. */
export const subdivision = { key: 'text', kind: 'text', name: 'subdivision', wanted: true } as const;
