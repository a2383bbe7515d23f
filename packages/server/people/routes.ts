import {
  demoSignInBody,
  firstHeadBody,
  passwordBody,
  personBody,
  personChangeBody,
  signInBody,
} from '@osier/contract';
import { route, type Route } from '../http/route';
import type { People } from './people';
import { clearSession, sessionToken, setSession } from './session';

/** Signing in and out, accounts, sessions. */
export const peopleRoutes = (people: People): Route[] => [
  route({
    method: 'get',
    path: '/welcome',
    summary: 'Who is signed in, and how one can sign in',
    permission: null,
    work: ({ req }) => people.welcome(req.person),
  }),
  route({
    method: 'post',
    path: '/sign-in',
    summary: 'Sign in with name and password',
    permission: null,
    body: signInBody,
    work: async ({ body, res }) => {
      const { person, token } = await people.signInWith(body.login, body.password);
      setSession(res, token);
      return person;
    },
  }),
  route({
    method: 'post',
    path: '/sign-in/demo',
    summary: 'Sign in as one of the made-up people (demo mode only)',
    permission: null,
    body: demoSignInBody,
    work: async ({ body, res }) => {
      const { person, token } = await people.signInAsDemo(body.person);
      setSession(res, token);
      return person;
    },
  }),
  route({
    method: 'post',
    path: '/first-head',
    summary: 'Make the first account with the code from the console',
    permission: null,
    body: firstHeadBody,
    work: async ({ body, res }) => {
      const { person, token } = await people.addFirstHead(body);
      setSession(res, token);
      return person;
    },
  }),
  route({
    method: 'post',
    path: '/sign-out',
    summary: 'Sign out',
    permission: null,
    work: async ({ req, res }) => {
      const token = sessionToken(req);
      if (token) await people.signOut(token);
      clearSession(res);
      return { signedOut: true };
    },
  }),
  route({
    method: 'post',
    path: '/people',
    summary: 'Add a person',
    permission: 'set up',
    body: personBody,
    status: 201,
    work: ({ body, person }) => people.add(body, false, person.id),
  }),
  route({
    method: 'put',
    path: '/people/:id',
    summary: 'Change name, role or password of a person, deactivate or activate the account',
    permission: 'set up',
    body: personChangeBody,
    work: ({ id, body, person }) => people.change(person.id, id(), body),
  }),
  route({
    method: 'post',
    path: '/people/:id/end-sessions',
    summary: 'Sign a person out everywhere',
    permission: 'set up',
    work: async ({ id, person }) => ({ ended: await people.endSessions(person.id, id()) }),
  }),
  route({
    method: 'post',
    path: '/me/end-sessions',
    summary: 'Sign out everywhere else',
    permission: 'look',
    work: async ({ req, person }) => ({
      ended: await people.endSessions(person.id, person.id, sessionToken(req) ?? null),
    }),
  }),
  route({
    method: 'put',
    path: '/me/password',
    summary: 'Change your own password',
    permission: 'look',
    body: passwordBody,
    work: async ({ req, person, body }) => {
      await people.changePassword(person, sessionToken(req) ?? '', body.now, body.password);
      return { changed: true };
    },
  }),
];
