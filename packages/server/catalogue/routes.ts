import { api, type EndpointQuery, type SearchBody } from '@osier/contract';
import { ruleNow } from '@osier/core/checks';
import { fieldDefinition } from '@osier/core/format';
import { notFound } from '../http/problem';
import { route, type Route } from '../http/route';
import { patiently, type Services } from '../services';
import { alikeRows } from './alike';
import { complete } from './complete';
import { beginCleanRecords, reviewCleanRecords } from './clean';
import { alikeGroups, keepRecordsApart, mergeRecords, reviewMergeRecords } from './merge-records';
import { exportFound } from './export-found';
import { furtherCounts } from './further';
import { makeBrief, makeRecord } from './make-record';
import { sendRecord } from './record-file';
import { removeRecord } from './remove-record';
import { suppressRecord } from './suppress-record';
import { listVersions, versionOf } from './versions';
import { marcOf, recordDetail, saveRecord } from './records';
import { suggest } from './suggest';
import { lookUp, search, searchFacets } from './search';

/** A search as it stands behind a path. */
const searchOf = (query: Partial<EndpointQuery<typeof api.records.exportFound>>): SearchBody => ({
  q: query.q ?? '',
  language: query.language,
  branch: query.branch,
  material: query.material,
  finding: query.finding && ruleNow(query.finding),
  pile: query.pile || undefined,
  delivery: query.delivery || undefined,
  status: query.status,
  type: query.type || undefined,
  suppressed: query.suppressed,
});

/** The catalogue: search, look up, read, save, clean, export. */
export const catalogueRoutes = (services: Services): Route[] => [
  route(api.records.search, ({ query, left }) =>
    search(services, { ...searchOf(query), sort: query.sort, soFar: query.soFar }, query.after, left()),
  ),
  route(api.records.facets, ({ query, left }) => searchFacets(patiently(services), searchOf(query), left())),
  route(api.records.further, ({ query, left }) =>
    furtherCounts(patiently(services), searchOf(query), left()),
  ),
  route(api.records.exportFound, ({ query, res, left }) =>
    exportFound(services, searchOf(query), query.as ?? 'csv', query.holdings ?? 'within', res, left()),
  ),
  route(api.records.reviewClean, ({ body: { from, ...body } }) => reviewCleanRecords(services, body, from)),
  route(api.records.clean, ({ body, person }) => beginCleanRecords(services, person.id, body)),
  route(api.records.suggest, ({ query }) => suggest(services, query.q ?? '')),
  route(api.desk.alike, ({ query }) => alikeGroups(services, query.after)),
  route(api.desk.reviewMerge, ({ body }) => reviewMergeRecords(services, body)),
  route(api.desk.merge, ({ body, person }) => mergeRecords(services, person.id, body)),
  route(api.desk.keepApart, ({ body, person }) => keepRecordsApart(services, person.id, body)),
  route(api.desk.complete, ({ query }) => complete(services, query)),
  route(api.records.lookUp, ({ query }) => lookUp(services, query.q ?? '')),
  route(api.records.read, ({ params }) => recordDetail(services, params.id)),
  route(api.records.save, ({ params, body, person }) =>
    saveRecord(services, person.id, params.id, body.version, marcOf(body.marc), body.withErrors),
  ),
  route(api.desk.likely, async ({ body }) => ({
    rows: await alikeRows(services.store, marcOf(body.marc)),
  })),
  route(api.desk.make, ({ body, person }) => makeRecord(services, person.id, body)),
  route(api.desk.makeBrief, ({ body, person }) => makeBrief(services, person, body)),
  route(api.desk.remove, ({ params, body, person }) =>
    removeRecord(services, person.id, params.id, body.version),
  ),
  route(api.desk.suppress, ({ params, body, person }) =>
    suppressRecord(services, person.id, params.id, body.isSuppressed),
  ),
  route(api.desk.versions, ({ params, query }) => listVersions(services, params.id, query.before)),
  route(api.desk.version, ({ params }) => versionOf(services, params.id, params.entry)),
  route(api.records.file, ({ params, query, res }) =>
    sendRecord(services, params.id, query.as ?? 'iso2709', query.holdings ?? 'none', res),
  ),
  route(
    api.records.format,
    ({ params }) =>
      (/^[0-9A-Z]{3}$/.test(params.tag) && fieldDefinition(params.tag)) ||
      Promise.reject(notFound(`Field ${params.tag}`)),
  ),
];
