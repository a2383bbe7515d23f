// Kinds of damage as they come in suppliers' files, each done to the middle one of three records: the others are not
// touched by it, the damaged one is as whole as it can be, and what was done is told.
import fc from 'fast-check';
import { windows1252Character } from '../text';
import { anyRecord, comparable } from '../testing/records';
import { encodeUtf8 } from './charset/utf8';
import { encodeMarc8 } from './charset/marc8-encode';
import { beyondIso2709, iso2709Reader, readableRecords, readIso2709, writeIso2709 } from './iso2709';
import { marcJson } from './json';
import { recordReader } from './reader';
import { field, type Field, type MarcRecord } from './record';
import type { RepairCode } from './repair';

const record = (n: string, ...more: Field[]): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '001', value: `wick${n}` },
    { tag: '008', value: '120508s1990    enka   g      000 0 eng d' },
    field('100', '1 ', 'a', 'Reedman, Amos,', 'e', 'author.'),
    field('245', '10', 'a', `Notes on eel traps ${n} /`, 'c', 'Amos Reedman.'),
    field('650', ' 0', 'a', 'Willows', 'x', 'Uses.'),
    ...more,
  ],
});
const middle = record('2', field('500', '  ', 'a', 'Étude sur l’osier à Łódź.'));
const text = (bytes: Uint8Array) => Buffer.from(bytes).toString('latin1');
const bytes = (s: string) => new Uint8Array(Buffer.from(s, 'latin1'));
const good = text(writeIso2709(middle));
const base = Number(good.slice(12, 17));
const put = (s: string, at: number, what: string) => s.slice(0, at) + what + s.slice(at + what.length);
const insert = (s: string, at: number, what: string) => s.slice(0, at) + what + s.slice(at);
const remove = (s: string, at: number, n = 1) => s.slice(0, at) + s.slice(at + n);
const entryAt = (n: number) => 24 + 12 * n;
const dataOf = (n: number) => base + Number(good.slice(entryAt(n) + 7, entryAt(n) + 12));
const endOf = (n: number) => dataOf(n) + Number(good.slice(entryAt(n) + 3, entryAt(n) + 7)) - 1;

const first = text(writeIso2709(record('1')));
const third = text(writeIso2709(record('3')));
const read = (damaged: string) => readIso2709(bytes(first + damaged + third));
const fieldsOf = (r: { record: MarcRecord | null } | undefined) => r?.record?.fields;

describe('damage after which the record is whole', () => {
  test.each<[string, string, RepairCode]>([
    ['length too small', put(good, 0, '00100'), 'record-length'],
    ['length too great', put(good, 0, '09999'), 'record-length'],
    [
      'length that spans the next record',
      put(good, 0, String(good.length + third.length).padStart(5, '0')),
      'record-length',
    ],
    ['length of zeros', put(good, 0, '00000'), 'record-length'],
    ['length of letters', put(good, 0, 'abcde'), 'record-length'],
    ['length of blanks', put(good, 0, '     '), 'record-length'],
    ['base too small', put(good, 12, '00030'), 'base-address'],
    ['base too great', put(good, 12, '00200'), 'base-address'],
    ['base of letters', put(good, 12, 'xxxxx'), 'base-address'],
    ['one length in the directory wrong', put(good, entryAt(2) + 3, '0011'), 'directory'],
    ['one offset in the directory wrong', put(good, entryAt(2) + 7, '00003'), 'directory'],
    [
      'offsets all by one',
      [0, 1, 2, 3, 4, 5].reduce(
        (s, n) =>
          put(
            s,
            entryAt(n) + 7,
            String(Number(s.slice(entryAt(n) + 7, entryAt(n) + 12)) + 1).padStart(5, '0'),
          ),
        good,
      ),
      'directory',
    ],
    ['letters in the directory', put(good, entryAt(3) + 3, 'xxxxyyyyy'), 'directory'],
    ['a directory that lost a character', remove(good, entryAt(3) + 5), 'directory'],
    ['a directory that gained a character', insert(good, entryAt(3) + 5, '0'), 'directory'],
    ['no terminator behind the directory', remove(good, base - 1), 'directory-end'],
    ['a blank for the terminator behind the directory', put(good, base - 1, ' '), 'directory-end'],
    ['no record terminator', good.slice(0, -1), 'record-terminator'],
    ['two record terminators', good + '\x1d', 'record-terminator'],
    [
      'two record terminators that the length counts',
      put(good, 0, String(good.length + 1).padStart(5, '0')) + '\x1d',
      'record-terminator',
    ],
    [
      'a record terminator inside a field, not counted',
      insert(good, dataOf(3) + 9, '\x1d'),
      'record-terminator',
    ],
    ['a record terminator inside the directory', insert(good, entryAt(2) + 4, '\x1d'), 'record-length'],
    ['a field terminator inside the directory', insert(good, entryAt(2) + 1, '\x1e'), 'directory'],
    ['a field terminator for a digit of the directory', put(good, entryAt(2) + 4, '\x1e'), 'directory'],
    ['a line broken between indicators', insert(good, dataOf(3) + 1, '\r\n'), 'indicators'],
    ['a line end behind it', good + '\r\n', 'junk-between'],
    ['NULs behind it', good + '\0\0\0', 'nul-bytes'],
    ['words behind it', good + 'END OF FILE 3', 'junk-between'],
    ['a byte order mark before it', '\xef\xbb\xbf' + good, 'junk-between'],
    ['a field terminator lost', remove(good, endOf(2)), 'field-terminator'],
    ['a field terminator overwritten by a blank', put(good, endOf(2), ' '), 'field-terminator'],
    ['indicators where 22 belongs', put(good, 10, '  '), 'leader'],
    ['an entry map of its own', put(good, 20, '45  '), 'leader'],
    ['a control character in the leader', put(good, 17, '\x02'), 'leader'],
    ['a leader that lost a character', remove(good, 8), 'leader'],
    ['a leader that gained a character', insert(good, 8, ' '), 'leader'],
    ['a leader that gained a blank behind its coding', insert(good, 10, ' '), 'leader'],
    ['lengths counted in characters', countedInCharacters(), 'directory'],
    ['UTF-8 under a leader that says MARC-8', put(good, 9, ' '), 'charset-claim'],
    [
      'MARC-8 under a leader that says UTF-8',
      put(text(writeIso2709(middle, 'marc8')), 9, 'a'),
      'charset-claim',
    ],
    ['text encoded twice', twice(), 'twice-encoded'],
  ])('%s', (_, damaged, code) => {
    const [before, mended, after] = read(damaged);
    expect(fieldsOf(before)).toEqual(record('1').fields);
    expect(fieldsOf(after)).toEqual(record('3').fields);
    const told = [...mended!.repairs, ...after!.repairs];
    expect(told.map((r) => r.code)).toContain(code);
    for (const r of told) expect(r.message).toMatch(/^[A-Z“0-9].*\.$/s);
    const same = (f: Field) => JSON.stringify(f).replace(/Reedman, Amos,.*?author\.?\s*"/, '"');
    expect(mended!.record!.fields.map(same)).toEqual(middle.fields.map(same));
    expect(mended!.record!.leader.slice(5, 9) + mended!.record!.leader.slice(17)).toMatch(/^nam +i 4500$/);
  });

  function countedInCharacters(): string {
    let [at, directory, data] = [0, '', ''];
    for (const f of middle.fields) {
      const body =
        ('value' in f
          ? f.value
          : f.ind1 + f.ind2 + f.subfields.map((s) => `\x1f${s.code}${s.value}`).join('')) + '\x1e';
      directory += f.tag + String(body.length).padStart(4, '0') + String(at).padStart(5, '0');
      at += body.length;
      data += body;
    }
    return `${String(25 + directory.length + at + 1).padStart(5, '0')}nam a22${String(25 + directory.length).padStart(5, '0')} i 4500${directory}\x1e${text(encodeUtf8(data))}\x1d`;
  }
  function twice(): string {
    const again = (s: string) =>
      [...text(encodeUtf8(s))].map((c) => windows1252Character(c.charCodeAt(0))).join('');
    return text(
      writeIso2709({
        ...middle,
        fields: middle.fields.map((f) =>
          'value' in f ? f : { ...f, subfields: f.subfields.map((s) => ({ ...s, value: again(s.value) })) },
        ),
      }),
    );
  }
});

describe('damage after which something is left out or kept apart, and told as such', () => {
  test('an entry too few: the field without a name is kept as bytes', () => {
    const [, mended, after] = read(remove(good, entryAt(4), 12));
    expect(fieldsOf(mended)!.map((f) => f.tag)).toEqual(['001', '008', '100', '245', '500']);
    expect(fieldsOf(mended)![4]).toEqual(middle.fields[5]);
    const lost = mended!.repairs.find((r) => r.bytes);
    expect(lost).toMatchObject({ code: 'directory', repaired: false });
    expect(text(lost!.bytes!)).toContain('Willows');
    expect(fieldsOf(after)).toEqual(record('3').fields);
  });
  test('an entry too many: the field that is not there is named', () => {
    const [, mended] = read(insert(good, entryAt(3), '246002500000'));
    expect(fieldsOf(mended)!.map((f) => f.tag)).toEqual(['001', '008', '100', '245', '650', '500']);
    expect(mended!.repairs.find((r) => !r.repaired)!.message).toContain('246');
  });
  test('junk before a record is kept as bytes', () => {
    const [, , after] = read(good + 'HTTP/1.1 200 OK');
    expect(text(after!.repairs.find((r) => r.bytes)!.bytes!)).toBe('HTTP/1.1 200 OK');
  });
  test('a file that breaks off in a character keeps the fields before and the text so far', () => {
    const cut = bytes(first + good.slice(0, good.indexOf('\xc3\x89') + 1));
    const [, broken] = readIso2709(cut);
    expect(broken!.repairs.map((r) => r.code)).toContain('truncated');
    expect(fieldsOf(broken)!.slice(0, 5)).toEqual(middle.fields.slice(0, 5));
    expect(JSON.stringify(fieldsOf(broken)![5] ?? '')).not.toContain('Ã');
  });
  test('a record that breaks off inside a field does not take the next one with it', () => {
    const [, broken, after] = read(good.slice(0, dataOf(3) + 12));
    expect(fieldsOf(broken)!.slice(0, 3)).toEqual(middle.fields.slice(0, 3));
    expect(fieldsOf(after)).toEqual(record('3').fields);
  });
  test('wherever a record breaks off, every text that is left stands under its own tag', () => {
    for (let length = 24; length < good.length; length++) {
      const found = read(good.slice(0, length));
      expect(fieldsOf(found.at(-1))).toEqual(record('3').fields);
      for (const f of found.slice(1, -1).flatMap((r) => fieldsOf(r) ?? [])) {
        const whole = JSON.stringify(middle.fields.find((m) => m.tag === f.tag) ?? null);
        const left = 'value' in f ? f.value : (f.subfields.at(-1)?.value ?? '');
        expect(whole).toContain(JSON.stringify(left).slice(1, -1));
      }
    }
  });
  test.each([3, 9, 16, 18, 20])('a record of %i bytes is none, and is kept apart', (length) => {
    const found = read(good.slice(0, length));
    expect(fieldsOf(found.at(-1))).toEqual(record('3').fields);
    expect(found.flatMap((r) => r.repairs.flatMap((x) => (x.bytes ? text(x.bytes) : [])))).toEqual([
      good.slice(0, length),
    ]);
  });
  test('a field terminator inside a field', () => {
    const body = middle.fields.map((f, i) => (i === 2 ? field('100', '1 ', 'a', 'Reedman,\u0001 Amos') : f));
    const [, mended] = read(text(writeIso2709({ ...middle, fields: body })).replace('\x01', '\x1e'));
    expect(fieldsOf(mended)![2]).toEqual(field('100', '1 ', 'a', 'Reedman, Amos'));
    expect(fieldsOf(mended)!.map((f) => f.tag)).toEqual(middle.fields.map((f) => f.tag));
    expect(mended!.repairs.map((r) => r.code)).toContain('field-terminator');
  });
  test('a record terminator inside a field', () => {
    const body = middle.fields.map((f, i) => (i === 2 ? field('100', '1 ', 'a', 'Reedman,\u0001 Amos') : f));
    const found = read(text(writeIso2709({ ...middle, fields: body })).replace('\x01', '\x1d'));
    expect(found).toHaveLength(3);
    expect(fieldsOf(found[1])![2]).toEqual(field('100', '1 ', 'a', 'Reedman, Amos'));
  });
  test('line ends and an end-of-file mark after the last record are nothing', () => {
    const found = readIso2709(bytes(first + '\r\n\x1a'));
    expect(found.map((r) => r.repairs)).toEqual([[]]);
  });
});

describe('records that are too long', () => {
  const long = record(
    '2',
    field('505', '0 ', 'a', 'x'.repeat(20_000)),
    ...Array.from({ length: 12 }, () => field('500', '  ', 'a', 'y'.repeat(9_000))),
    field('520', '  ', 'a', 'z'),
  );
  test('are told, with the fields that are too long, at the very byte', () => {
    const of = (n: number): MarcRecord => ({ ...middle, fields: [field('500', '  ', 'a', 'x'.repeat(n))] });
    expect(beyondIso2709(of(9994))).toEqual({ length: null, fields: [] });
    expect(beyondIso2709(of(9995))).toEqual({ length: null, fields: [0] });
    // Written, the label says the length itself as long as it has room for it.
    for (const letter of ['x', 'é', '語']) {
      const full = (last: number): MarcRecord => ({
        ...middle,
        fields: [
          ...Array.from({ length: 9 }, () => field('500', '  ', 'a', 'x'.repeat(9990))),
          field('500', '  ', 'a', letter.repeat(last)),
        ],
      });
      const room = 99_999 - writeIso2709(full(0)).length;
      const most = Math.floor(room / encodeUtf8(letter).length);
      expect(beyondIso2709(full(most)).length).toBeNull();
      expect(beyondIso2709(full(most + 1)).length).toBe(writeIso2709(full(most + 1)).length);
    }
  });
  test('are written with 99999 and read whole', () => {
    const written = writeIso2709(long);
    expect(text(written).slice(0, 5)).toBe('99999');
    const [, found, after] = read(text(written));
    expect(fieldsOf(found)).toEqual(long.fields);
    expect(new Set(found!.repairs.map((r) => r.code))).toEqual(new Set(['too-long']));
    expect(fieldsOf(after)).toEqual(record('3').fields);
  });
});

describe('which encoding it is', () => {
  const body = (s: string, coding: string) => {
    const at = good.slice(0, 9) + coding + good.slice(10);
    const note = `  \x1fa${s}\x1e`;
    const data = at.slice(base, dataOf(5)) + note;
    return `${String(base + data.length + 1).padStart(5, '0')}${at.slice(5, 24)}${at.slice(24, entryAt(5))}500${String(note.length).padStart(4, '0')}${good.slice(entryAt(5) + 7, base)}${data}\x1d`;
  };
  const noteOf = (s: string, coding: string) => {
    const found = read(body(s, coding))[1]!;
    return [
      (fieldsOf(found)![5] as ReturnType<typeof field>).subfields[0]!.value,
      found.repairs.map((r) => r.code),
    ];
  };
  test.each<[string, string, string, string, RepairCode[]]>([
    [
      'Windows-1252 said to be UTF-8',
      'caf\xe9 \x96 \x93d\x92\xe9t\xe9\x94',
      'a',
      'café – “d’été”',
      ['bad-bytes'],
    ],
    [
      'two bad bytes among good UTF-8',
      '\xc3\x89tude \xe9 pla\xc3\xaet \x93',
      'a',
      'Étude é plaît “',
      ['bad-bytes'],
    ],
    [
      'Windows-1252 whose letters MARC-8 could have too',
      'Am\xe9lie, m\xe9diterran\xe9enne, p\xe8re',
      'a',
      'Amélie, méditerranéenne, père',
      ['bad-bytes'],
    ],
    ['MARC-8 said to be UTF-8', 'caf\xe2e d\xe2et\xe2e', 'a', 'café dété', ['charset-claim']],
    ['MARC-8 with escapes said to be UTF-8', '\x1b(NkNI\x1b(B', 'a', 'Кни', ['charset-claim']],
    ['UTF-8 said to be MARC-8', 'caf\xc3\xa9', ' ', 'café', ['charset-claim']],
    ['Windows-1252 said to be MARC-8', 'M\xfcller, caf\xe9 ', ' ', 'Müller, café ', ['charset-claim']],
    ['MARC-8 as it says', 'caf\xe2e \xb1\xe2od\xe6z', ' ', 'café łódz̆', []],
    ['numeric references in MARC-8', '&#x0416;', ' ', 'Ж', []],
    ['numeric references in UTF-8 are text', '&#x0416;', 'a', '&#x0416;', []],
  ])('%s', (_, s, coding, meant, codes) => {
    expect(noteOf(s, coding)).toEqual([meant, codes]);
  });
});

const damages = fc.array(
  fc.tuple(
    fc.integer({ min: 0, max: good.length - 1 }),
    fc.oneof(fc.integer({ min: 0, max: 255 }), fc.constantFrom(0x1d, 0x1e, 0x1f, 0x30)),
    fc.constantFrom('put', 'insert', 'remove'),
  ),
  { minLength: 1, maxLength: 6 },
);
const spoilt = (done: readonly (readonly [number, number, string])[]) =>
  done.reduce((s, [at, byte, how]) => {
    const c = String.fromCharCode(byte);
    return how === 'put' ? put(s, at, c) : how === 'insert' ? insert(s, at, c) : remove(s, at);
  }, good);

test('any damage at all, anywhere: nothing throws, and the records around it are whole', () => {
  fc.assert(
    fc.property(damages, (done) => {
      const found = readableRecords(read(spoilt(done))).map((r) => JSON.stringify(r.fields));
      expect(found).toContain(JSON.stringify(record('1').fields));
      expect(found).toContain(JSON.stringify(record('3').fields));
    }),
    { numRuns: 600 },
  );
});

test('a damaged file read in pieces of any size gives what it gives in one', () => {
  fc.assert(
    fc.property(damages, fc.integer({ min: 1, max: 400 }), (done, size) => {
      const file = bytes(first + spoilt(done) + third);
      const reader = iso2709Reader();
      const found = [];
      for (let at = 0; at < file.length; at += size) found.push(...reader.push(file.slice(at, at + size)));
      expect([...found, ...reader.end()]).toEqual(readIso2709(file));
    }),
    { numRuns: 400 },
  );
});

test('any record written as MARC-8 is the same when read', () => {
  fc.assert(
    fc.property(anyRecord, (r) => {
      const [back] = readIso2709(writeIso2709(r, 'marc8'));
      expect(back!.repairs).toEqual([]);
      expect(comparable(back!.record!)).toEqual(comparable(r));
    }),
  );
});
test('what MARC-8 text ends in is ASCII again', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (s) =>
      expect(text(encodeMarc8(s))).not.toMatch(/\x1b(\([^B]|[bgp]|\$1)[^\x1b]*$/),
    ),
  ));

test('any bytes at all before a good record, terminated or not: nothing throws and the record is found', () => {
  const byte = fc.oneof(
    fc.integer({ min: 0, max: 255 }),
    fc.constantFrom(0x1d, 0x1e, 0x1f, 0x20, 0x30, 0x32, 0x61),
  );
  fc.assert(
    fc.property(fc.array(byte, { maxLength: 300 }), (junk) => {
      const found = readableRecords(readIso2709(Uint8Array.from([...junk, ...bytes(first)])));
      expect(found.map((r) => JSON.stringify(r.fields))).toContain(JSON.stringify(record('1').fields));
    }),
    { numRuns: 500 },
  );
});
test.each(['iso2709', 'marcxml', 'json'] as const)(
  'any bytes at all read as %s throw nothing, in pieces of any size',
  (format) => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), fc.integer({ min: 1, max: 60 }), (content, size) => {
        const reader = recordReader(format);
        for (let at = 0; at < content.length; at += size) reader.push(content.slice(at, at + size));
        expect(Array.isArray(reader.end())).toBe(true);
      }),
      { numRuns: 200 },
    );
  },
);
test('a broken line of JSON does not take the lines after it with it', () => {
  const line = (n: string) => `${marcJson(record(n))}\n`;
  const reader = recordReader('json');
  const broken = line('2').slice(0, -30) + '\n';
  const found = [
    ...reader.push(encodeUtf8(line('1') + broken + line('3') + '{"leader":"x","fi\n' + line('4'))),
    ...reader.end(),
  ];
  expect(readableRecords(found).map((r) => r.fields[0])).toEqual(
    ['1', '3', '4'].map((n) => record(n).fields[0]),
  );
  expect(found.filter((r) => r.record === null).every((r) => r.repairs[0]!.code === 'unreadable')).toBe(true);
});
test('delimiters of ISO 2709 inside a text of JSON become blanks, and are told', () => {
  const reader = recordReader('json');
  const odd = { ...record('1'), fields: [field('500', '  ', 'a', 'one\u001etwo')] };
  const [read] = [...reader.push(encodeUtf8(marcJson(odd))), ...reader.end()];
  expect(read!.record!.fields).toEqual([field('500', '  ', 'a', 'one two')]);
  expect(read!.repairs.map((r) => r.code)).toEqual(['stray-delimiter']);
});
