import { api } from '@osier/contract';
import { route, type Route } from '../http/route';
import type { People } from './people';
import { clearSession, sessionToken, setSession } from './session';

/** Signing in and out, accounts, sessions. */
export const peopleRoutes = (people: People): Route[] => [
  route(api.people.welcome, ({ req }) => people.welcome(req.person)),
  route(api.people.signIn, async ({ body, res }) => {
    const { person, token } = await people.signInWith(body.login, body.password);
    setSession(res, token);
    return person;
  }),
  route(api.people.signInAsDemo, async ({ body, res }) => {
    const { person, token } = await people.signInAsDemo(body.person);
    setSession(res, token);
    return person;
  }),
  route(api.people.firstHead, async ({ body, res }) => {
    const { person, token } = await people.addFirstHead(body);
    setSession(res, token);
    return person;
  }),
  route(api.people.signOut, async ({ req, res }) => {
    const token = sessionToken(req);
    if (token) await people.signOut(token);
    clearSession(res);
    return { signedOut: true };
  }),
  route(api.people.add, ({ body, person }) => people.add(body, false, person.id)),
  route(api.people.change, ({ params, body, person }) => people.change(person.id, params.id, body)),
  route(api.people.endSessions, async ({ params, person }) => ({
    ended: await people.endSessions(person.id, params.id),
  })),
  route(api.people.endOwnSessions, async ({ req, person }) => ({
    ended: await people.endSessions(person.id, person.id, sessionToken(req) ?? null),
  })),
  route(api.people.changePassword, async ({ req, person, body }) => {
    await people.changePassword(person, sessionToken(req) ?? '', body.now, body.password);
    return { changed: true };
  }),
];
