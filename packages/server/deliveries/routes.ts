import { api } from '@osier/contract';
import { notFound, wrong } from '../http/problem';
import { stillAsReviewed } from '../http/reviewed';
import { route, type Route } from '../http/route';
import { patiently, type Services } from '../services';
import { reviewAccept } from './accept';
import { reviewClean } from './clean';
import { countSteps } from './count-steps';
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
  const waitingOf = async (id: number) => {
    const [row] = await listDeliveries(services, id);
    if (!row) throw notFound(`Delivery ${id}`);
    if (row.job !== null)
      throw wrong('delivery', 'This delivery is being worked on. Wait until that is done, or cancel it.');
    return row;
  };
  return [
    route(api.deliveries.list, () => listDeliveries(services)),
    route(api.deliveries.takeIn, ({ person, query, req }) =>
      takeIn(services, person.id, (query.name ?? 'delivery').slice(0, 200), req),
    ),
    route(
      api.deliveries.read,
      async ({ params }) =>
        (await listDeliveries(services, params.id))[0] ?? Promise.reject(notFound(`Delivery ${params.id}`)),
    ),
    route(api.deliveries.incoming, ({ params, query }) =>
      listIncoming(patiently(services), params.id, query.facet, query.after ?? 0),
    ),
    route(api.deliveries.readIncoming, ({ params }) => incomingDetail(services, params.id, params.incoming)),
    route(api.deliveries.decide, async ({ params, person, body }) => {
      await waitingOf(params.id);
      return decide(services, person.id, params.id, body.incoming, body.decision, body.target);
    }),
    route(api.deliveries.decideAll, async ({ params, person, body }) =>
      decideFacet(services, person.id, await waitingOf(params.id), body.facet, body.decision),
    ),
    route(api.deliveries.saveIncoming, async ({ params, person, body }) => {
      await waitingOf(params.id);
      return changeIncoming(services, person.id, params.id, params.incoming, body);
    }),
    route(api.deliveries.summary, ({ params }) => deliverySummary(patiently(services), params.id)),
    route(api.deliveries.saveSettings, async ({ params, person, body }) => {
      await waitingOf(params.id);
      return changeSettings(services, person.id, params.id, body);
    }),
    route(api.deliveries.reviewTakeBack, ({ params, body }) =>
      reviewTakeBack(services, params.id, body.incoming, body.from),
    ),
    route(api.deliveries.takeBack, async ({ params, body, person }) => {
      const row = await waitingOf(params.id);
      const asOf = await stillAsReviewed(store, body.token, () =>
        reviewTakeBack(services, params.id, body.incoming),
      );
      return jobs.begin(
        'take-back',
        `Undoing the accepting of ${row.name}`,
        person.id,
        { delivery: row.id, incoming: body.incoming, leaveOut: body.leaveOut, asOf },
        row.accepted + row.skipped,
      );
    }),
    route(api.deliveries.report, ({ params, res }) => sendReport(services, params.id, res)),
    route(api.deliveries.reportRows, ({ params }) => reportList(services, params.id)),
    route(api.deliveries.accepted, ({ params, res }) => sendAccepted(services, params.id, res)),
    route(api.deliveries.findings, ({ params }) => findingKinds(patiently(services), params.id)),
    route(api.deliveries.reviewFix, ({ params, body }) =>
      reviewClean(services, params.id, { rules: body.rules }, body.from),
    ),
    route(api.deliveries.fix, async ({ params, body, person }) => {
      const row = await waitingOf(params.id);
      const { name } = await treatmentOf({ rules: body.rules }, store);
      const asOf = await stillAsReviewed(store, body.token, () =>
        reviewClean(services, params.id, { rules: body.rules }),
      );
      return jobs.begin(
        'clean-delivery',
        `${name} in ${row.name}`,
        person.id,
        { delivery: row.id, rules: body.rules, leaveOut: body.leaveOut, asOf },
        row.waiting,
      );
    }),
    route(api.deliveries.countSteps, ({ params, body, left }) =>
      countSteps(services, params.id, body, left()),
    ),
    route(api.deliveries.reviewClean, ({ params, body }) =>
      reviewClean(services, params.id, { recipe: body.recipe }, body.from),
    ),
    route(api.deliveries.clean, async ({ params, body, person }) => {
      const row = await waitingOf(params.id);
      const recipe = await recipeNamed(store, body.recipe);
      const asOf = await stillAsReviewed(store, body.token, () =>
        reviewClean(services, params.id, { recipe: body.recipe }),
      );
      return jobs.begin(
        'clean-delivery',
        `Cleaning ${row.name} with ${recipe.name}`,
        person.id,
        { delivery: row.id, recipe: recipe.id, leaveOut: body.leaveOut, asOf },
        row.waiting,
      );
    }),
    route(api.deliveries.reviewAccept, ({ params, body }) =>
      reviewAccept(services, params.id, new Set(body.leaveOut), body.facet, body.from),
    ),
    route(api.deliveries.accept, async ({ params, body, person }) => {
      const row = await waitingOf(params.id);
      const asOf = await stillAsReviewed(store, body.token, () =>
        reviewAccept(services, params.id, new Set(), body.facet),
      );
      return jobs.begin(
        'accept-delivery',
        `Accepting ${row.name}`,
        person.id,
        { delivery: row.id, facet: body.facet, leaveOut: body.leaveOut, asOf },
        row.waiting,
      );
    }),
  ];
}
