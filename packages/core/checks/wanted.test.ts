import fc from 'fast-check';
import { field, type MarcRecord } from '../marc';
import { CHECKS } from '.';
import { viewOf } from './take-apart';
import { wantedBy } from './wanted';

const LEADERS = ['00000nam a2200000 i 4500', '00000nz  a2200000n  4500', '00000nx  a22000001n 4500'];
const tag = fc.oneof(
  fc.constantFrom(...new Set(CHECKS.flatMap((c) => c.needs ?? []))),
  fc.constantFrom('599', '999', 'AVA', '9A1', '0'),
);
const record = fc
  .tuple(fc.constantFrom(...LEADERS), fc.array(tag, { maxLength: 12 }))
  .map(([leader, tags]): MarcRecord => ({ leader, fields: tags.map((t) => field(t, '  ', 'a', 'Reeds')) }));

test('a record wants the checks for its format that need none of its tags or one that it has', () => {
  const wanted = wantedBy(CHECKS);
  fc.assert(
    fc.property(fc.array(fc.option(record), { maxLength: 30 }), (records) => {
      const views = records.map((r) => r && viewOf(r));
      const expected = CHECKS.map(({ formats = ['bibliographic'], needs }) =>
        views.flatMap((view, i) =>
          view && formats.includes(view.format) && (!needs || needs.some((t) => view.tagged(t).length > 0))
            ? [i]
            : [],
        ),
      );
      expect(wanted(views)).toEqual(expected);
    }),
    { numRuns: 200 },
  );
});

test('no checks at all are wanted by none', () => expect(wantedBy([])([null])).toEqual([]));
