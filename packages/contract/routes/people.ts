import { array, boolean, mixed, object, type InferType } from 'yup';
import { flag, listOf, wordOf, orNull, shape, text, whole } from '../answers';
import { isCommon } from '../common-passwords';
import { endpoint, type ValueOf } from '../endpoint';
import { id, line } from '../inputs';
import { GRANTED, ROLES, type Granted } from '../permissions';
import { string } from '../values';

const password = () =>
  string()
    .min(12, 'A password has at least 12 characters.')
    .max(200, 'At most 200 characters.')
    .test(
      'not common',
      'This password is one of the first that are tried. Choose another one.',
      (v) => !isCommon(v),
    );
const role = () =>
  mixed<(typeof ROLES)[number]>()
    .oneOf([...ROLES], 'Choose a role.')
    .required('Choose a role.');

/** Signing in with name and password. */
export const signInBody = object({
  login: line().required('Type your name.'),
  password: line().required('Type your password.'),
});
/** Signing in as one of the made-up people. */
export const demoSignInBody = object({ person: id().required() });
/** The first account, with the code from the console. */
export const firstHeadBody = object({
  code: line().required('Type the code from the console.'),
  name: line().required('Type your name.'),
  login: line(60).required('Choose a sign-in name.'),
  password: password().required('Choose a password.'),
});
/** A new account. */
export const personBody = object({
  name: line().required('Type a name.'),
  login: line(60).required('Type a sign-in name.'),
  role: role(),
  password: password().required('Type a password.'),
});
export type PersonBody = InferType<typeof personBody>;
/** What the head may change of an account; a password only when a new one is given. */
export const personChangeBody = object({
  name: line().trim().required('Type a name.'),
  role: role(),
  active: boolean().required(),
  /** What the person may beside what the role allows; absent: as it is. */
  rights: array(
    mixed<Granted>()
      .oneOf([...GRANTED])
      .required(),
  )
    .max(GRANTED.length)
    .optional(),
  password: password().optional(),
});
export type PersonChangeBody = InferType<typeof personChangeBody>;
/** One’s own new password. */
export const passwordBody = object({
  now: string().max(200).required('Type the password you have now.'),
  password: password().required('Type the new password.'),
});

const personParts = {
  ...{ id: whole(), name: text(), login: text(), role: wordOf(ROLES) },
  /** What the person may beside what the role allows. */
  rights: listOf(wordOf(GRANTED)),
};
const person = shape(personParts);
/** Who is signed in, or made an entry. */
export type Person = ValueOf<typeof person>;
/** An account as a list shows it. */
export const personRow = shape({ ...personParts, active: flag() });
/** An account; one that is not active cannot sign in. */
export type PersonRow = ValueOf<typeof personRow>;
const welcome = shape({
  person: orNull(person),
  demo: orNull(listOf(shape({ id: whole(), name: text(), role: wordOf(ROLES) }))),
  needsFirstHead: flag(),
});
/** Who is signed in, and how one can sign in. */
export type Welcome = ValueOf<typeof welcome>;

const ended = shape({ ended: whole() });
/** Signing in, accounts, sessions. */
export const peopleApi = {
  welcome: endpoint({
    method: 'get',
    path: '/welcome',
    summary: 'Who is signed in, and how one can sign in',
    permission: null,
    answer: welcome,
  }),
  signIn: endpoint({
    method: 'post',
    path: '/sign-in',
    summary: 'Sign in with name and password',
    permission: null,
    body: signInBody,
    answer: person,
    problems: [429],
  }),
  signInAsDemo: endpoint({
    method: 'post',
    path: '/sign-in/demo',
    summary: 'Sign in as one of the made-up people (demo mode only)',
    permission: null,
    body: demoSignInBody,
    answer: person,
    problems: [429],
  }),
  firstHead: endpoint({
    method: 'post',
    path: '/first-head',
    summary: 'Make the first account with the code from the console',
    permission: null,
    body: firstHeadBody,
    answer: person,
    problems: [429],
  }),
  signOut: endpoint({
    method: 'post',
    path: '/sign-out',
    summary: 'Sign out',
    permission: null,
    answer: shape({ signedOut: flag() }),
  }),
  add: endpoint({
    method: 'post',
    path: '/people',
    summary: 'Add a person',
    permission: 'set up',
    body: personBody,
    status: 201,
    answer: person,
  }),
  change: endpoint({
    method: 'put',
    path: '/people/:id',
    summary: 'Change name, role or password of a person, deactivate or activate the account',
    permission: 'set up',
    body: personChangeBody,
    answer: personRow,
  }),
  endSessions: endpoint({
    method: 'post',
    path: '/people/:id/end-sessions',
    summary: 'Sign a person out everywhere',
    permission: 'set up',
    answer: ended,
  }),
  endOwnSessions: endpoint({
    method: 'post',
    path: '/me/end-sessions',
    summary: 'Sign out everywhere else',
    permission: 'look',
    answer: ended,
  }),
  changePassword: endpoint({
    method: 'put',
    path: '/me/password',
    summary: 'Change your own password',
    permission: 'look',
    body: passwordBody,
    answer: shape({ changed: flag() }),
  }),
};
