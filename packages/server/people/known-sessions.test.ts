import type { Person } from '@osier/contract';
import { knownSessions } from './known-sessions';

const NELL: Person = { id: 1, name: 'Nell Arkwright', login: 'nell', role: 'head', rights: [] };
const [NOW, LATER, EXPIRES] = [
  '2026-03-01T08:00:00.000Z',
  '2026-03-20T08:00:00.000Z',
  '2026-03-15T08:00:00.000Z',
];

/** A store in which one session can be asked for, and what waits until a transaction is stored. */
function known(session: { person: Person; expires: string } | undefined) {
  const sessions = knownSessions();
  const calls: (() => void)[] = [];
  const tx = { whenStored: (call: () => void) => void calls.push(call) };
  let asked = 0;
  const read = () => {
    asked++;
    return Promise.resolve(session);
  };
  return {
    ask: (now = NOW, by = read) => sessions.personOf('digest', now, by),
    begin: () => sessions.forgetWhenStored(tx),
    store: () => calls.splice(0).forEach((call) => call()),
    asked: () => asked,
  };
}

test('the store is asked once, and again when what changes an account is stored', async () => {
  const k = known({ person: NELL, expires: EXPIRES });
  expect([await k.ask(), await k.ask(), k.asked()]).toEqual([NELL, NELL, 1]);
  k.begin();
  await k.ask();
  expect(k.asked()).toBe(1);
  k.store();
  await k.ask();
  expect(k.asked()).toBe(2);
});

test('what was being read while an account was changed is not remembered', async () => {
  const k = known(undefined);
  let answer: (session: { person: Person; expires: string }) => void = () => undefined;
  const slow = k.ask(NOW, () => new Promise((done) => (answer = done)));
  k.begin();
  k.store();
  answer({ person: NELL, expires: EXPIRES });
  expect(await slow).toEqual(NELL);
  expect([await k.ask(), k.asked()]).toEqual([undefined, 1]);
});

test('a session ends when it expires, and nobody is not remembered', async () => {
  const k = known({ person: NELL, expires: EXPIRES });
  await k.ask();
  await k.ask(LATER);
  expect(k.asked()).toBe(2);
  const nobody = known(undefined);
  expect([await nobody.ask(), await nobody.ask(), nobody.asked()]).toEqual([undefined, undefined, 2]);
});
