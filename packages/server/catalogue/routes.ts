import { cleanRecordsBody, cleanRecordsReviewBody, recordBody } from '@osier/contract';
import { fieldDefinition } from '@osier/core/format';
import { asExported } from '@osier/core/holdings';
import { MARCXML_END, MARCXML_START, marcJson, marcXmlElement, writeIso2709 } from '@osier/core/marc';
import { notFound, wrong } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { beginCleanRecords, reviewCleanRecords } from './clean';
import { marcOf, recordDetail, saveRecord } from './records';
import { hasHoldings } from './queries';
import { lookUp, search } from './search';

/** The catalogue: search, look up, read, save, clean, export. */
export const catalogueRoutes = (services: Services): Route[] => [
  route({
    method: 'get',
    path: '/records',
    summary: 'Search the catalogue: `q` as in the scan line, facets, `after` for the next page',
    permission: 'look',
    work: ({ query, whole, left }) =>
      search(
        services,
        {
          q: (query.q ?? '').slice(0, 500),
          language: query.language,
          branch: query.branch,
          material: query.material,
          pile: whole('pile') || undefined,
          delivery: whole('delivery') || undefined,
        },
        whole('after') ?? 0,
        left(),
      ),
  }),
  route({
    method: 'post',
    path: '/records/clean/review',
    summary: 'What running a recipe over all that a search finds would do',
    permission: 'edit records',
    body: cleanRecordsReviewBody,
    work: ({ body: { from, ...body } }) => reviewCleanRecords(services, body, from),
  }),
  route({
    method: 'post',
    path: '/records/clean',
    summary: 'Run a recipe over all that a search finds',
    permission: 'edit records',
    body: cleanRecordsBody,
    status: 202,
    work: ({ body, person }) => beginCleanRecords(services, person.id, body),
  }),
  route({
    method: 'get',
    path: '/look-up',
    summary: 'What an input of the scan line leads to',
    permission: 'look',
    work: ({ query }) => lookUp(services, (query.q ?? '').slice(0, 500)),
  }),
  route({
    method: 'get',
    path: '/records/:id',
    summary: 'A record with holdings, copies, findings and history',
    permission: 'look',
    work: ({ id }) => recordDetail(services, id()),
  }),
  route({
    method: 'put',
    path: '/records/:id',
    summary: 'Save a record; 409 with the newest when `version` is not it',
    permission: 'edit records',
    body: recordBody,
    work: ({ id, body, person }) => saveRecord(services, person.id, id(), body.version, marcOf(body.marc)),
  }),
  route({
    method: 'get',
    path: '/records/:id/export',
    summary: 'A record as a file: `as` iso2709, marcxml or json',
    permission: 'look',
    work: async ({ id, query, res }) => {
      const record = await services.store.read('record', id());
      if (!record) throw notFound(`Record ${id()}`);
      const marc = asExported(record.value, await hasHoldings(services.store, id()));
      const as = query.as ?? 'iso2709';
      const bodies: Record<string, [string, string, () => string | Uint8Array]> = {
        iso2709: ['mrc', 'application/marc', () => writeIso2709(marc)],
        marcxml: ['xml', 'application/marcxml+xml', () => MARCXML_START + marcXmlElement(marc) + MARCXML_END],
        json: ['json', 'application/marc-in-json', () => marcJson(marc)],
      };
      const body = Object.hasOwn(bodies, as) ? bodies[as] : undefined;
      if (!body) throw wrong('as', `There is no format “${as}”: iso2709, marcxml or json.`);
      res.setHeader('content-disposition', `attachment; filename="record-${id()}.${body[0]}"`);
      res.type(body[1]).send(Buffer.from(body[2]()));
      return undefined;
    },
  }),
  route({
    method: 'get',
    path: '/format/:tag',
    summary: 'What MARC 21 says about a field',
    permission: 'look',
    work: ({ params }) =>
      (/^[0-9A-Z]{3}$/.test(params.tag ?? '') && fieldDefinition(params.tag ?? '')) ||
      Promise.reject(notFound(`Field ${params.tag}`)),
  }),
];
