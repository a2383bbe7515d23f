import {
  acceptBody,
  acceptReviewBody,
  cleanBody,
  cleanReviewBody,
  decisionBody,
  fixBody,
  fixReviewBody,
  incomingBody,
  settingsBody,
  takeBackBody,
  takeBackReviewBody,
} from '@osier/contract';
import { notFound, wrong } from '../http/problem';
import { route, type Route } from '../http/route';
import { patiently, type Services } from '../services';
import { reviewAccept } from './accept';
import { reviewClean } from './clean';
import { changeSettings } from './change-settings';
import { decide, decideFacet } from './decide';
import { listDeliveries, takeIn } from './deliveries';
import { changeIncoming, incomingDetail, listIncoming } from './incoming';
import { deliverySummary } from './summary';
import { reviewTakeBack } from './take-back';
import { findingKinds } from './findings';
import { recipeNamed } from '../recipes/recipes';
import { reportList, sendAccepted, sendReport } from './report';
import { treatmentOf } from '../recipes/treatments';

/** Deliveries: take in, look, decide, clean, accept, undo, report. */
export function deliveryRoutes(services: Services): Route[] {
  const { store, jobs } = services;
  const take = 'take in deliveries' as const;
  const waitingOf = async (id: number) => {
    const [row] = await listDeliveries(services, id);
    if (!row) throw notFound(`Delivery ${id}`);
    if (row.job !== null)
      throw wrong('delivery', 'This delivery is being worked on. Wait until that is done, or cancel it.');
    return row;
  };
  return [
    route({
      method: 'get',
      path: '/deliveries',
      summary: 'All deliveries, newest first',
      permission: 'look',
      work: () => listDeliveries(services),
    }),
    route({
      method: 'post',
      path: '/deliveries',
      summary: 'Take in a file; the body is the file, `name` its name',
      permission: take,
      status: 202,
      work: ({ person, query, req }) =>
        takeIn(services, person.id, (query.name ?? 'delivery').slice(0, 200), req),
    }),
    route({
      method: 'get',
      path: '/deliveries/:id',
      summary: 'One delivery with its counts',
      permission: 'look',
      work: async ({ id }) =>
        (await listDeliveries(services, id()))[0] ?? Promise.reject(notFound(`Delivery ${id()}`)),
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/incoming',
      summary: 'Records of a delivery, by facet, a page at a time',
      permission: 'look',
      work: ({ id, query, whole }) =>
        listIncoming(patiently(services), id(), query.facet, whole('after') ?? 0),
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/incoming/:incoming',
      summary: 'One incoming record whole',
      permission: 'look',
      work: ({ id }) => incomingDetail(services, id(), id('incoming')),
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/decisions',
      summary: 'Decide what is done with records',
      permission: take,
      body: decisionBody,
      work: async ({ id, person, body }) => {
        const row = await waitingOf(id());
        return body.facet === undefined
          ? decide(services, person.id, id(), body.incoming, body.decision, body.target)
          : decideFacet(services, person.id, row, body.facet, body.decision);
      },
    }),
    route({
      method: 'put',
      path: '/deliveries/:id/incoming/:incoming',
      summary: 'Save a waiting record after correcting its fields, its copies or its note',
      permission: take,
      body: incomingBody,
      work: async ({ id, person, body }) => {
        await waitingOf(id());
        return changeIncoming(services, person.id, id(), id('incoming'), body);
      },
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/summary',
      summary: 'Counts by outcome, copies, findings before and after, settings',
      permission: 'look',
      work: ({ id }) => deliverySummary(patiently(services), id()),
    }),
    route({
      method: 'put',
      path: '/deliveries/:id/settings',
      summary: 'Give one delivery other settings and match it anew',
      permission: take,
      body: settingsBody,
      status: 202,
      work: async ({ id, person, body }) => {
        await waitingOf(id());
        return changeSettings(services, person.id, id(), body);
      },
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/take-back/review',
      summary: 'What taking back accepted records would do',
      permission: 'undo',
      body: takeBackReviewBody,
      work: ({ id, body }) => reviewTakeBack(services, id(), body.incoming, body.from),
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/take-back',
      summary: 'Take accepted records back, with their copies; those that were worked on since stay',
      permission: 'undo',
      body: takeBackBody,
      status: 202,
      work: async ({ id, body, person }) => {
        const row = await waitingOf(id());
        return jobs.begin(
          'take-back',
          `Taking back ${row.name}`,
          person.id,
          { delivery: row.id, incoming: body.incoming, leaveOut: body.leaveOut },
          row.accepted + row.skipped,
        );
      },
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/report',
      summary: 'What became of each record, as CSV',
      permission: 'look',
      work: ({ id, res }) => sendReport(services, id(), res),
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/report/rows',
      summary: 'What became of each record, as JSON',
      permission: 'look',
      work: ({ id }) => reportList(services, id()),
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/accepted',
      summary: 'The records it became in the catalogue, as ISO 2709',
      permission: 'look',
      work: ({ id, res }) => sendAccepted(services, id(), res),
    }),
    route({
      method: 'get',
      path: '/deliveries/:id/findings',
      summary: 'What the checks found in the waiting records, by kind',
      permission: 'look',
      work: ({ id }) => findingKinds(patiently(services), id()),
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/fix/review',
      summary: 'What the safe fixes would change',
      permission: take,
      body: fixReviewBody,
      work: ({ id, body }) => reviewClean(services, id(), { rules: body.rules }, body.from),
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/fix',
      summary: 'Apply the safe fixes of some checks, or of all, to the waiting records',
      permission: take,
      body: fixBody,
      status: 202,
      work: async ({ id, body, person }) => {
        const row = await waitingOf(id());
        const { name } = await treatmentOf({ rules: body.rules }, store);
        return jobs.begin(
          'clean-delivery',
          `${name} in ${row.name}`,
          person.id,
          { delivery: row.id, rules: body.rules, leaveOut: body.leaveOut },
          row.waiting,
        );
      },
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/clean/review',
      summary: 'What a recipe would change',
      permission: take,
      body: cleanReviewBody,
      work: ({ id, body }) => reviewClean(services, id(), { recipe: body.recipe }, body.from),
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/clean',
      summary: 'Run a recipe over the waiting records',
      permission: take,
      body: cleanBody,
      status: 202,
      work: async ({ id, body, person }) => {
        const row = await waitingOf(id());
        const recipe = await recipeNamed(store, body.recipe);
        return jobs.begin(
          'clean-delivery',
          `Cleaning ${row.name} with ${recipe.name}`,
          person.id,
          { delivery: row.id, recipe: recipe.id, leaveOut: body.leaveOut },
          row.waiting,
        );
      },
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/accept/review',
      summary: 'What accepting would do',
      permission: take,
      body: acceptReviewBody,
      work: ({ id, body }) => reviewAccept(services, id(), new Set(body.leaveOut), body.from),
    }),
    route({
      method: 'post',
      path: '/deliveries/:id/accept',
      summary: 'Accept the waiting records as decided',
      permission: take,
      body: acceptBody,
      status: 202,
      work: async ({ id, body, person }) => {
        const row = await waitingOf(id());
        return jobs.begin(
          'accept-delivery',
          `Accepting ${row.name}`,
          person.id,
          { delivery: row.id, leaveOut: body.leaveOut },
          row.waiting,
        );
      },
    }),
  ];
}
