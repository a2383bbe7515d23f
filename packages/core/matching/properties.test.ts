import fc from 'fast-check';
import { DEFAULT_HOUSE, isProtected } from '../house';
import { field, isData, type Field, type MarcRecord } from '../marc';
import { anyRecord, comparable } from '../testing/records';
import {
  DEFAULT_RULE,
  describe as describeRecord,
  findMatches,
  likeness,
  matchKeys,
  mergeFields,
  replaceRecord,
} from '.';

const text = (f: Field) => JSON.stringify(f);
const local = (n: number) => field('949', '  ', 'a', `ours ${n}`);
/** A record that some field of ours stands in. */
const held = fc
  .tuple(anyRecord, fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 3 }))
  .map(([r, ours]): MarcRecord => ({ ...r, fields: [...r.fields, ...ours.map(local)] }));

test('replacing keeps every field of ours and brings all that is theirs', () => {
  fc.assert(
    fc.property(held, anyRecord, (ours, theirs) => {
      const texts = replaceRecord(ours, theirs, DEFAULT_HOUSE).fields.map(text);
      const kept = ours.fields.filter(
        (f) => isProtected(f.tag, DEFAULT_HOUSE) || ['001', '003'].includes(f.tag),
      );
      for (const f of kept) expect(texts).toContain(text(f));
      for (const f of theirs.fields)
        if (!isProtected(f.tag, DEFAULT_HOUSE) && !['001', '003'].includes(f.tag))
          expect(texts).toContain(text(f));
      const lost = ours.fields.filter(
        (f) => !kept.includes(f) && !theirs.fields.some((t) => text(t) === text(f)),
      );
      for (const f of lost) expect(texts).not.toContain(text(f));
    }),
  );
});
test('merging loses and changes nothing that is held, and doing it twice is doing it once', () => {
  fc.assert(
    fc.property(held, anyRecord, (ours, theirs) => {
      const merged = mergeFields(ours, theirs, DEFAULT_HOUSE);
      expect(merged.leader).toBe(ours.leader);
      const rest = merged.fields.map(text);
      for (const f of ours.fields) {
        const at = rest.indexOf(text(f));
        expect(at).toBeGreaterThanOrEqual(0);
        rest.splice(at, 1);
      }
      const theirTexts = theirs.fields.map(text);
      for (const added of rest) expect(theirTexts).toContain(added);
      expect(comparable(mergeFields(merged, theirs, DEFAULT_HOUSE))).toEqual(comparable(merged));
    }),
  );
});
test('a record merged into itself is itself', () => {
  fc.assert(fc.property(anyRecord, (r) => expect(mergeFields(r, r, DEFAULT_HOUSE)).toEqual(r)));
});
test('likeness is the same from either side, and no number beyond 0 and 100', () => {
  fc.assert(
    fc.property(anyRecord, anyRecord, (a, b) => {
      const [there, back] = [
        likeness(describeRecord(a), describeRecord(b)),
        likeness(describeRecord(b), describeRecord(a)),
      ];
      expect(there.score).toBe(back.score);
      expect(there.score).toBeGreaterThanOrEqual(0);
      expect(there.score).toBeLessThanOrEqual(100);
    }),
  );
});
test('a titled record is wholly like itself, and meets itself by some key', () => {
  const titled = anyRecord.map((r) => ({
    ...r,
    fields: [
      ...r.fields.filter((f) => f.tag !== '245'),
      field('245', '10', 'a', 'Notes on the eels of the fens'),
    ],
  }));
  fc.assert(
    fc.property(titled, (r) => {
      const description = describeRecord(r);
      expect(likeness(description, description).parts.filter((p) => p.like !== 1)).toEqual([]);
      const keys = (x: MarcRecord) => matchKeys(describeRecord(x)).map((k) => `${k.kind} ${k.key}`);
      expect(keys(r).length).toBeGreaterThan(0);
      expect(keys(r)).toEqual(keys({ ...r }));
    }),
  );
});
test('any two records can be weighed: matches are told once each, the strongest first', () => {
  fc.assert(
    fc.property(anyRecord, fc.array(anyRecord, { maxLength: 5 }), (incoming, candidates) => {
      const found = findMatches(
        describeRecord(incoming),
        candidates.map((c, i) => ({ record: i, description: describeRecord(c) })),
        DEFAULT_RULE,
      );
      expect(new Set(found.map((m) => m.record)).size).toBe(found.length);
      const order = found.map((m) => [m.sure ? 0 : 1, -m.strength]);
      expect(order).toEqual([...order].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!));
      for (const m of found) expect(m.points.length).toBeGreaterThan(0);
    }),
  );
});
test('a record without a title is like no other by its title', () => {
  const bare = { leader: '00000nam a2200000 i 4500', fields: [field('010', '  ', 'a', 'x')] };
  const subtitle = { ...bare, fields: [field('245', '00', 'b', 'a study')] };
  for (const [a, b] of [
    [bare, subtitle],
    [subtitle, bare],
    [bare, bare],
  ] as const)
    expect(likeness(describeRecord(a), describeRecord(b)).parts[0]).toMatchObject({ name: 'title', like: 0 });
});
test('the fields of a record that are no data are never compared', () => {
  fc.assert(
    fc.property(anyRecord, (r) => {
      const bare = {
        ...r,
        fields: r.fields.filter((f) => isData(f) || ['001', '003', '008'].includes(f.tag)),
      };
      expect(describeRecord(bare)).toEqual(describeRecord(r));
    }),
  );
});
