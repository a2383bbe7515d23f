import { encodeMarc8, type MarcRecord } from '@osier/core/marc';
import { createServer, type Server, type ServerResponse } from 'node:http';
import { coverOf } from './covers';
import { diagnostic, NAMESPACES, sruSearchAnswer, sendXml, type AnswerHabit } from './sru-answers';

/** How a simulated catalogue answers. */
interface Habit extends AnswerHabit {
  readonly title: string;
  /** Milliseconds until it answers. */
  readonly delay: number;
}

const HABITS: Readonly<Record<string, Habit>> = {
  national: { title: 'National Library of the Fens', delay: 700, prefix: 'zs:', isPacked: false },
  regional: { title: 'Osmere Valley Libraries', delay: 200, prefix: '', isPacked: false },
  school: { title: 'Hurst Lane School', delay: 60, prefix: 'srw:', isPacked: true },
  failing: { title: 'Drove End Exchange', delay: 30, prefix: 'srw:', isPacked: false },
};

/** What the failing one does, by a name that may be said in its path (`/failing/slow`), else by what is asked. */
export const FAILINGS = [
  'slow',
  'broken-xml',
  'http-500',
  'diagnostic',
  'too-many',
  'marc8',
  'cut-off',
  'web-page',
  'reset',
  'endless',
  'entities',
  'inside',
  'lies',
  'large',
  'empty',
] as const;
export type Failing = (typeof FAILINGS)[number];

/**
 * Simulated libraries that answer SRU 1.1, 1.2 and 2.0, each under a path of its own: a good and slow one, one with other call numbers,
 * one with short records, and one that fails in many ways.
 */
export function neighbourCatalogues(
  shelves: Readonly<Record<string, readonly MarcRecord[]>>,
  pace = 1,
): Server {
  return createServer((req, res) => {
    const url = new URL(req.url ?? '/', 'http://neighbours');
    const [, name = '', said = ''] = url.pathname.split('/');
    if (name === 'covers') return sendCover(said, res);
    const [habit, records] = [HABITS[name], shelves[name]];
    if (!habit || !records) return void res.writeHead(404).end();
    const query = url.searchParams.get('query');
    const version = url.searchParams.get('version') ?? '2.0';
    if (
      name === 'school' &&
      said === 'locked' &&
      req.headers.authorization !== `Basic ${Buffer.from('desk:withies').toString('base64')}`
    )
      return void res.writeHead(401, { 'www-authenticate': 'Basic realm="Hurst Lane"' }).end();
    setTimeout(() => {
      if (query === null) return sendXml(res, explainAnswer(habit, version));
      const failing = name === 'failing' ? (FAILINGS.find((f) => f === said) ?? byQuery(query)) : null;
      const xml = sruSearchAnswer(habit, records, url.searchParams);
      if (failing) fail(failing, res, xml);
      else sendXml(res, xml);
    }, habit.delay * pace);
  });
}

const byQuery = (query: string): Failing => {
  const usual = FAILINGS.slice(0, 8);
  return usual[[...query].reduce((n, c) => n + c.charCodeAt(0), 0) % usual.length]!;
};

/** The explain record (ZeeRex 2.0). */
function explainAnswer({ title, prefix: p }: Habit, version: string): string {
  const index = (set: string, name: string) =>
    `<index><title>${name}</title><map><name set="${set}">${name}</name></map></index>`;
  const indexes = [
    index('bath', 'isbn'),
    index('bath', 'issn'),
    index('bath', 'lccn'),
    index('rec', 'identifier'),
    index('dc', 'title'),
    index('dc', 'creator'),
    index('cql', 'anywhere'),
    index('cql', 'serverChoice'),
  ].join('');
  return `<?xml version="1.0" encoding="UTF-8"?>
<${p}explainResponse xmlns${p && `:${p.slice(0, -1)}`}="${NAMESPACES[version] ?? NAMESPACES['1.1']!}"><${p}record><${p}recordData><explain xmlns="http://explain.z3950.org/dtd/2.0/">
<serverInfo protocol="SRU" version="${version}"><host>neighbours.wickmere.example</host><port>80</port><database>catalogue</database></serverInfo>
<databaseInfo><title>${title}</title></databaseInfo>
<indexInfo>${indexes}</indexInfo>
<schemaInfo><schema name="marcxml" identifier="info:srw/schema/1/marcxml-v1.1"><title>MARCXML</title></schema></schemaInfo>
<configInfo><default type="numberOfRecords">10</default><setting type="maximumRecords">50</setting></configInfo>
</explain></${p}recordData></${p}record></${p}explainResponse>\n`;
}

/** Covers by ISBN: some are not there, and some addresses show a web page instead. */
function sendCover(file: string, res: ServerResponse): void {
  const isbn = /^(\d{13})\.png$/.exec(file)?.[1];
  if (isbn === undefined || isbn.endsWith('7')) return void res.writeHead(404).end();
  if (isbn.endsWith('3'))
    return void res
      .writeHead(200, { 'content-type': 'image/png' })
      .end('<html><script>alert(1)</script></html>');
  res.writeHead(200, { 'content-type': 'image/png' }).end(coverOf(isbn));
}

function fail(how: Failing, res: ServerResponse, xml: string): void {
  switch (how) {
    case 'slow':
      return;
    case 'broken-xml':
      return sendXml(res, xml.replace('<leader>', '<leader>A & B <broken '));
    case 'http-500':
      return void res.writeHead(500, { 'content-type': 'text/plain' }).end('Internal error');
    case 'diagnostic':
      return sendXml(
        res,
        xml.replace(
          /<srw:numberOfRecords>[^]*(?=<\/srw:searchRetrieveResponse>)/,
          `<srw:diagnostics>${diagnostic(2, 'System temporarily unavailable', 'rebuilding')}</srw:diagnostics>`,
        ),
      );
    case 'too-many':
      return sendXml(res, xml.replace(/(<srw:numberOfRecords>)\d+/, '$110000'));
    case 'marc8':
      // The bytes of the time before Unicode under a declaration that promises UTF-8.
      return void res
        .writeHead(200, { 'content-type': 'text/xml' })
        .end(
          Buffer.from(
            encodeMarc8(
              xml.replace(
                /(tag="245"[^]*?code="a">)/,
                '$1Vannerie d\u2019\u00e9t\u00e9 \u00e0 No\u00ebl : '.replace('\u2019', "'"),
              ),
            ),
          ),
        );
    case 'cut-off':
      return sendXml(res, xml.slice(0, Math.floor(xml.length * 0.7)));
    case 'web-page':
      return void res
        .writeHead(200, { 'content-type': 'text/html' })
        .end('<!DOCTYPE html><html><body>Down for repairs</body></html>');
    case 'reset':
      return void res.destroy();
    case 'endless': {
      res.writeHead(200, { 'content-type': 'text/xml' });
      res.write(xml.slice(0, 200));
      const more = setInterval(() => res.write('<!-- more and more -->'.repeat(50_000)), 2);
      return void res.once('close', () => clearInterval(more));
    }
    case 'entities':
      return sendXml(
        res,
        xml
          .replace(
            '?>',
            '?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;">]>',
          )
          .replace(/(code="a">)/, '$1&c;'),
      );
    case 'inside':
      return void res.writeHead(302, { location: 'http://127.0.0.1:1/inside' }).end();
    case 'lies':
      return void res
        .writeHead(200, { 'content-type': 'text/xml' })
        .end(
          Buffer.from(
            xml.replace('UTF-8', 'ISO-8859-1').replace(/(tag="245"[^]*?code="a">)/, '$1Été, '),
            'utf8',
          ),
        );
    case 'large':
      return sendXml(
        res,
        xml.replace(
          /(<\/record>)/,
          `${'<datafield tag="500" ind1=" " ind2=" "><subfield code="a">' + 'A long note. '.repeat(70) + '</subfield></datafield>\n'}`.repeat(
            3300,
          ) + '$1',
        ),
      );
    case 'empty':
      return void res.writeHead(200, { 'content-type': 'text/xml' }).end();
  }
}
