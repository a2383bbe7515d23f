import { api } from '@osier/contract';
import type { Neighbour } from '@osier/core/neighbours';
import { wrong } from '../http/problem';
import { route, type Route } from '../http/route';
import type { Services } from '../services';
import {
  askFurther,
  chooseForBook,
  listBookLists,
  readBookList,
  removeBookList,
  startBookList,
} from './book-lists';
import { listBriefs, readBrief, refuseOffer, takeOffer } from './brief-records';
import { beginGrowing } from './grow-records';
import { sendCover } from './covers';
import { deliverBooks } from './deliver-books';
import { copyRecord, prepareRecord } from './copy-record';
import { findAt, lookUpBook, tryNeighbour } from './find';
import { changeNeighbour, keepNeighbour, listNeighbours, originOf, removeNeighbour } from './neighbours';

/** Neighbours: set up, ask, copy from. */
export function neighbourRoutes(services: Services): Route[] {
  const { store, neighbours } = services;
  return [
    route(api.neighbours.list, () => listNeighbours(services)),
    route(api.neighbours.lookup, ({ query }) => lookUpBook(services, query.text ?? '')),
    route(api.neighbours.tryOut, async ({ body, left }) => {
      const held = body.of === null ? null : await store.read('neighbour', body.of);
      const keptFor = body.password === null && body.neighbour.user !== '' ? held : null;
      if (keptFor && originOf(keptFor.value) !== originOf(body.neighbour))
        throw wrong('password', 'Type the password again: the address is another one.');
      const secret = keptFor ? keptFor.value.secret : await neighbours.secrets.seal(body.password ?? '');
      const typed: Neighbour = { ...body.neighbour, secret };
      return tryNeighbour(services, typed, body.text, left());
    }),
    route(api.neighbours.keep, ({ person, body }) => keepNeighbour(services, person.id, body)),
    route(api.neighbours.change, ({ params, person, body }) =>
      changeNeighbour(services, person.id, params.id, body),
    ),
    route(api.neighbours.remove, ({ params, person, body }) =>
      removeNeighbour(services, person.id, params.id, body.version),
    ),
    route(api.bookLists.list, () => listBookLists(services)),
    route(api.bookLists.start, ({ person, body }) => startBookList(services, person.id, body)),
    route(api.bookLists.read, ({ params }) => readBookList(services, params.id)),
    route(api.bookLists.further, ({ params, person }) => askFurther(services, person.id, params.id)),
    route(api.bookLists.choose, ({ params, person, body }) => chooseForBook(services, person, params, body)),
    route(api.bookLists.deliver, ({ params, person }) => deliverBooks(services, person.id, params.id)),
    route(api.bookLists.remove, ({ params }) => removeBookList(services, params.id)),
    route(api.briefRecords.list, ({ query }) => listBriefs(services, query.list, query.after)),
    route(api.briefRecords.ask, ({ person }) => beginGrowing(services, person.id)),
    route(api.briefRecords.read, ({ params }) => readBrief(services, params.id)),
    route(api.briefRecords.take, ({ params, person, body }) =>
      takeOffer(services, person.id, params.id, body),
    ),
    route(api.briefRecords.refuse, ({ params, body }) => refuseOffer(services, params.id, body)),
    route(api.neighbours.find, ({ params, query, left }) =>
      findAt(services, params.id, query.text ?? '', { signal: left(), anyway: query.anyway === '1' }),
    ),
    route(api.neighbours.cover, ({ params, query, res, left }) =>
      sendCover(services, params.id, query.address ?? '', left(), res),
    ),
    route(api.neighbours.prepare, ({ body }) => prepareRecord(services, body.marc)),
    route(api.neighbours.copy, ({ person, body }) => copyRecord(services, person, body)),
  ];
}
