import {
  ENDPOINTS,
  PERMISSIONS,
  may,
  type DaybookPage,
  type Problem,
  type SetUp,
  type Welcome,
} from '@osier/contract';
import { startTesting } from '../testing/running';

describe('a real installation', () => {
  let t: Awaited<ReturnType<typeof startTesting>>;
  beforeAll(async () => (t = await startTesting({ fill: false, demo: false })));
  afterAll(() => t.stop());

  test('the first head’s account is made with the code from the console, once', async () => {
    expect((await t.ask<Welcome>('GET', '/welcome')).body).toEqual({
      person: null,
      demo: null,
      needsFirstHead: true,
    });
    const code = await t.running.services.people.firstHeadCode();
    const body = { code: '0000-0000-0000', name: 'Ann', login: 'ann', password: 'long enough 12' };
    expect((await t.ask<Problem>('POST', '/first-head', body)).body.detail).toContain('not the code');
    expect((await t.ask<Problem>('POST', '/first-head', { ...body, password: 'short' })).body.fields).toEqual(
      [{ field: 'password', message: expect.stringContaining('12 characters') as string }],
    );
    const made = await t.ask('POST', '/first-head', { ...body, code });
    expect(made.status).toBe(200);
    const cookie = made.headers.get('set-cookie')!;
    expect(cookie).toMatch(/HttpOnly/i);
    expect(cookie).toMatch(/SameSite=Strict/i);
    expect((await t.ask('POST', '/first-head', { ...body, code, login: 'eve' })).status).toBe(422);
    expect(await t.running.services.people.firstHeadCode()).toBeNull();
  });

  test('sign in, sign out; passwords are kept as scrypt keys', async () => {
    expect(
      (await t.ask<Problem>('POST', '/sign-in', { login: 'ann', password: 'wrong wrong' })).body.detail,
    ).toContain('not right');
    const { headers } = await t.ask('POST', '/sign-in', { login: 'ann', password: 'long enough 12' });
    const cookie = headers.get('set-cookie')!.split(';')[0]!;
    expect((await t.ask('GET', '/today', undefined, { cookie })).status).toBe(200);
    await t.ask('POST', '/sign-out', {}, { cookie });
    expect((await t.ask('GET', '/today', undefined, { cookie })).status).toBe(401);
    const [row] = await t.running.services.store.rows<{ password: string }>('SELECT password FROM people');
    expect(row!.password).toMatch(/^[0-9a-f]{32}:[0-9a-f]{128}$/);
  });

  test('the demo’s one-click sign-in is not there', async () =>
    expect((await t.ask('POST', '/sign-in/demo', { person: 1 })).status).toBe(422));

  test('lists can be laid down from nothing', async () => {
    const { headers } = await t.ask('POST', '/sign-in', { login: 'ann', password: 'long enough 12' });
    const cookie = headers.get('set-cookie')!.split(';')[0]!;
    const lists = {
      version: 0,
      branches: [{ code: 'A', name: 'Main' }],
      locations: [{ code: 'X', name: 'Shelf', branch: 'A' }],
      types: [],
      funds: [{ code: 'GEN', name: 'General' }],
      suppliers: [],
    };
    expect(
      (
        await t.ask<Problem>(
          'PUT',
          '/set-up/lists',
          { ...lists, locations: [{ code: 'X', name: 'S', branch: 'B' }] },
          { cookie },
        )
      ).body.detail,
    ).toContain('not on the list');
    const done = await t.ask<{ entry: number }>('PUT', '/set-up/lists', lists, { cookie });
    expect(done.status).toBe(200);
    await t.ask('POST', `/daybook/${done.body.entry}/undo`, {}, { cookie });
    expect((await t.ask<SetUp>('GET', '/set-up', undefined, { cookie })).body.lists.value.branches).toEqual(
      [],
    );
  });
});

describe('who may do what', () => {
  let t: Awaited<ReturnType<typeof startTesting>>;
  beforeAll(async () => (t = await startTesting()));
  afterAll(() => t.stop());

  test('every route refuses who is not signed in, and every role that is not allowed', async () => {
    const assistant = await t.as(3);
    const guarded = ENDPOINTS.filter((r) => r.permission !== null && !r.path.endsWith('/events'));
    expect(guarded.length).toBeGreaterThan(35);
    for (const r of guarded) {
      const path = r.path.replace(/:\w+/g, '1');
      const [method, body] = [r.method.toUpperCase(), r.method === 'get' ? undefined : {}];
      expect([r.path, (await t.ask(method, path, body)).status]).toEqual([r.path, 401]);
      if (!may('assistant', r.permission!))
        expect([r.path, (await assistant(method, path, body)).status]).toEqual([r.path, 403]);
    }
  });
  test('the head gives a person the right to start stocktakes, which is told, and takes it again', async () => {
    const [head, assistant] = [await t.as(1), await t.as(3)];
    const stretch = { name: 'By an assistant', branch: 'MR' };
    expect((await assistant('POST', '/stocktakes', stretch)).status).toBe(403);
    const { people } = (await head<SetUp>('GET', '/set-up')).body;
    const { name, role } = people.find((p) => p.id === 3)!;
    const give = (rights: readonly string[]) =>
      head('PUT', '/people/3', { name, role, active: true, rights });
    expect(
      (await assistant('PUT', '/people/3', { name, role, active: true, rights: ['manage stocktakes'] }))
        .status,
    ).toBe(403);
    expect((await give(['set up'])).status).toBe(422);
    expect((await give(['manage stocktakes'])).status).toBe(200);
    expect((await assistant('POST', '/stocktakes', stretch)).status).toBe(201);
    expect((await assistant<Welcome>('GET', '/welcome')).body.person?.rights).toEqual(['manage stocktakes']);
    const said = (await head<DaybookPage>('GET', '/daybook')).body.rows.map((r) => r.sentence);
    expect(said).toContain(`Changed the account of ${name}: may manage stocktakes`);
    // Nothing said about rights: they stay.
    expect((await head('PUT', '/people/3', { name, role, active: true })).status).toBe(200);
    expect((await assistant('POST', '/stocktakes', stretch)).status).toBe(201);
    expect((await give([])).status).toBe(200);
    expect((await assistant('POST', '/stocktakes', stretch)).status).toBe(403);
  });
  test('writes by other sites are refused', async () => {
    const head = await t.as(1);
    const body = { name: 'x', branch: 'MR' };
    expect(
      (await head('POST', '/withdrawal-lists', body, { origin: 'https://elsewhere.example' })).status,
    ).toBe(403);
    expect((await head('POST', '/withdrawal-lists', body, { 'sec-fetch-site': 'cross-site' })).status).toBe(
      403,
    );
    expect((await head('POST', '/withdrawal-lists', body, { origin: t.running.address })).status).toBe(201);
  });
  test('too much at once, no JSON, no such path', async () => {
    const head = await t.as(1);
    expect((await head('POST', '/withdrawal-lists', { name: 'x'.repeat(5_000_000) })).status).toBe(413);
    expect((await head('GET', '/nowhere')).status).toBe(404);
    const response = await fetch(`${t.running.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{',
    });
    expect(response.status).toBe(400);
  });
  test('health is ok', async () => {
    expect((await t.ask('GET', '/health')).body).toEqual({ status: 'ok' });
  });
  test('the house’s lists keep codes that are in use', async () => {
    const head = await t.as(1);
    const { lists } = (await head<SetUp>('GET', '/set-up')).body;
    const bad = (
      await head<Problem>('PUT', '/set-up/lists', {
        version: lists.version,
        ...lists.value,
        types: lists.value.types.slice(1),
      })
    ).body;
    expect(bad.detail).toMatch(/BK is used by \d+ copies/);
    for (const [list, code] of [
      ['funds', 'GEN'],
      ['suppliers', 'TP'],
    ] as const) {
      const without = lists.value[list].filter((e) => e.code !== code);
      const { status, body } = await head<Problem>('PUT', '/set-up/lists', {
        version: lists.version,
        ...lists.value,
        [list]: without,
      });
      expect([status, body.fields![0]!.field]).toEqual([422, list]);
      expect(body.detail).toMatch(new RegExp(`^${code} is used by \\d+ copies`));
    }
  });
  test('permissions name a role each', () =>
    expect(Object.values(PERMISSIONS).every((r) => ['assistant', 'cataloguer', 'head'].includes(r))).toBe(
      true,
    ));
});
