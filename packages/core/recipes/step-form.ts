import type { StepBody } from './step';

type Kind = StepBody['step'];
type KeysOf<K extends Kind> = Exclude<keyof Extract<StepBody, { step: K }>, 'step'> & string;

/** How a part of a step is written. */
export type StepPartKind =
  | 'tags'
  | 'tag'
  | 'code'
  | 'codes'
  | 'text'
  | 'number'
  | 'flag'
  | 'which'
  | 'choice'
  | 'match'
  | 'table'
  | 'field'
  | 'built parts'
  | 'check';

/** One thing that a person fills in for a step. */
export interface StepPart<Key extends string = string> {
  readonly key: Key;
  readonly kind: StepPartKind;
  readonly name: string;
  /** It may be left out. */
  readonly optional?: boolean;
  /** What can be chosen, with how it is called. */
  readonly choices?: readonly (readonly [value: string | number, name: string])[];
}

/** What a kind of step is called, what it asks for, and a first value to begin from. */
export interface StepFormSpec<K extends Kind = Kind> {
  readonly name: string;
  readonly parts: readonly StepPart<KeysOf<K>>[];
  readonly first: Extract<StepBody, { step: K }>;
}

const tags = { key: 'tags', kind: 'tags', name: 'in fields' } as const;
const code = { key: 'code', kind: 'code', name: 'subfield' } as const;
const which = { key: 'which', kind: 'which', name: 'which of them' } as const;
const match = { key: 'match', kind: 'match', name: 'whose text has', optional: true } as const;
const codes = { key: 'codes', kind: 'codes', name: 'subfields (none: all)' } as const;
const to = { key: 'to', kind: 'tag', name: 'to field' } as const;
const tag = { key: 'tag', kind: 'tag', name: 'field' } as const;

/** Every kind of step as a form, in the order in which they are offered. */
export const STEP_FORMS: { readonly [K in Kind]: StepFormSpec<K> } = {
  'add-field': {
    name: 'add a field',
    parts: [
      { key: 'field', kind: 'field', name: 'the field' },
      { key: 'ifAbsent', kind: 'flag', name: 'only if there is none yet' },
    ],
    first: {
      step: 'add-field',
      field: { tag: '500', ind1: ' ', ind2: ' ', subfields: [{ code: 'a', value: '' }] },
      ifAbsent: true,
    },
  },
  'delete-field': {
    name: 'take fields away',
    parts: [tags, which, match],
    first: { step: 'delete-field', tags: '9..', which: 'all' },
  },
  'copy-field': {
    name: 'copy fields',
    parts: [tags, to],
    first: { step: 'copy-field', tags: '100', to: '700' },
  },
  'move-field': {
    name: 'make fields others',
    parts: [tags, to],
    first: { step: 'move-field', tags: '440', to: '490' },
  },
  'set-subfield': {
    name: 'set a subfield',
    parts: [
      tags,
      code,
      { key: 'value', kind: 'text', name: 'to' },
      { key: 'ifAbsent', kind: 'flag', name: 'only if it is not there' },
    ],
    first: { step: 'set-subfield', tags: '040', code: 'd', value: '', ifAbsent: false },
  },
  'delete-subfield': {
    name: 'take subfields away',
    parts: [tags, code, which, match],
    first: { step: 'delete-subfield', tags: '650', code: '0', which: 'all' },
  },
  'copy-subfield': {
    name: 'copy subfields',
    parts: [tags, code, { key: 'toCode', kind: 'code', name: 'to subfield' }],
    first: { step: 'copy-subfield', tags: '020', code: 'a', toCode: 'z' },
  },
  'move-subfield': {
    name: 'make subfields others',
    parts: [tags, code, { key: 'toCode', kind: 'code', name: 'to subfield' }],
    first: { step: 'move-subfield', tags: '020', code: 'c', toCode: 'q' },
  },
  'set-indicator': {
    name: 'set an indicator',
    parts: [
      tags,
      {
        key: 'which',
        kind: 'choice',
        name: 'indicator',
        choices: [
          [1, 'first'],
          [2, 'second'],
        ],
      },
      { key: 'value', kind: 'text', name: 'to' },
      { key: 'from', kind: 'text', name: 'where it is', optional: true },
    ],
    first: { step: 'set-indicator', tags: '650', which: 2, value: '0' },
  },
  'replace-text': {
    name: 'replace text',
    parts: [
      tags,
      codes,
      { key: 'match', kind: 'match', name: 'text' },
      { key: 'by', kind: 'text', name: 'by' },
    ],
    first: { step: 'replace-text', tags: '300', codes: 'a', match: { find: 'p.' }, by: 'pages' },
  },
  'change-case': {
    name: 'change capitals',
    parts: [
      tags,
      codes,
      {
        key: 'to',
        kind: 'choice',
        name: 'to',
        choices: [
          ['sentence', 'as a sentence'],
          ['title', 'capital words'],
          ['lower', 'small letters'],
          ['upper', 'capitals'],
        ],
      },
    ],
    first: { step: 'change-case', tags: '245', codes: 'ab', to: 'sentence' },
  },
  'end-mark': {
    name: 'set the end mark',
    parts: [tags, { key: 'mark', kind: 'text', name: 'mark (none: taken away)' }],
    first: { step: 'end-mark', tags: '500', mark: '.' },
  },
  'capital-after-article': {
    name: 'first word after the initial article',
    parts: [tag],
    first: { step: 'capital-after-article', tag: '245' },
  },
  'drop-subdivision': {
    name: 'drop a subdivision',
    parts: [{ key: 'text', kind: 'text', name: 'subdivision' }],
    first: { step: 'drop-subdivision', text: '' },
  },
  'rename-subdivision': {
    name: 'rename a subdivision',
    parts: [
      { key: 'text', kind: 'text', name: 'subdivision' },
      { key: 'by', kind: 'text', name: 'by' },
    ],
    first: { step: 'rename-subdivision', text: '', by: '' },
  },
  'drop-duplicate-subjects': {
    name: 'drop subject headings that are there twice',
    parts: [],
    first: { step: 'drop-duplicate-subjects' },
  },
  'drop-incomplete-headings': {
    name: 'drop subject headings without a word',
    parts: [],
    first: { step: 'drop-incomplete-headings' },
  },
  'sort-fields': { name: 'sort the fields', parts: [], first: { step: 'sort-fields' } },
  'set-position': {
    name: 'set positions of leader or control field',
    parts: [
      {
        key: 'tag',
        kind: 'choice',
        name: 'in',
        choices: [
          ['LDR', 'leader'],
          ['006', '006'],
          ['007', '007'],
          ['008', '008'],
        ],
      },
      { key: 'from', kind: 'number', name: 'from position' },
      { key: 'text', kind: 'text', name: 'to' },
    ],
    first: { step: 'set-position', tag: 'LDR', from: 18, text: 'i' },
  },
  'map-codes': {
    name: 'translate codes by a table',
    parts: [tags, code, { key: 'table', kind: 'table', name: 'table' }],
    first: { step: 'map-codes', tags: '852', code: 'b', table: {} },
  },
  'cut-class': {
    name: 'cut the class number to the house’s decimals',
    parts: [tag],
    first: { step: 'cut-class', tag: '082' },
  },
  'call-number': {
    name: 'build the call number in house style',
    parts: [
      {
        key: 'scheme',
        kind: 'choice',
        name: 'from',
        choices: [
          ['dewey', 'Dewey'],
          ['lc', 'LC'],
          ['nlm', 'NLM'],
        ],
      },
    ],
    first: { step: 'call-number', scheme: 'dewey' },
  },
  'build-field': {
    name: 'build a field from others',
    parts: [
      tag,
      { key: 'indicators', kind: 'text', name: 'indicators' },
      { key: 'parts', kind: 'built parts', name: 'subfields' },
    ],
    first: {
      step: 'build-field',
      tag: '590',
      indicators: '  ',
      parts: [{ code: 'a', template: '{245$a}' }],
    },
  },
  'apply-fixes': {
    name: 'apply the safe fixes of a check',
    parts: [{ key: 'rule', kind: 'check', name: 'check' }],
    first: { step: 'apply-fixes', rule: '' },
  },
};
