/** Versions of SRU that are answered (Library of Congress, SRU 1.1 and 1.2). */
export const ANSWERED_VERSIONS = ['1.1', '1.2'] as const;
export type AnsweredVersion = (typeof ANSWERED_VERSIONS)[number];
/** Records that one answer has at most, and where nothing is said. */
export const MOST_RECORDS = 50;
const USUAL_RECORDS = 10;
/** Terms that a scan gives at most, and where nothing is said. */
export const MOST_TERMS = 50;
const USUAL_TERMS = 20;

/** The schemas in which records are given, by their names and identifiers. */
export const SCHEMAS = {
  marcxml: 'info:srw/schema/1/marcxml-v1.1',
  dc: 'info:srw/schema/1/dc-v1.1',
} as const;
export type AnsweredSchema = keyof typeof SCHEMAS;

/** What is wrong with a request (SRU diagnostics list, `info:srw/diagnostic/1/…`). */
export interface Diagnostic {
  readonly code: number;
  readonly message: string;
  readonly details: string;
}

/** What another catalogue asks. */
export type SruAsked =
  | { readonly operation: 'explain'; readonly version: AnsweredVersion; readonly packing: Packing }
  | {
      readonly operation: 'searchRetrieve';
      readonly version: AnsweredVersion;
      readonly query: string;
      /** From 1. */
      readonly start: number;
      readonly most: number;
      readonly schema: AnsweredSchema;
      readonly packing: Packing;
    }
  | {
      readonly operation: 'scan';
      readonly version: AnsweredVersion;
      readonly clause: string;
      /** The place in the answer at which the term stands, from 0 (before the first) to one more than there are. */
      readonly position: number;
      readonly most: number;
    };
export type Packing = 'xml' | 'string';

/** A request that cannot be answered; `operation` says in which kind of answer that is told. */
export interface SruRefused {
  readonly refused: Diagnostic;
  readonly operation: SruAsked['operation'];
  readonly version: AnsweredVersion;
}

const OPERATIONS = ['explain', 'searchRetrieve', 'scan'] as const;

/** Reads the parameters of a request; without an operation it asks for the explain record. */
export function readSruRequest(said: ReadonlyMap<string, string>): SruAsked | SruRefused {
  const asked = said.get('operation') ?? 'explain';
  const operation = OPERATIONS.find((o) => o === asked) ?? 'explain';
  const version = ANSWERED_VERSIONS.find((v) => v === (said.get('version') ?? '1.2')) ?? '1.2';
  const refuse = (code: number, message: string, details: string): SruRefused => ({
    refused: { code, message, details },
    operation,
    version,
  });
  if (asked !== operation) return refuse(4, 'There is explain, searchRetrieve and scan.', asked);
  if (said.has('version') && said.get('version') !== version)
    return refuse(5, 'Versions 1.1 and 1.2 are answered.', '1.2');
  const packing = said.get('recordPacking') ?? 'xml';
  if (packing !== 'xml' && packing !== 'string')
    return refuse(71, 'Records are packed as xml or as string.', packing);
  if (operation === 'explain') return { operation, version, packing };
  const number = (name: string, usual: number, least: number): number | null => {
    const text = said.get(name);
    if (text === undefined || text === '') return usual;
    return /^\d{1,9}$/.test(text) && Number(text) >= least ? Number(text) : null;
  };
  const wrongNumber = (name: string) => refuse(6, `“${name}” is no number that can be.`, name);
  if (operation === 'scan') {
    const clause = said.get('scanClause') ?? '';
    if (clause === '') return refuse(7, 'scanClause is missing.', 'scanClause');
    const most = number('maximumTerms', USUAL_TERMS, 1);
    if (most === null) return wrongNumber('maximumTerms');
    const terms = Math.min(most, MOST_TERMS);
    const position = number('responsePosition', 1, 0);
    if (position === null) return wrongNumber('responsePosition');
    if (position > terms + 1)
      return refuse(120, 'The place in the answer is behind its end.', String(position));
    return { operation, version, clause, position, most: terms };
  }
  const query = said.get('query') ?? '';
  if (query === '') return refuse(7, 'query is missing.', 'query');
  if (said.get('sortKeys')) return refuse(80, 'Records are given in the order of their numbers.', 'sortKeys');
  const start = number('startRecord', 1, 1);
  if (start === null) return wrongNumber('startRecord');
  const most = number('maximumRecords', USUAL_RECORDS, 0);
  if (most === null) return wrongNumber('maximumRecords');
  const named = said.get('recordSchema') || 'marcxml';
  const schema = (['marcxml', 'dc'] as const).find((s) => s === named.toLowerCase() || SCHEMAS[s] === named);
  if (!schema) return refuse(66, 'Records are given as marcxml or dc.', named);
  return { operation, version, query, start, most: Math.min(most, MOST_RECORDS), schema, packing };
}
