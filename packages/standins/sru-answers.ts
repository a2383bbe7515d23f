import { marcXmlElement, type MarcRecord } from '@osier/core/marc';
import { isCql, parseCql } from '@osier/core/query';
import type { ServerResponse } from 'node:http';
import { isFoundBy, NotTaken } from './cql-filter';

/** How answers are written. */
export interface AnswerHabit {
  /** The prefix of the elements of its answers, with its colon. */
  readonly prefix: string;
  /** Records packed as text in the answer. */
  readonly isPacked: boolean;
}

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** Namespaces of answers by the version of SRU. */
export const NAMESPACES: Readonly<Record<string, string>> = {
  '2.0': 'http://docs.oasis-open.org/ns/search-ws/sruResponse',
  '1.1': 'http://www.loc.gov/zing/srw/',
  '1.2': 'http://www.loc.gov/zing/srw/',
};

/** What is found among some records, as a server of SRU 1.1, 1.2 or 2.0 answers. */
export function sruSearchAnswer(
  { prefix: p, isPacked }: AnswerHabit,
  records: readonly MarcRecord[],
  said: URLSearchParams,
): string {
  const version = said.get('version') ?? '2.0';
  const from = Math.max(1, Number(said.get('startRecord') ?? 1));
  const most = Math.min(50, Number(said.get('maximumRecords') ?? 10));
  const whole = (inside: string) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<${p}searchRetrieveResponse xmlns${p && `:${p.slice(0, -1)}`}="${NAMESPACES[version] ?? NAMESPACES['1.1']!}">${version === '2.0' ? '' : `<${p}version>${version}</${p}version>`}${inside}</${p}searchRetrieveResponse>\n`;
  try {
    const read = parseCql(said.get('query') ?? '');
    if (!isCql(read)) throw new NotTaken(10, 'Query syntax error', read.problem);
    const found = records.filter((r) => isFoundBy(r, read.node));
    const shown = found.slice(from - 1, from - 1 + most).map((r, i) => {
      const marc = marcXmlElement(r).replace('<record>', '<record xmlns="http://www.loc.gov/MARC21/slim">');
      return `<${p}record><${p}recordSchema>info:srw/schema/1/marcxml-v1.1</${p}recordSchema><${p}recordPacking>${isPacked ? 'string' : 'xml'}</${p}recordPacking><${p}recordData>${isPacked ? escaped(marc) : marc}</${p}recordData><${p}recordPosition>${from + i}</${p}recordPosition></${p}record>`;
    });
    return whole(
      `<${p}numberOfRecords>${found.length}</${p}numberOfRecords>${shown.length ? `<${p}records>${shown.join('')}</${p}records>` : ''}`,
    );
  } catch (error) {
    if (!(error instanceof NotTaken)) throw error;
    return whole(
      `<${p}numberOfRecords>0</${p}numberOfRecords><${p}diagnostics>${diagnostic(error.code, error.message, error.details)}</${p}diagnostics>`,
    );
  }
}

/** A diagnostic of SRU. */
export const diagnostic = (code: number, message: string, details: string): string =>
  `<diagnostic xmlns="http://www.loc.gov/zing/srw/diagnostic/"><uri>info:srw/diagnostic/1/${code}</uri><details>${escaped(details)}</details><message>${escaped(message)}</message></diagnostic>`;

/** Sends XML. */
export function sendXml(res: ServerResponse, xml: string): void {
  res.writeHead(200, { 'content-type': 'text/xml; charset=utf-8' }).end(xml);
}
