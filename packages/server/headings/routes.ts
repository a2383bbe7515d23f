import { api, type EndpointQuery } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import { addHeading } from './add-heading';
import { beginAuthorityFile, reviewAuthorityFile } from './authority-file';
import { headingEvidence } from './evidence';
import { keepApart, takeUpAgain } from './apart';
import { deleteHeadings, reviewDeleteHeadings } from './delete-headings';
import { headingDetail, listHeadings, lookAlikeList } from './headings';
import { merge, reviewMerge } from './merge';
import { beginMergeAll, reviewMergeAll } from './merge-all';
import { saveHeading } from './save-heading';
import { reviewSplit, split } from './split';

const askedOf = ({ later, ...asked }: EndpointQuery<typeof api.headings.lookAlikes>) => ({
  ...asked,
  later: later === 'yes',
});

/** Headings: list, look-alikes, merge, keep apart. */
export const headingRoutes = (services: Services): Route[] => [
  route(api.headings.list, ({ query }) => listHeadings(services, query)),
  route(api.headings.lookAlikes, ({ query }) => lookAlikeList(services, askedOf(query))),
  route(api.headings.evidence, ({ query }) =>
    headingEvidence(services.store, (query.ids ?? '').split(',').map(Number)),
  ),
  route(api.headings.read, ({ params }) => headingDetail(services, params.id)),
  route(api.headings.add, ({ body, person }) => addHeading(services, person.id, body)),
  route(api.headings.save, ({ params, body, person }) => saveHeading(services, person.id, params.id, body)),
  route(api.headings.reviewMerge, ({ body: { from, ...body } }) => reviewMerge(services, body, from)),
  route(api.headings.merge, ({ body, person }) => merge(services, person.id, body)),
  route(api.headings.reviewMergeAll, ({ body: { from, ...body } }) => reviewMergeAll(services, body, from)),
  route(api.headings.mergeAll, ({ body, person }) => beginMergeAll(services, person.id, body)),
  route(api.headings.reviewDelete, ({ body: { from, ...body } }) =>
    reviewDeleteHeadings(services, body, from),
  ),
  route(api.headings.delete, ({ body, person }) => deleteHeadings(services, person.id, body)),
  route(api.headings.reviewFile, ({ body: { from, ...body } }) => reviewAuthorityFile(services, body, from)),
  route(api.headings.takeFile, ({ body, person }) => beginAuthorityFile(services, person.id, body)),
  route(api.headings.reviewSplit, ({ params, body: { from, ...body } }) =>
    reviewSplit(services, params.id, body, from),
  ),
  route(api.headings.split, ({ params, body, person }) => split(services, person.id, params.id, body)),
  route(api.headings.keepApart, ({ body, person }) => keepApart(services, person.id, body)),
  route(api.headings.takeUp, ({ body, person }) => takeUpAgain(services, person.id, body.headings)),
];
