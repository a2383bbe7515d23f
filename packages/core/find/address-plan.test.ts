import fc from 'fast-check';
import { hasAny, isAddress, parseAddress } from '../address';
import { RECORD_WORDS, wordsAt } from '../access';
import { field, type MarcRecord } from '../marc';
import { addressPlan, isJoined, type FindPlan } from '.';

const plan = (written: string): FindPlan | null => {
  const address = parseAddress(written);
  if (!isAddress(address)) throw new Error(address.problem);
  return addressPlan(address);
};
/** A plan as a line: words that go on with a star. */
const said = (of: FindPlan | null): string => {
  if (of === null) return '—';
  if (isJoined(of)) return `(${of.of.map(said).join(` ${of.type} `)})`;
  if (of.type !== 'words') throw new Error('Words alone are asked for.');
  return of.words.map((w) => w.text + (w.isBeginning ? '*' : '')).join(' ');
};

test.each([
  ['650$a{$a=\\Eels\\sof\\sthe\\sLode.}', 'eels of the lode'],
  ['650$a{=\\Eels}', 'eels'],
  ['650{$a=\\Eels}', 'eels'],
  ['245$c{650$a=\\Eels}', 'eels'],
  ['245$a{~\\the\\swillow\\sroad}', 'willow road*'],
  ['245$a/0-3{=\\Eels}', 'eels'],
  ['650$a{=\\Eels|=\\Lampreys}', '(eels or lampreys)'],
  ['650$a{=\\Eels}{$x=\\History}', '(eels and history)'],
  ['650$a{=\\Eels}$x{=\\History}', '(eels or history)'],
  ['650$a{=\\Eels}{$x!=\\History}', 'eels'],
  // What the index has not, or not as a whole, is not told by it.
  ['650$a', '—'],
  ['650$a{~\\eel}', '—'],
  ['650$a{=\\Eels|$x}', '—'],
  ['650$a{=\\Eels}$x', '—'],
  ['650{=\\Eels}', '—'],
  ['650$0{=\\123}', '—'],
  ['65.$a{=\\Eels}', '—'],
  ['001{=\\123}', '—'],
  ['856$u{=\\http\\:}', '—'],
  ['245$a{=\\...}', '—'],
  ['245$a{=\\ΟΔΟΣ}', '—'],
])('%s asks the index for %s', (written, words) => expect(said(plan(written))).toBe(words));

/** Whether a record has the words of a plan in its index. */
function hasWords(record: MarcRecord, of: FindPlan): boolean {
  const words = RECORD_WORDS.flatMap((point) => wordsAt(point, record).split(' '));
  if (isJoined(of))
    return of.type === 'and'
      ? of.of.every((p) => hasWords(record, p))
      : of.of.some((p) => hasWords(record, p));
  return (
    of.type === 'words' &&
    of.words.every((w) => words.some((have) => (w.isBeginning ? have.startsWith(w.text) : have === w.text)))
  );
}

const text = fc
  .array(
    fc.constantFrom('Eel', 'eels', ' ', ' ', '-', "'", '’s', 'é', 'é', 'Æ', '2', '.', 'ß', '中国', 'ﬁ'),
    { minLength: 1, maxLength: 6 },
  )
  .map((parts) => parts.join(''));
const subfield = fc.record({ code: fc.constantFrom('a', 'b', 'c', 'x', '0', 'u'), value: text });
const records: fc.Arbitrary<MarcRecord> = fc
  .array(
    fc.record({
      tag: fc.constantFrom('245', '650', '700', '505', '020', '856', '264', '880', '949'),
      subfields: fc.array(subfield, { minLength: 1, maxLength: 4 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((fields) => ({
    leader: '',
    fields: fields.map((f) => ({ ...field(f.tag, '  '), subfields: f.subfields })),
  }));
const written = fc.record({
  range: fc.constantFrom('', '', '/0-4'),
  isMany: fc.boolean(),
  operator: fc.constantFrom('=', '~'),
});
const escaped = (value: string) => value.replace(/[ $\\{}|!=~?:]/g, (c) => (c === ' ' ? '\\s' : `\\${c}`));

test('every record that has something at an address has the words that the index is asked for', () => {
  let narrowed = 0;
  fc.assert(
    fc.property(records, written, fc.nat(), fc.nat(5), (record, { range, isMany, operator }, pick, cut) => {
      const all = record.fields.flatMap((f) =>
        'subfields' in f ? f.subfields.map((s) => ({ tag: f.tag, ...s })) : [],
      );
      const { tag, code, value } = all[pick % all.length]!;
      const part = operator === '~' ? value.slice(cut % value.length) : value;
      const line = `${tag}$${isMany ? 'a-c' : code}${range}{${operator}\\${escaped(part)}}`;
      const address = parseAddress(line);
      if (!isAddress(address)) return;
      const asked = addressPlan(address);
      if (!hasAny(record, address) || asked === null) return;
      narrowed++;
      expect(hasWords(record, asked)).toBe(true);
    }),
    { numRuns: 5000 },
  );
  expect(narrowed).toBeGreaterThan(500);
});
