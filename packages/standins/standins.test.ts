import type { AddressInfo } from 'node:net';
import { handScanner } from './hand-scanner';
import { misread } from './misread';

test('most codes are read right, some with a letter or a digit lost', () => {
  const always =
    (...values: number[]) =>
    () =>
      values.shift() ?? 0.5;
  const code = '31204000500001';
  expect(misread(code, always(0.5))).toBe(code);
  expect(misread(code, always(0.91))).toBe(`A${code}B`);
  expect(misread(code, always(0.96))).toHaveLength(13);
  const wrong = misread(code, always(0.99, 0.5, 0.1));
  expect(wrong).toHaveLength(14);
  expect(wrong).not.toBe(code);
});

test('a scan goes to whoever listens', async () => {
  const server = handScanner([
    { name: 'Shelf </script>', copies: [{ barcode: '1', callNumber: '746', title: 'Eels' }] },
  ]);
  await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
  const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  expect(await (await fetch(at)).text()).not.toContain('Shelf </script>');
  const events = await fetch(`${at}/events`);
  const reader = events.body!.getReader();
  await reader.read();
  expect(await (await fetch(`${at}/scan?code=42&clean=1`, { method: 'POST' })).json()).toEqual({
    code: '42',
    heard: 1,
  });
  expect(new TextDecoder().decode((await reader.read()).value)).toBe('data: {"code":"42"}\n\n');
  await reader.cancel();
  expect((await fetch(`${at}/nowhere`)).status).toBe(404);
  server.closeAllConnections();
  server.close();
});
