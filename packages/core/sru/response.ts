import { FIND_INDEXES } from '../find';
import { marcXmlElement, type MarcRecord } from '../marc';
import { dublinCore } from './dublin-core';
import {
  ANSWERED_VERSIONS,
  MOST_RECORDS,
  SCHEMAS,
  type AnsweredSchema,
  type AnsweredVersion,
  type Diagnostic,
  type Packing,
} from './request';

/** Characters that no XML document may have (XML 1.0, 2.2). */

const FORBIDDEN =
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
const escaped = (text: string): string =>
  text
    .replace(FORBIDDEN, '\ufffd')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');
const element = (name: string, text: string | number): string =>
  `<${name}>${escaped(String(text))}</${name}>`;

/** Halves of characters outside the first plane that stand alone. */
const LONE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const whole = (name: string, version: AnsweredVersion, inside: string): string =>
  `${HEAD}<zs:${name} xmlns:zs="http://www.loc.gov/zing/srw/">${element('zs:version', version)}${inside.replace(LONE, '\ufffd')}</zs:${name}>\n`;

const diagnostics = (of: readonly Diagnostic[]): string =>
  of.length === 0
    ? ''
    : `<zs:diagnostics>${of
        .map(
          ({ code, message, details }) =>
            `<diagnostic xmlns="http://www.loc.gov/zing/srw/diagnostic/">${element('uri', `info:srw/diagnostic/1/${code}`)}${element('details', details)}${element('message', message)}</diagnostic>`,
        )
        .join('')}</zs:diagnostics>`;

/** A record as it stands in an answer. */
function recordElement(
  version: AnsweredVersion,
  { schema, packing }: Pick<Retrieved, 'schema' | 'packing'>,
  { id, marc }: Retrieved['records'][number],
  position: number,
): string {
  const data = dataOf(marc, schema);
  // What it is called here is told from SRU 1.2 on.
  const name = version === '1.1' ? '' : element('zs:recordIdentifier', id);
  return `<zs:record>${element('zs:recordSchema', SCHEMAS[schema])}${element('zs:recordPacking', packing)}<zs:recordData>${packing === 'string' ? escaped(data) : data}</zs:recordData>${name}${element('zs:recordPosition', position)}</zs:record>`;
}

const MARCXML = ' xmlns="http://www.loc.gov/MARC21/slim"';
/** The MARCXML or Dublin Core element of a record. */
const dataOf = (record: MarcRecord, schema: AnsweredSchema): string =>
  schema === 'marcxml'
    ? marcXmlElement(record).replace('<record', `<record${MARCXML}`).trim()
    : `<srw_dc:dc xmlns:srw_dc="info:srw/schema/1/dc-schema" xmlns="http://purl.org/dc/elements/1.1/">${dublinCore(
        record,
      )
        .map(([name, value]) => element(name, value))
        .join('')}</srw_dc:dc>`;

/** What a search found. */
export interface Retrieved {
  readonly count: number;
  /** Those of the page, from `start` on. */
  readonly records: readonly { readonly id: number; readonly marc: MarcRecord }[];
  readonly start: number;
  readonly schema: AnsweredSchema;
  readonly packing: Packing;
  readonly diagnostics: readonly Diagnostic[];
}

/** The answer to a search. */
export function searchResponse(version: AnsweredVersion, found: Retrieved): string {
  const { count, records, start } = found;
  const next = start + records.length;
  return whole(
    'searchRetrieveResponse',
    version,
    element('zs:numberOfRecords', count) +
      (records.length
        ? `<zs:records>${records.map((r, i) => recordElement(version, found, r, start + i)).join('')}</zs:records>`
        : '') +
      (records.length && next <= count ? element('zs:nextRecordPosition', next) : '') +
      diagnostics(found.diagnostics),
  );
}

/** A search that cannot be answered. */
export const searchRefused = (version: AnsweredVersion, refused: Diagnostic): string =>
  whole('searchRetrieveResponse', version, element('zs:numberOfRecords', 0) + diagnostics([refused]));

/** A term of a list, as it is filed and shown, with how many records have it. */
export interface ScanTerm {
  readonly value: string;
  readonly count: number;
  readonly shown: string;
}

/** The answer to a scan. */
export const scanResponse = (
  version: AnsweredVersion,
  terms: readonly ScanTerm[],
  refused: readonly Diagnostic[] = [],
): string =>
  whole(
    'scanResponse',
    version,
    (terms.length
      ? `<zs:terms>${terms
          .map(
            (t) =>
              `<zs:term>${element('zs:value', t.value)}${element('zs:numberOfRecords', t.count)}${element('zs:displayTerm', t.shown)}</zs:term>`,
          )
          .join('')}</zs:terms>`
      : '') + diagnostics(refused),
  );

/** Where and what this catalogue is. */
export interface SruPlace {
  readonly host: string;
  readonly port: number;
  readonly title: string;
  readonly records: number;
}

const SETS: Readonly<Record<string, string>> = {
  cql: 'info:srw/cql-context-set/1/cql-v1.2',
  dc: 'info:srw/cql-context-set/1/dc-v1.1',
  bath: 'http://zing.z3950.org/cql/bath/2.0/',
  rec: 'info:srw/cql-context-set/2/rec-1.1',
};

/** The explain record (ZeeRex 2.0) in its answer, with what is wrong with the request where something is. */
export function explainResponse(
  version: AnsweredVersion,
  { host, port, title, records }: SruPlace,
  packing: Packing = 'xml',
  refused: readonly Diagnostic[] = [],
): string {
  const indexes = FIND_INDEXES.filter((i) => i.isPublic).map((i) => {
    const maps = [i.name, ...i.also]
      .filter((n) => /^(cql|dc|bath|rec)\./.test(n))
      .map((n) => n.split('.') as [string, string])
      .map(([set, name]) => `<map><name set="${set}">${escaped(name)}</name></map>`);
    return `<index search="true" scan="${SCANNED.has(i.name)}">${element('title', i.title)}${maps.join('') || `<map>${element('name', i.name)}</map>`}</index>`;
  });
  const sets = Object.entries(SETS).map(([name, id]) => `<set name="${name}" identifier="${id}"/>`);
  const explain = `<explain xmlns="http://explain.z3950.org/dtd/2.0/"><serverInfo protocol="SRU" version="${version}" transport="http" method="GET">${element('host', host)}${element('port', port)}${element('database', 'sru')}</serverInfo><databaseInfo>${element('title', title)}<description>${records} records</description></databaseInfo><indexInfo>${sets.join('')}${indexes.join('')}</indexInfo><schemaInfo><schema identifier="${SCHEMAS.marcxml}" name="marcxml" sort="false" retrieve="true"><title>MARCXML</title></schema><schema identifier="${SCHEMAS.dc}" name="dc" sort="false" retrieve="true"><title>Dublin Core</title></schema></schemaInfo><configInfo><default type="numberOfRecords">10</default><setting type="maximumRecords">${MOST_RECORDS}</setting>${ANSWERED_VERSIONS.map((v) => `<supports type="version">${v}</supports>`).join('')}</configInfo></explain>`;
  return whole(
    'explainResponse',
    version,
    `<zs:record>${element('zs:recordSchema', 'http://explain.z3950.org/dtd/2.0/')}${element('zs:recordPacking', packing)}<zs:recordData>${packing === 'string' ? escaped(explain) : explain}</zs:recordData></zs:record>${diagnostics(refused)}`,
  );
}

/** Indexes whose terms can be listed. */
export const SCANNED: ReadonlySet<string> = new Set(['title', 'name', 'year']);
