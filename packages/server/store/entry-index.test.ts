// Taking back a large entry piece by piece must be what taking it back whole is.
import { creation, invert, rebase, removal, update, type Conflict, type Standing } from '@osier/core/changes';
import type { Change } from '@osier/core/kinds';
import { headingFrom, headingsOf } from '@osier/core/headings';
import type { Holding } from '@osier/core/holdings';
import { field, type MarcRecord } from '@osier/core/marc';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { commit } from './commit';
import { digestOf } from './digest';
import { entryIndex } from './entry-index';
import { entryParts } from './entry-parts';
import { openEmpty } from '../testing/library';
import type { Store } from './store';
import { takeable } from './takeable';
import { undoPlan } from './undo';
import { TESTED } from '../testing/tested';

let folder: string;
let store: Store;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'osier-index-'));
  store = await openEmpty(folder);
});
afterEach(async () => {
  await store.close();
  rmSync(folder, { recursive: true });
});

const record = (title: string, author = 'Reedman, Amos'): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [field('100', '1 ', 'a', author), field('245', '10', 'a', title)],
});
const heading = (id: number, author: string) =>
  creation('heading', id, headingFrom(headingsOf(record('x', author))[0]!));
const holding = (record: number): Holding => ({
  record,
  ...{
    branch: 'MR',
    location: 'OPEN',
    scheme: 'dewey',
    prefix: '',
    class: '746',
    item: '',
    suffix: '',
    note: '',
  },
});
const act = (changes: readonly Change[], entry?: number) =>
  commit(store, { did: TESTED, person: 1, changes, entry });
const inOrder = (changes: readonly Change[]) =>
  [...changes].sort((a, b) => (a.kind === b.kind ? a.id - b.id : a.kind < b.kind ? -1 : 1));
/** What the rules of core say of the whole entry at once, without what hangs on it: the pieces are held against it. */
async function asAWhole(entry: number) {
  const done: Change[] = [];
  for await (const { changes } of entryParts(store, entry)) done.push(...changes);
  const inverse = invert(done);
  const standing = new Map<string, Standing>();
  for (const { kind, id } of inverse) {
    const now = await store.read(kind, id);
    if (now) standing.set(`${kind} ${id}`, now);
  }
  const versions = new Map(inverse.map((c) => [`${c.kind} ${c.id}`, c.version]));
  return rebase(
    inverse,
    (kind, id) =>
      standing.get(`${kind} ${id}`) ?? { version: versions.get(`${kind} ${id}`) ?? 0, value: null },
  );
}
const named = (list: readonly Conflict[]) =>
  list.map((c) => `${c.kind} ${c.id} ${JSON.stringify(c.found)}`).sort();
async function both(entry: number) {
  const [whole, pieces] = [await asAWhole(entry), await undoPlan(store, await entryIndex(store, [entry]))];
  return {
    whole: { changes: inOrder(whole.changes), conflicts: named(whole.conflicts) },
    pieces: { changes: inOrder(pieces.changes), conflicts: named(pieces.conflicts) },
    order: pieces.changes.map((c) => `${c.kind} ${c.id}`),
  };
}

test('records made, changed and removed in several parts come back the same', async () => {
  await act([creation('record', 1, record('A')), creation('record', 2, record('B'))]);
  const [one, two] = [(await store.read('record', 1))!, (await store.read('record', 2))!];
  const entry = await act([update('record', one, record('A2')), creation('record', 3, record('C'))]);
  await act([removal('record', two), creation('holding', 5, holding(3))], entry);
  await act([update('record', (await store.read('record', 1))!, record('A3'))], entry);
  const { whole, pieces, order } = await both(entry);
  expect(pieces).toEqual(whole);
  expect(pieces.conflicts).toEqual([]);
  // The holding goes before the record that it hangs on.
  expect(order.indexOf('holding 5')).toBeLessThan(order.indexOf('record 3'));
});

test('what was changed since is a conflict, and so is what hangs on a thing that would go', async () => {
  const entry = await act([creation('record', 1, record('A')), creation('record', 2, record('B'))]);
  await act([creation('record', 3, record('C'))], entry);
  await act([update('record', (await store.read('record', 2))!, record('B, revised'))]);
  await act([creation('holding', 5, holding(3))]);
  await act([removal('record', (await store.read('record', 1))!)]);
  const { whole, pieces } = await both(entry);
  // Core knows of the first two; that a holding hangs on record 3 is the store's to know.
  expect(whole.conflicts).toHaveLength(2);
  expect(pieces.conflicts).toEqual([...whole.conflicts, 'record 3 null'].sort());
});

test('a new heading that another record has by now stays; one that nothing else has goes', async () => {
  const entry = await act([
    creation('record', 1, record('A', 'Reedman, Amos')),
    heading(10, 'Reedman, Amos'),
    creation('record', 2, record('B', 'Sallow, Ida')),
    heading(11, 'Sallow, Ida'),
  ]);
  await act([creation('record', 3, record('C', 'Sallow, Ida'))]);
  const { pieces } = await both(entry);
  expect(pieces.conflicts).toEqual([]);
  expect(pieces.changes.map((c) => `${c.kind} ${c.id}`)).toEqual(['heading 10', 'record 1', 'record 2']);
});

test('what somebody changed between two parts of an entry is not lost with them', async () => {
  await act([creation('record', 1, record('A')), creation('record', 2, record('B'))]);
  const [one, two] = [(await store.read('record', 1))!, (await store.read('record', 2))!];
  const entry = await act([update('record', one, record('A2')), update('record', two, record('B2'))]);
  await act([update('record', (await store.read('record', 1))!, record('A2 by hand'))]);
  await act([update('record', (await store.read('record', 1))!, record('A3'))], entry);
  const { conflicts } = await undoPlan(store, await entryIndex(store, [entry]));
  expect(conflicts.map((c) => `${c.kind} ${c.id}`)).toEqual(['record 1']);
});

test('entries one after another are one act; what was brought back between them begins anew', async () => {
  await act([creation('record', 1, record('A'))]);
  const version = async () => (await store.read('record', 1))!;
  const first = await act([update('record', await version(), record('A2'))]);
  const back = await act([update('record', await version(), record('A'))]);
  await act([update('record', await version(), record('A by hand'))]);
  const again = await act([update('record', await version(), record('A3'))]);
  const { changes, conflicts } = await undoPlan(store, await entryIndex(store, [first, back, again]));
  expect(conflicts).toEqual([]);
  expect(changes).toMatchObject([{ before: record('A3'), after: record('A by hand') }]);
});

test('a part of what an act did goes back alone, unless the rest hangs on it', async () => {
  const entry = await act([
    creation('record', 1, record('A')),
    creation('record', 2, record('B')),
    creation('holding', 5, holding(2)),
  ]);
  const index = await entryIndex(store, [entry]);
  const of = (...keys: string[]) => index.objects.filter((o) => keys.includes(`${o.kind} ${o.id}`));
  const alone = await undoPlan(store, index, { together: of('record 1') });
  expect([alone.changes.length, alone.conflicts]).toEqual([1, []]);
  const hangs = await undoPlan(store, index, { together: of('record 2') });
  expect(hangs.conflicts).toMatchObject([{ kind: 'record', id: 2, dependsOn: 'holding' }]);
  expect((await undoPlan(store, index, { together: of('record 2', 'holding 5') })).conflicts).toEqual([]);
});

test('what is back already is passed over', async () => {
  await act([creation('record', 1, record('A'))]);
  const before = (await store.read('record', 1))!;
  const entry = await act([update('record', before, record('A2')), creation('record', 2, record('B'))]);
  await act([update('record', (await store.read('record', 1))!, record('A'))]);
  const { whole, pieces } = await both(entry);
  expect(pieces).toEqual(whole);
  expect(pieces.changes.map((c) => c.id)).toEqual([2]);
});

test('a part that was taken back before a kill is not taken back again', async () => {
  const entry = await act([creation('record', 1, record('A')), creation('record', 2, record('B'))]);
  await act([removal('record', (await store.read('record', 2))!)]);
  const index = await entryIndex(store, [entry]);
  expect((await takeable(store, index)).conflicts).toHaveLength(1);
  const resumed = await takeable(store, index, { begun: true });
  expect(resumed.conflicts).toEqual([]);
  expect(resumed.objects.map((o) => o.id)).toEqual([1]);
});

test('whatever an entry does and whatever is done since, piece by piece is as whole', async () => {
  const step = fc.record({
    id: fc.integer({ min: 1, max: 4 }),
    title: fc.constantFrom('willow', 'hazel', 'rush', null),
  });
  let next = 100;
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(step, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 4 }),
      fc.array(step, { maxLength: 3 }),
      async (parts, since) => {
        const base = (next += 10);
        const doing = async (steps: typeof since, entry?: number) => {
          let made = entry;
          for (const { id, title } of steps) {
            const held = await store.read('record', base + id);
            if (!held && title === null) continue;
            const change = !held
              ? creation('record', base + id, record(title!))
              : title === null
                ? removal('record', held)
                : update('record', held, record(title));
            if (held && JSON.stringify(held.value) === JSON.stringify(change.after)) continue;
            const done = await act([change], made);
            made = entry === -1 ? undefined : done;
          }
          return made;
        };
        let entry: number | undefined;
        for (const steps of parts) entry = await doing(steps, entry);
        if (entry === undefined) return;
        for (const one of since) await doing([one]);
        const { whole, pieces } = await both(entry);
        expect(pieces.conflicts).toEqual(whole.conflicts);
        if (whole.conflicts.length === 0) expect(pieces.changes).toEqual(whole.changes);
      },
    ),
    { numRuns: 40 },
  );
});

test.each<[unknown, unknown, boolean]>([
  [{ a: 1, b: [2] }, { b: [2], a: 1 }, true],
  [{ a: 1, b: undefined }, { a: 1 }, true],
  [{ a: [1, 2] }, { a: [2, 1] }, false],
  [{ a: '1' }, { a: 1 }, false],
  [null, null, true],
  [null, {}, false],
])('%j and %j have one digest: %p', (a, b, same) => expect(digestOf(a) === digestOf(b)).toBe(same));
