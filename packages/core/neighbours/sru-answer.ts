import { SaxesParser } from 'saxes';
import { encodeUtf8, recordReader, type ReadRecord } from '../marc';
import { answerText } from './answer-text';
import { readLoosely } from './read-loosely';

/** What a server says is wrong (SRU diagnostics, `info:srw/diagnostic/1/…`). */
export interface SruDiagnostic {
  /** The last part of its identifier: `10` for a query that cannot be read. */
  readonly code: string;
  readonly message: string;
  readonly details: string;
}

/** An answer to a search. */
export interface SruAnswer {
  /** How many records there are in all; null where it does not say. */
  readonly count: number | null;
  readonly records: readonly ReadRecord[];
  readonly diagnostics: readonly SruDiagnostic[];
  /** Why it cannot be read as an answer at all, as a sentence; null where it can. */
  readonly problem: string | null;
  /** What was put right in reading it, as sentences. */
  readonly told: readonly string[];
}

const NOTHING: SruAnswer = { count: null, records: [], diagnostics: [], problem: null, told: [] };
const local = (name: string): string => name.slice(name.indexOf(':') + 1);

/**
 * Reads a searchRetrieve response of SRU 1.1 to 2.0, with whatever prefix its elements have. Records packed as XML or as text are read;
 * a record whose XML is broken does not spoil the others. Nothing is expanded but the entities of XML itself.
 */
export function readSruAnswer(bytes: Uint8Array): SruAnswer {
  if (bytes.length === 0) return { ...NOTHING, problem: 'The answer is empty.' };
  const { text, told } = answerText(bytes);
  const said = told === null ? [] : [told];
  if (/<!DOCTYPE/i.test(text.slice(0, 100_000)) && !/<html/i.test(text.slice(0, 2000)))
    return { ...NOTHING, problem: 'The answer has a document type definition; such answers are not read.' };
  const outline = outlineOf(text);
  if (outline.root !== 'searchRetrieveResponse')
    return { ...NOTHING, told: said, problem: notAnswer(outline.root, text) };
  const { count, diagnostics, packed } = outline;
  const records = (packed.length ? packed.map(asXml) : [text]).flatMap(recordsIn);
  const readable = records.filter((r) => r.record !== null);
  const unread = records.length - readable.length - outline.surrogates;
  return {
    count,
    records: readable,
    diagnostics,
    problem: outline.isClosed || readable.length || diagnostics.length ? null : 'The answer breaks off.',
    told: [
      ...said,
      ...(outline.isClosed ? [] : ['The answer breaks off; what there is of it was read.']),
      ...(unread > 0
        ? [`${unread === 1 ? 'One record' : `${unread} records`} of the answer could not be read.`]
        : []),
    ],
  };
}

function notAnswer(root: string, text: string): string {
  if (/<html/i.test(text.slice(0, 2000)))
    return 'The answer is a web page. Is the address that of the SRU service?';
  if (root === 'explainResponse') return 'The server explained itself instead of searching.';
  return root
    ? `The answer is XML, but no answer of SRU (it is a “${root.slice(0, 60)}”).`
    : 'The answer is no XML.';
}

const asXml = (text: string): string => `<?xml version="1.0" encoding="UTF-8"?>\n${text}`;
const DECLARED = /^(\ufeff?<\?xml[^>]*?)\s+encoding\s*=\s*["'][\w.-]+["']/i;

/** The records in a text of XML; what a file may have in its records may be in those of an answer too. */
function recordsIn(text: string): ReadRecord[] {
  const reader = recordReader('marcxml');
  return [...reader.push(encodeUtf8(text.replace(DECLARED, '$1 encoding="UTF-8"'))), ...reader.end()];
}

/** What an answer has around its records. */
interface Outline {
  readonly root: string;
  readonly isClosed: boolean;
  readonly count: number | null;
  readonly diagnostics: readonly SruDiagnostic[];
  /** Records that are packed as text. */
  readonly packed: readonly string[];
  /** Diagnostics that stand in the place of a record. */
  readonly surrogates: number;
}

function outlineOf(text: string): Outline {
  let [root, count, surrogates, isClosed]: [string, number | null, number, boolean] = ['', null, 0, false];
  const path: string[] = [];
  const diagnostics: SruDiagnostic[] = [];
  const packed: string[] = [];
  let said: { uri: string; message: string; details: string } | null = null;
  let content = '';
  const parser = new SaxesParser({ xmlns: false });
  parser.on('opentag', ({ name }) => {
    const element = local(name);
    if (path.length === 0 && root === '') root = element;
    path.push(element);
    content = '';
    if (element === 'diagnostic') said = { uri: '', message: '', details: '' };
  });
  const more = (t: string) => (content += t);
  parser.on('text', more);
  parser.on('cdata', more);
  parser.on('closetag', ({ name }) => {
    const element = local(name);
    if (path.length === 1 && element === root) isClosed = true;
    if (element === 'numberOfRecords' && path.at(-2) === root && /^\s*\d+\s*$/.test(content))
      count = Number(content);
    if (said && (element === 'uri' || element === 'message' || element === 'details'))
      said[element] = content.trim();
    if (element === 'diagnostic' && said) {
      const { uri, message, details } = said;
      diagnostics.push({ code: /[^/]*$/.exec(uri)![0], message, details });
      if (path.includes('recordData')) surrogates++;
      said = null;
    }
    if (
      element === 'recordData' &&
      /^\s*(<\?xml[^>]*>\s*)?<([\w.-]+:)?(record|collection)[\s>]/.test(content)
    )
      packed.push(content);
    path.pop();
    content = '';
  });
  // What is broken within a record is told with the record.
  readLoosely(parser, text);
  return { root, isClosed, count, diagnostics, packed, surrogates };
}

/** What a diagnostic means for who asked (SRU 1.2, list of diagnostics). */
export function diagnosticText({ code, message, details }: SruDiagnostic): string {
  const said = [message, details].filter(Boolean).join(': ').slice(0, 300);
  const meant = DIAGNOSTICS[code];
  return [meant ?? `It answers with diagnostic ${code || 'without a number'}.`, said && `It says: ${said}.`]
    .filter(Boolean)
    .join(' ');
}

const DIAGNOSTICS: Readonly<Record<string, string>> = {
  '1': 'It has a fault of its own.',
  '2': 'It is not working for now.',
  '3': 'It refuses the sign-on.',
  '4': 'It does not do what was asked of it.',
  '5': 'It does not speak this version of SRU.',
  '10': 'It could not read the query.',
  '15': 'It does not know the context set of an index.',
  '16': 'It does not know an index.',
  '35': 'It searches no empty terms.',
  '60': 'It found too many records.',
  '61': 'The first record asked for is behind the last.',
  '66': 'It does not have records in this schema.',
  '67': 'It does not have the record in this schema.',
};
