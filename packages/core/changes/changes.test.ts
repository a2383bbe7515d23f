import fc from 'fast-check';
import {
  countChanges,
  counted,
  creation,
  invert,
  rebase,
  removal,
  sameValue,
  squash,
  update,
  type AnyChange,
} from '.';

type World = Map<string, { version: number; value: unknown }>;
const key = (c: { kind: string; id: number }) => `${c.kind} ${c.id}`;
const apply = (world: World, changes: readonly AnyChange[]): World => {
  const next = new Map(world);
  for (const c of changes)
    if (c.after === null) next.delete(key(c));
    else next.set(key(c), { version: c.version + 1, value: c.after });
  return next;
};
const content = (w: World) => [...w].map(([k, v]) => [k, v.value]).sort();
const standing = (w: World) => (kind: string, id: number) =>
  w.get(`${kind} ${id}`) ?? { version: 0, value: null };

/** Acts on a small world: each makes, changes or removes what is or is not there. */
const acts = fc.array(
  fc.array(
    fc.record({
      id: fc.integer({ min: 1, max: 4 }),
      to: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  { minLength: 1, maxLength: 5 },
);
function changesOf(world: World, act: { id: number; to: number | null }[]): readonly AnyChange[] {
  const made: AnyChange[] = [];
  for (const { id, to } of new Map(act.map((a) => [a.id, a])).values()) {
    const held = world.get(`x ${id}`);
    if (!held && to !== null) made.push(creation('x', id, { n: to }));
    else if (held)
      made.push(to === null ? removal('x', { id, ...held }) : update('x', { id, ...held }, { n: to }));
  }
  return made;
}

test('taking acts back one by one, last first, is the world as it was', () => {
  fc.assert(
    fc.property(acts, (all) => {
      const worlds: World[] = [new Map() as World];
      const done: (readonly AnyChange[])[] = [];
      for (const act of all) {
        const changes = changesOf(worlds.at(-1)!, act);
        done.push(changes);
        worlds.push(apply(worlds.at(-1)!, changes));
      }
      let world = worlds.at(-1)!;
      for (let i = done.length - 1; i >= 0; i--) {
        const back = rebase(invert(done[i]!), standing(world));
        expect(back.conflicts).toEqual([]);
        world = apply(world, back.changes);
        expect(content(world)).toEqual(content(worlds[i]!));
      }
    }),
  );
});

test('what has changed since is a conflict; what was changed and put back is not', () => {
  const first = [update('x', { id: 1, version: 1, value: 'a' }, 'b')];
  expect(rebase(invert(first), () => ({ version: 3, value: 'c' })).conflicts).toEqual([
    { kind: 'x', id: 1, expected: 'b', found: 'c' },
  ]);
  expect(rebase(invert(first), () => ({ version: 4, value: 'b' }))).toEqual({
    conflicts: [],
    changes: [{ kind: 'x', id: 1, version: 4, before: 'b', after: 'a' }],
  });
});

test('successive changes of one object are one, and nothing when it ends where it began', () => {
  const steps = [
    creation('x', 1, 'a'),
    { kind: 'x', id: 1, version: 1, before: 'a', after: 'b' },
    { kind: 'x', id: 2, version: 1, before: 'p', after: 'q' },
    { kind: 'x', id: 2, version: 2, before: 'q', after: 'p' },
  ];
  expect(squash(steps)).toEqual([{ kind: 'x', id: 1, version: 0, before: null, after: 'b' }]);
});

test('values are compared by content', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (v) => expect(sameValue(v, JSON.parse(JSON.stringify(v)))).toBe(true)),
  );
  expect(sameValue({ a: 1 }, { a: 1, b: undefined })).toBe(true);
  expect(sameValue([1], { 0: 1 })).toBe(false);
});

test('counts in words', () => {
  expect([counted(1, 'copy', 'copies'), counted(1200, 'record')]).toEqual(['1 copy', '1,200 records']);
  expect(
    countChanges([
      creation('a', 1, 1),
      removal('a', { id: 2, version: 1, value: 1 }),
      update('b', { id: 1, version: 1, value: 1 }, 2),
    ]),
  ).toEqual({ a: { made: 1, changed: 0, removed: 1 }, b: { made: 0, changed: 1, removed: 0 } });
});
