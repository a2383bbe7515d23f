import { Validator } from '@seriousme/openapi-schema-validator';
import { ENDPOINTS } from '@osier/contract';
import { allRoutes } from '../app';
import { breachOf } from '../testing/keeps-contract';
import { startTesting } from '../testing/running';

/** The description is held against the OpenAPI 3.1 schema of the OpenAPI Initiative, by a kept validator. */
let t: Awaited<ReturnType<typeof startTesting>>;
beforeAll(async () => (t = await startTesting()));
afterAll(() => t.stop());

type Described = { paths: Record<string, Record<string, Record<string, unknown>>> };
const described = async () => (await t.ask<Described>('GET', '/openapi.json')).body;

test('the description is OpenAPI 3.1, and a broken one is told', async () => {
  const document = await described();
  expect(await new Validator().validate(document)).toEqual({ valid: true });
  const broken = structuredClone(document);
  broken.paths['/copies']!.post!.parameters = [{ name: 'x', in: 'nowhere' }];
  expect((await new Validator().validate(broken)).valid).toBe(false);
});

test('every row of the table is served and described, and nothing else', async () => {
  const named = (e: { method: string; path: string }) => `${e.method} ${e.path}`;
  const rows = ENDPOINTS.map(named).sort();
  expect(new Set(rows).size).toBe(rows.length);
  expect(
    allRoutes(t.running.services)
      .map((r) => named(r.endpoint))
      .sort(),
  ).toEqual(rows);
  const { paths } = await described();
  const told = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path.replace(/\{(\w+)\}/g, ':$1')}`),
  );
  expect(told.sort()).toEqual(rows);
});

test('bodies, queries and answers are described part by part', async () => {
  const { paths } = await described();
  const at = (path: string, method: string) => JSON.stringify(paths[path]![method]);
  expect(at('/copies', 'post')).toContain('"maximum":10000000000');
  expect(at('/records', 'get')).toContain('{"name":"language","in":"query"');
  expect(at('/records/{id}', 'get')).toContain('"ind1":{"type":"string"}');
  expect(at('/records/facets', 'get')).toContain('"additionalProperties":{"type":"integer"}');
  expect(at('/withdrawal-lists/{id}', 'get')).toContain('"enum":["clear","caution","stop"]');
  // Every answer that is JSON says more than that it is an object.
  for (const [path, methods] of Object.entries(paths))
    for (const [method, operation] of Object.entries(methods)) {
      const responses = operation.responses as Record<
        string,
        { content?: Record<string, { schema?: object }> }
      >;
      const schema = Object.entries(responses).find(([s]) => s.startsWith('2'))![1].content?.[
        'application/json'
      ]?.schema;
      if (schema) expect([path, method, JSON.stringify(schema).length > 40]).toEqual([path, method, true]);
    }
});

test.each<[string, string, number, unknown, RegExp | null]>([
  ['GET', '/outside', 200, { loansDesk: 'here', since: null, neighbours: [] }, null],
  ['GET', '/outside', 200, { loansDesk: 'gone', since: null, neighbours: [] }, /loansDesk/],
  [
    'GET',
    '/outside',
    200,
    { loansDesk: 'here', since: null, neighbours: [], more: 1 },
    /unspecified keys: more/,
  ],
  ['POST', '/copies', 200, { id: 1, entry: 2, sentence: '' }, /the contract says 201/],
  ['POST', '/copies', 201, { id: 1, entry: '2', sentence: '' }, /entry must be a `number`/],
  ['GET', '/daybook/7', 409, {}, /not in the contract/],
  ['GET', '/daybook/7', 404, { detail: 'x' }, /type/],
  ['GET', '/piles/7', 404, { type: 'about:blank', title: 't', status: 404, detail: 'd' }, null],
  ['GET', '/nowhere', 404, 'anything', null],
])('an answer that breaks the contract is noticed: %s %s %p %p', (method, path, status, body, said) => {
  const breach = breachOf(method, path, status, body);
  if (said === null) expect(breach).toBeNull();
  else expect(breach).toMatch(said);
});
