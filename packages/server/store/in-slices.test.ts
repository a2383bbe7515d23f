import { inSlices } from './in-slices';

const busy = (ms: number) => {
  for (const until = performance.now() + ms; performance.now() < until;);
};

test('things are mapped in their order, and others come in between when it takes long', async () => {
  const seen: string[] = [];
  setImmediate(() => seen.push('another'));
  const mapped = await inSlices([1, 2, 3], (n) => {
    seen.push(`begun ${n}`);
    busy(10);
    return n * 2;
  });
  expect(mapped).toEqual([2, 4, 6]);
  expect(seen).toEqual(['begun 1', 'another', 'begun 2', 'begun 3']);
});

test('what one throws ends it', async () => {
  const seen: number[] = [];
  const all = inSlices([1, 2, 3], (n) => {
    seen.push(n);
    if (n === 2) throw new Error('no');
  });
  await expect(all).rejects.toThrow('no');
  expect([seen, await inSlices([], () => 1)]).toEqual([[1, 2], []]);
});
