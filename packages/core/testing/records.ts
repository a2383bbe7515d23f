import fc from 'fast-check';
import type { DataField, MarcRecord } from '../marc';

const text = fc
  .oneof(
    fc.string({ maxLength: 40 }),
    fc.constantFrom('Łódź', 'vannerie d’été', 'Корзина', 'קליעה', 'かご', '𝔥', 'a​b', 'ˈhe͡aʃ'),
  )
  .map((t) => t.replace(/[\u0000-\u001f\ufeff]|\p{Surrogate}/gu, '').normalize('NFC'));

const dataField = fc.record({
  tag: fc.integer({ min: 10, max: 999 }).map((n) => String(n).padStart(3, '0')),
  ind1: fc.constantFrom(' ', '0', '1'),
  ind2: fc.constantFrom(' ', '0', '4'),
  subfields: fc.array(fc.record({ code: fc.constantFrom(...'abcdxyz069'), value: text }), {
    minLength: 1,
    maxLength: 5,
  }),
}) as fc.Arbitrary<DataField>;

/** Records of any content that ISO 2709 can carry. */
export const anyRecord: fc.Arbitrary<MarcRecord> = fc.record({
  leader: fc.constant('00000nam a2200000 i 4500'),
  fields: fc
    .tuple(
      fc.array(fc.record({ tag: fc.constantFrom('001', '003', '008'), value: text }), { maxLength: 2 }),
      fc.array(dataField, { minLength: 1, maxLength: 12 }),
    )
    .map(([c, d]) => [...c, ...d]),
});

/** A record without the lengths in its leader, which writing recomputes. */
export const comparable = (r: MarcRecord): MarcRecord => ({
  ...r,
  leader: r.leader.slice(5, 12) + r.leader.slice(17),
});
