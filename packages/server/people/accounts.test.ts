import type { PersonRow, Problem, SetUp } from '@osier/contract';
import { isCommon } from '@osier/contract';
import { sentenceOfEntry, type ActColumns } from '../store/kept-acts';
import { startTesting, type Ask } from '../testing/running';
import { foldedLogin, loginProblem } from './sign-in-name';

let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

const PASSWORD = 'wet willow rods 7';
const add = async (login: string, role = 'assistant') =>
  head<PersonRow & Problem>('POST', '/people', { name: `Name ${login}`, login, role, password: PASSWORD });
const people = async () => (await head<SetUp>('GET', '/set-up')).body.people;
async function signIn(
  login: string,
  password = PASSWORD,
): Promise<{ status: number; ask: Ask; cookie: string }> {
  const { status, headers } = await t.ask('POST', '/sign-in', { login, password });
  const cookie = headers.get('set-cookie')?.split(';')[0] ?? '';
  return { status, cookie, ask: (method, path, body) => t.ask(method, path, body, { cookie }) };
}

test('an account is changed, deactivated and brought back; its sessions end, the daybook tells it', async () => {
  const { id } = (await add('wilf')).body;
  const wilf = await signIn('wilf');
  expect((await wilf.ask('GET', '/today')).status).toBe(200);
  const change = (more: object) =>
    head<Problem>('PUT', `/people/${id}`, { name: 'Wilf Osgood', role: 'assistant', active: true, ...more });
  expect((await change({ role: 'cataloguer' })).status).toBe(200);
  expect((await wilf.ask('GET', '/today')).status).toBe(200);
  await change({ active: false });
  expect((await wilf.ask('GET', '/today')).status).toBe(401);
  expect((await signIn('wilf')).status).toBe(422);
  await change({ password: 'another long one 9' });
  expect((await signIn('wilf')).status).toBe(422);
  expect((await signIn('wilf', 'another long one 9')).status).toBe(200);
  const told = await t.running.services.store.rows<ActColumns>(
    "SELECT sentence, said FROM daybook WHERE act = 'account' ORDER BY id",
  );
  expect(told.map(sentenceOfEntry).join()).toMatch(
    /Added Name wilf.*made cataloguer, was assistant.*deactivated.*new password/,
  );
  expect(JSON.stringify(await people())).not.toMatch(/password|:[0-9a-f]{64}/);
});

test('the last head stays head, however many ask at once', async () => {
  const second = (await add('second', 'head')).body.id;
  const first = (await people()).find((p) => p.role === 'head' && p.id !== second)!;
  const asked = await Promise.all(
    [first.id, second].map((id) =>
      head<Problem>('PUT', `/people/${id}`, { name: `Head ${id}`, role: 'assistant', active: true }),
    ),
  );
  expect(asked.map((a) => a.status).sort()).toEqual([200, 422]);
  expect((await t.running.services.people.all()).filter((p) => p.role === 'head' && p.active)).toHaveLength(
    1,
  );
  // Whoever was first may be no head any more: put back by the store itself.
  await t.running.services.store.write((tx) =>
    t.running.services.store.run(
      "UPDATE people SET role = 'head' WHERE id IN (:ids)",
      { ids: [first.id, second] },
      tx,
    ),
  );
});

test('sign-in names are one whatever their case, width and blanks; two scripts in one are refused', async () => {
  expect((await add('Ada.Quill')).status).toBe(201);
  for (const same of ['ada.quill', 'ADA.QUILL', ' ada . quill ', 'ａｄａ.ｑｕｉｌｌ']) {
    expect((await add(same)).body.detail).toMatch(/taken/);
    expect((await signIn(same)).status).toBe(200);
  }
  // A Cyrillic а among Latin letters.
  expect((await add('\u0430da.quill')).body.detail).toMatch(/one script/);
  expect(foldedLogin('ＡＤＡ\u00a0Quill')).toBe('adaquill');
  expect(
    [loginProblem('Ада'), loginProblem('ada\u0301'), loginProblem('a'), loginProblem('a<b')].map(
      (p) => p === null,
    ),
  ).toEqual([true, true, false, false]);
});

test.each([
  'password1234',
  'Passw0rd!2024',
  'qwertyuiop12',
  '123456789012',
  'aaaaaaaaaaaa',
  'abcabcabcabc',
  'letmeinletmein',
  'adminadmin99',
  'abcdefghijkl',
])('a password that is tried first is refused: %s', async (password) => {
  expect(isCommon(password)).toBe(true);
  const { status, body } = await head<Problem>('POST', '/people', {
    name: 'X',
    login: 'xenia',
    role: 'assistant',
    password,
  });
  expect([status, body.fields?.[0]?.field]).toEqual([422, 'password']);
});
test.each(['wet willow rods 7', 'correct horse battery', 'Zw9$kq-7Lm!x', 'osiers grow by the Lode'])(
  '%s is taken',
  (password) => expect(isCommon(password)).toBe(false),
);

test('sessions are ended: all others of one’s own, and all of somebody by the head; event streams end with them', async () => {
  const { id } = (await add('ines')).body;
  const [here, there] = [await signIn('ines'), await signIn('ines')];
  const stream = await fetch(`${t.running.address}/api/live/events`, { headers: { cookie: there.cookie } });
  const reader = stream.body!.getReader();
  await reader.read();
  expect((await here.ask('POST', '/me/end-sessions')).body).toEqual({ ended: 1 });
  expect((await there.ask('GET', '/today')).status).toBe(401);
  expect((await here.ask('GET', '/today')).status).toBe(200);
  for (;;) if ((await reader.read()).done) break;
  expect((await here.ask('POST', `/people/${id}/end-sessions`)).status).toBe(403);
  expect((await head('POST', `/people/${id}/end-sessions`)).body).toEqual({ ended: 1 });
  expect((await here.ask('GET', '/today')).status).toBe(401);
});

test('one’s own password is changed with the one that is', async () => {
  await add('nan');
  const nan = await signIn('nan');
  const wrong = await nan.ask<Problem>('PUT', '/me/password', {
    now: 'nonsense',
    password: 'quite another 44',
  });
  expect([wrong.status, wrong.body.fields?.[0]?.field]).toEqual([422, 'now']);
  expect((await nan.ask('PUT', '/me/password', { now: PASSWORD, password: 'quite another 44' })).status).toBe(
    200,
  );
  expect((await signIn('nan', 'quite another 44')).status).toBe(200);
});

test('tries for one account are limited, with problem details; answers are not kept; cookies are safe', async () => {
  await add('target');
  const tries = [];
  for (let i = 0; i < 12; i++)
    tries.push(
      await t.ask<Problem>('POST', '/sign-in', { login: i % 2 ? 'TARGET' : 'target', password: 'wrong' }),
    );
  const last = tries.at(-1)!;
  expect([last.status, last.headers.get('content-type'), last.body.detail]).toEqual([
    429,
    expect.stringContaining('problem+json'),
    expect.stringMatching(/Too many tries/),
  ]);
  expect(last.headers.get('cache-control')).toBe('no-store');
  const demo = await t.ask('POST', '/sign-in/demo', { person: 3 });
  expect(demo.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Strict/);
});

test('behind a proxy that is trusted the cookie of https goes by https only; the word of any other is not taken', async () => {
  const https = { 'x-forwarded-proto': 'https' };
  const signedIn = async (ask: Ask) =>
    (await ask('POST', '/sign-in/demo', { person: 3 }, https)).headers.get('set-cookie');
  const behind = await startTesting({ trustProxy: 'loopback' });
  try {
    expect(await signedIn(behind.ask)).toMatch(/; Secure/);
    expect((await behind.ask('POST', '/sign-in/demo', { person: 3 })).headers.get('set-cookie')).not.toMatch(
      /; Secure/,
    );
  } finally {
    await behind.stop();
  }
  expect(await signedIn(t.ask)).not.toMatch(/; Secure/);
});

test('of 20 that have the code, one becomes the first head', async () => {
  const fresh = await startTesting({ fill: false, demo: false });
  const code = (await fresh.running.services.people.firstHeadCode())!;
  const all = await Promise.all(
    Array.from({ length: 20 }, (_, i) =>
      fresh.ask('POST', '/first-head', { code, name: `N${i}`, login: `name${i}`, password: PASSWORD }),
    ),
  );
  expect(all.filter((a) => a.status === 200)).toHaveLength(1);
  expect(await fresh.running.services.people.all()).toHaveLength(1);
  await fresh.stop();
});
