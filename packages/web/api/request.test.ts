/** @jest-environment jsdom */
import { api, filledPath } from '@osier/contract';
import { call, pathOf } from './call';
import { problemText, RequestProblem } from './request';

const get = () => call(api.overview.today);

const answer = (status: number, body: unknown, type = 'application/json') =>
  ({
    ok: status < 400,
    status,
    headers: { get: (name: string) => (name === 'content-type' ? type : null) },
    text: () => Promise.resolve(typeof body === 'string' ? body : JSON.stringify(body)),
  }) as unknown as Response;
const fetched = jest.fn<Promise<Response>, [string, RequestInit]>();
beforeEach(() => {
  fetched.mockReset();
  Object.assign(window, { fetch: fetched });
});

test.each([
  ['/records', {}, {}, '/records'],
  [
    '/records',
    {},
    { q: 'eels & reeds', after: 0, branch: '', language: undefined },
    '/records?q=eels%20%26%20reeds&after=0',
  ],
  ['/look-up', {}, { q: '650{$v}' }, '/look-up?q=650%7B%24v%7D'],
  ['/piles/:id/scans/:scan', { id: 7, scan: 8 }, {}, '/piles/7/scans/8'],
  ['/barcodes/:barcode', { barcode: '3/../4' }, {}, '/barcodes/3%2F..%2F4'],
])('%s with %p and %p is %s', (path, params, query, expected) =>
  expect(filledPath(path, params, query)).toBe(expected),
);
test('the path of an endpoint', () => {
  expect(pathOf(api.records.read, { params: { id: 7 } })).toBe('/records/7');
  expect(pathOf(api.records.search, { query: { q: 'eel', pile: 3 } })).toBe('/records?q=eel&pile=3');
});

test('what is asked goes to the API, as JSON', async () => {
  fetched.mockResolvedValue(answer(200, { id: 7 }));
  expect(await call(api.copies.add, { body: { holding: 1, barcode: '1', type: 'BK' } })).toEqual({ id: 7 });
  const [path, init] = fetched.mock.calls[0]!;
  expect(path).toBe('/api/copies');
  expect(init).toMatchObject({
    method: 'POST',
    body: '{"holding":1,"barcode":"1","type":"BK"}',
    headers: { 'content-type': 'application/json' },
  });
});
test('a no is told with its sentence, and beside the field that it is about', async () => {
  const fields = [
    { field: 'sheet.name', message: 'Give the supplier a name.' },
    { field: 'barcode', message: 'It is taken.' },
  ];
  fetched.mockResolvedValue(
    answer(422, { type: 'about:blank', title: 'Not right', status: 422, detail: 'Two things.', fields }),
  );
  const problem = await get().then(
    () => null,
    (e: unknown) => e as RequestProblem,
  );
  expect(problem).toBeInstanceOf(RequestProblem);
  expect(problemText(problem)).toBe('Two things.');
  expect([problem!.field('name'), problem!.field('barcode'), problem!.field('type')]).toEqual([
    'Give the supplier a name.',
    'It is taken.',
    undefined,
  ]);
});
test('a server that does not answer loses nothing that was typed', async () => {
  fetched.mockRejectedValue(new TypeError('failed'));
  await expect(get()).rejects.toThrow('What you typed is still here');
});
test('an answer that is no JSON is told by its number', async () => {
  fetched.mockResolvedValue(answer(502, '<html>bad gateway</html>', 'text/html'));
  await expect(get()).rejects.toThrow('The server answered 502.');
});
