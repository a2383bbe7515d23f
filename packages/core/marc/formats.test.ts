import fc from 'fast-check';
import { anyRecord } from '../testing/records';
import { compareRecords } from './compare';
import { applyEdits } from './edit';
import { marcJson } from './json';
import { lineForm } from './lines';
import { recogniseFormat } from './recognise';
import { controlValue, field, firstValue, type MarcRecord } from './record';
import { recordReader } from './reader';
import { encodeUtf8 } from './charset/utf8';
import { utf8Stream } from './charset/utf8-stream';
import { JsonFromBytes, jsonRoom, readIso2709, writeIso2709 } from './iso2709';
import { newLayout, readLayout } from './iso2709/clean-layout';
import { MARCXML_END, MARCXML_START, marcXmlElement } from './xml';

const readAll = (format: 'json' | 'marcxml' | 'lines', text: string, size = 7) => {
  const reader = recordReader(format);
  const bytes = encodeUtf8(text);
  const found = [];
  for (let at = 0; at < bytes.length; at += size) found.push(...reader.push(bytes.slice(at, at + size)));
  return [...found, ...reader.end()].map((r) => r.record);
};
/** XML 1.0 cannot carry some characters, and white space at the ends of attributes is normalised. */
const xmlSafe = (r: MarcRecord) =>
  !/[\u0000-\u001f\ufffe\uffff]/.test(JSON.stringify(r).replace(/\\u00[01]./g, '\u0001'));

describe('MARC-in-JSON and MARCXML', () => {
  test('JSON written and read is the same, line by line or as an array', () => {
    fc.assert(
      fc.property(fc.array(anyRecord, { minLength: 1, maxLength: 3 }), (records) => {
        expect(readAll('json', records.map((r) => `${marcJson(r)}\n`).join(''))).toEqual(records);
        expect(readAll('json', `[${records.map(marcJson).join(',\n')}]`)).toEqual(records);
      }),
      { numRuns: 40 },
    );
  });

  test('XML written and read is the same', () => {
    fc.assert(
      fc.property(fc.array(anyRecord.filter(xmlSafe), { minLength: 1, maxLength: 3 }), (records) => {
        expect(
          readAll('marcxml', MARCXML_START + records.map(marcXmlElement).join('') + MARCXML_END),
        ).toEqual(records);
      }),
      { numRuns: 40 },
    );
  });

  test('lines written and read are the same, whatever dollars and line breaks stand in the texts', () => {
    const withDollars = fc
      .tuple(anyRecord, fc.constantFrom('', '$', '$5.00', 'a$$b$', '$c', 'one\ntwo', '\n', ' \n$'))
      .map(([r, text]): MarcRecord => ({
        ...r,
        fields: [...r.fields, field('365', '  ', 'b', text, 'c', `x${text}`)],
      }));
    fc.assert(
      fc.property(fc.array(withDollars, { minLength: 1, maxLength: 3 }), (records) => {
        expect(readAll('lines', records.map(lineForm).join(''))).toEqual(records);
        expect(readAll('lines', records.map(lineForm).join('').replaceAll('\n', '\r\n'))).toEqual(records);
      }),
      { numRuns: 60 },
    );
  });

  const lines = (text: string) => {
    const reader = recordReader('lines');
    return [...reader.push(encodeUtf8(text)), ...reader.end()];
  };
  test('lines as a person writes them: blanks for indicators, no leader, what is no field told', () => {
    const [copied, second, none, ...more] = lines(
      '245 10 $aEels$c$$2\n650  0 $aEels\n700    $aReed\n\nLDR    00000nam\n500 ## An index.$bIt\nwhat is this\n\nnothing here',
    );
    expect(copied!.record).toEqual({
      leader: '00000nam a2200000 i 4500',
      fields: [
        field('245', '10', 'a', 'Eels', 'c', '$2'),
        field('650', ' 0', 'a', 'Eels'),
        field('700', '  ', 'a', 'Reed'),
      ],
    });
    expect(copied!.repairs.map((r) => r.code)).toEqual(['leader']);
    expect(second!.record!.fields).toEqual([field('500', '  ', 'a', 'An index.', 'b', 'It')]);
    expect(second!.repairs).toMatchObject([
      { code: 'no-delimiter', repaired: true },
      { code: 'unreadable', repaired: false, message: '“what is this” is not a field and was left out.' },
    ]);
    expect(second!.offset).toBe(48);
    expect(none!.record).toBeNull();
    expect(more).toEqual([]);
  });
  test('any text at all as lines is read without a throw, and takes no good record with it', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        const good = { leader: '00000nam a2200000 i 4500', fields: [field('245', '10', 'a', 'Eels')] };
        expect(lines(`${text}\n${lineForm(good)}`).at(-1)!.record).toEqual(good);
      }),
    );
  });

  test('XML with a prefix, and without a namespace', () => {
    const inner = (p: string) =>
      `<${p}collection><${p}record><${p}leader>00000nam a2200000   4500</${p}leader><${p}datafield tag="245" ind1="1" ind2="0"><${p}subfield code="a">A &amp; B</${p}subfield></${p}datafield></${p}record></${p}collection>`;
    for (const text of [
      inner('marc:').replace(
        '<marc:collection',
        '<marc:collection xmlns:marc="http://www.loc.gov/MARC21/slim"',
      ),
      inner(''),
    ])
      expect(readAll('marcxml', text)).toEqual([
        { leader: '00000nam a2200000   4500', fields: [field('245', '10', 'a', 'A & B')] },
      ]);
  });

  const read = (text: string | Uint8Array) => {
    const reader = recordReader('marcxml');
    const bytes = typeof text === 'string' ? encodeUtf8(text) : text;
    const found = [];
    for (let at = 0; at < bytes.length; at += 9) found.push(...reader.push(bytes.slice(at, at + 9)));
    return { found: [...found, ...reader.end()], problem: reader.problem(), leftover: reader.leftover() };
  };
  const element = (n: string, title = 'Eels') =>
    `<record><leader>00000nam a2200000 i 4500</leader><controlfield tag="001">${n}</controlfield><datafield tag="245" ind1="1" ind2="0"><subfield code="a">${title}</subfield></datafield></record>`;
  const numbers = (text: string) =>
    read(text).found.map((r) => [r.record && controlValue(r.record, '001'), r.repairs.map((x) => x.code)]);

  test('entities of one’s own are not expanded, and are told', () => {
    const { found } = read(
      `<!DOCTYPE x [<!ENTITY a "boom">]><collection>${element('1', '&a;')}</collection>`,
    );
    expect(JSON.stringify(found[0]!.record)).not.toContain('boom');
    expect(found[0]!.repairs).toMatchObject([
      { code: 'xml', message: expect.stringContaining('entity') as string },
    ]);
  });
  test.each<[string, string, string]>([
    [
      'a tag that is not closed',
      '<record><leader>00000nam a2200000 i 4500</leader><controlfield tag="001">2<datafield></record>',
      'xml',
    ],
    ['a record that is not closed', element('2').replace('</record>', ''), 'truncated'],
    ['a character that XML has not', element('2', 'Ee\u0001ls'), 'xml'],
    ['an ampersand alone', element('2', 'Eels & traps'), 'xml'],
  ])('%s does not touch the records around it', (_, broken, code) => {
    const found = numbers(`<collection>${element('1')}\n${broken}\n${element('3')}</collection>`);
    expect(found[0]).toEqual(['1', []]);
    expect(found[1]![1]).toContain(code);
    expect(found[2]).toEqual(['3', []]);
  });
  const title = (r: { record: MarcRecord | null } | undefined) =>
    r?.record && firstValue(r.record, '245', 'a');
  test.each<[string, string, string, string[]]>([
    ['an ampersand alone', 'Eels & traps', 'Eels & traps', ['xml']],
    ['a less-than sign alone', 'Eels < 2 years', 'Eels < 2 years', ['xml']],
    ['an entity of HTML', 'Caf&eacute; &amp; bar', 'Caf&eacute; & bar', ['xml']],
    ['a character that XML has not', 'Ee\u0001ls', 'Ee ls', ['xml']],
    ['a reference to one', 'Ee&#1;ls', 'Ee ls', ['xml']],
    ['elements in the text', 'Eels <b>and</b> traps', 'Eels and traps', ['xml']],
    ['a comment', 'Eels <!-- and --> too', 'Eels  too', []],
  ])('%s: the text is kept, and told', (_, given, kept, codes) => {
    const [found] = read(`<collection>${element('2', given)}</collection>`).found;
    expect(title(found)).toBe(kept);
    expect(found!.repairs.map((r) => r.code)).toEqual(codes);
  });
  test('text outside subfields is kept as subfield a, and told', () => {
    const text = element('2').replace('<subfield code="a">', 'The <subfield code="a">');
    const [found] = read(text).found;
    expect(found!.record!.fields[1]).toEqual(field('245', '10', 'a', 'The', 'a', 'Eels'));
    expect(found!.repairs.map((r) => r.code)).toEqual(['no-delimiter']);
  });
  test('records in the answers of SRU and OAI-PMH, whose wrappers are called records too', () => {
    const wrapped = (n: string) => `<record><recordData>${element(n)}</recordData></record>`;
    expect(numbers(`<records>${wrapped('1')}\n${wrapped('2')}</records>`)).toEqual([
      ['1', []],
      ['2', []],
    ]);
  });
  test('empty record elements are none', () => {
    expect(numbers(`<collection><record/>${element('1')}<record /></collection>`)).toEqual([['1', []]]);
  });
  test('bytes that are no UTF-8 are read as Windows-1252, and told with the record that has them', () => {
    const text = `<collection>${element('1', 'Caf\u00c3\u00a9')}${element('2', 'Caf\u00e9')}${element('3')}</collection>`;
    const { found } = read(Uint8Array.from(text, (c) => c.charCodeAt(0)));
    expect(found.map(title)).toEqual(['Café', 'Café', 'Eels']);
    expect(found.map((r) => r.repairs.map((x) => x.code))).toEqual([[], ['bad-bytes'], []]);
  });
  test('a file that breaks off keeps the text so far', () => {
    const text = `<collection>${element('1')}${element('2')}`;
    const { found } = read(text.slice(0, text.lastIndexOf('els<')));
    expect(title(found[1])).toBe('E');
  });
  test('a file that breaks off keeps the fields before', () => {
    const text = `<collection>${element('1')}${element('2')}`;
    const { found, leftover } = read(text.slice(0, -30));
    expect(found[1]!.record!.fields).toHaveLength(2);
    expect(found[1]!.repairs.map((r) => r.code)).toContain('truncated');
    expect(leftover.map((r) => r.code)).toEqual(['truncated']);
  });
  test('the encoding that the file declares', () => {
    const latin = `<?xml version="1.0" encoding="ISO-8859-1"?><collection>${element('1', 'Caf\u00e9')}</collection>`;
    const bytes = Uint8Array.from(latin, (c) => c.charCodeAt(0));
    const utf16 = new Uint8Array(
      Buffer.from(`\ufeff<collection>${element('1', 'Café')}</collection>`, 'utf16le'),
    );
    for (const file of [bytes, utf16]) {
      expect(recogniseFormat(file)).toEqual({ format: 'marcxml' });
      expect(firstValue(read(file).found[0]!.record!, '245', 'a')).toBe('Café');
    }
  });
  test('XML without a record says why', () => {
    expect(read('<collection></collection>').problem).toMatch(/no record/);
    expect(read('<collection><leader></collection>').problem).toMatch(/unexpected close tag|unclosed/);
  });
});

describe('JSON that is not quite MARC-in-JSON', () => {
  const read = (bytes: Uint8Array) => {
    const reader = recordReader('json');
    return [...reader.push(bytes), ...reader.end()];
  };
  test('what is no field, no subfield or no text is left out and named; the rest is kept', () => {
    const [found] = read(
      encodeUtf8(
        '{"leader":"00000nam a2200000 i 4500","fields":[{"001":"x"},{"245":{"ind1":"1","ind2":"0","subfields":[{"a":"Eels"},{"b":null},5,{"n":2}]}},{"500":7},"odd"]}',
      ),
    );
    expect(found!.record!.fields).toEqual([
      { tag: '001', value: 'x' },
      field('245', '10', 'a', 'Eels', 'n', '2'),
    ]);
    expect(found!.repairs.map((r) => [r.code, r.repaired])).toEqual(
      Array.from({ length: 4 }, () => ['unreadable', false]),
    );
    expect(found!.repairs.map((r) => r.message).join(' ')).toMatch(/245 \$b .*245 .*500 .*"odd"/);
  });
  test('bytes that are no UTF-8 are read as Windows-1252, and told', () => {
    const line = (title: string) =>
      `{"leader":"00000nam a2200000 i 4500","fields":[{"245":{"ind1":"1","ind2":"0","subfields":[{"a":"${title}"}]}}]}\n`;
    const found = read(Uint8Array.from(line('Eels') + line('Caf\u00e9 \u0096'), (c) => c.charCodeAt(0)));
    expect(found.map((r) => firstValue(r.record!, '245', 'a'))).toEqual(['Eels', 'Café –']);
    expect(found.map((r) => r.repairs.map((x) => x.code))).toEqual([[], ['bad-bytes']]);
  });
});

describe('UTF-8 as it comes in pieces', () => {
  test('text cut anywhere is the same text, and only bytes that are none are counted', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.string({ unit: 'grapheme' }), fc.constant('\u00ff bad'))),
        fc.integer({ min: 1, max: 9 }),
        (parts, size) => {
          const bytes = Buffer.concat(
            parts.map((p) => (p === '\u00ff bad' ? Buffer.from(p, 'latin1') : Buffer.from(p))),
          );
          const stream = utf8Stream();
          let text = '';
          for (let at = 0; at < bytes.length; at += size) text += stream.push(bytes.subarray(at, at + size));
          text += stream.end();
          expect(text).toBe(parts.join(''));
          expect(stream.badBetween(0, text.length)).toBe(parts.filter((p) => p === '\u00ff bad').length);
        },
      ),
    );
  });
});

describe('what a file is', () => {
  test.each<[string, string, RegExp]>([
    ['PDF', '%PDF-1.7', /PDF/],
    ['zip', 'PK\u0003\u0004', /ZIP/],
    ['web page', '<!doctype html><html>', /web page/],
    ['other XML', '<?xml version="1.0"?><rss></rss>', /rss/],
    ['table', 'title,author\nA,B\n', /table/],
    ['barcodes', '31204000500001\n31204000500019\n', /barcodes/],
    ['prose', 'Dear colleagues, here are the files.', /plain text/],
    ['nothing', '  \n', /empty/],
    ['other JSON', '{"a":1}', /JSON/],
  ])('%s is refused with what it looks like', (_, text, said) => {
    const found = recogniseFormat(Uint8Array.from(text, (c) => c.charCodeAt(0)));
    expect('problem' in found && found.problem).toMatch(said);
  });
  test.each([
    ['00123nam a2200037 i 4500', 'iso2709'],
    ['\n<?xml version="1.0"?><collection>', 'marcxml'],
    ['{"leader":"…"', 'json'],
  ])('%s', (text, format) => {
    expect(recogniseFormat(encodeUtf8(text))).toEqual({ format });
  });
});

describe('edits and comparison', () => {
  const record: MarcRecord = {
    leader: '00000nam a2200000 i 4500',
    fields: [field('245', '10', 'a', 'The Willow bed'), field('650', ' 0', 'a', 'Willows')],
  };
  test('edits make new values and leave the old', () => {
    const next = applyEdits(record, [
      { op: 'text', at: 0, subfield: 0, value: 'The willow bed' },
      { op: 'remove', at: 1 },
    ]);
    expect(next.fields).toEqual([field('245', '10', 'a', 'The willow bed')]);
    expect(record.fields).toHaveLength(2);
  });
  test('an edit that points nowhere is a bug and throws', () => {
    expect(() => applyEdits(record, [{ op: 'remove', at: 9 }])).toThrow(RangeError);
  });
  test('a comparison names what stayed, changed, went and came', () => {
    const after = applyEdits(record, [
      { op: 'text', at: 0, subfield: 0, value: 'The willow bed' },
      { op: 'replace', at: 1, field: field('651', ' 0', 'a', 'Osmere') },
    ]);
    expect(compareRecords(record, after).map((p) => p.change)).toEqual(['same', 'changed', 'lost', 'new']);
  });
  test('a record compared with itself has no difference', () => {
    fc.assert(
      fc.property(anyRecord, (r) =>
        expect(compareRecords(r, r).every((p) => p.change === 'same')).toBe(true),
      ),
      { numRuns: 30 },
    );
  });
});

describe('MARC-in-JSON straight from the bytes', () => {
  const json = new JsonFromBytes();
  const layout = newLayout();
  const straight = (bytes: Uint8Array) => {
    if (!readLayout(layout, bytes, 0, bytes.length)) return null;
    const out = new Uint8Array(jsonRoom(bytes.length));
    const end = json.write(layout, out, 0);
    return end < 0 ? null : new TextDecoder().decode(out.subarray(0, end));
  };
  test('is what reading and writing gives, or is left to that', () => {
    let done = 0;
    fc.assert(
      fc.property(anyRecord, (r) => {
        const bytes = writeIso2709(r);
        const text = straight(bytes);
        if (text === null) return;
        done++;
        expect(text).toBe(`${marcJson(readIso2709(bytes)[0]!.record!)}\n`);
      }),
      { numRuns: 300 },
    );
    expect(done).toBeGreaterThan(150);
  });
  test.each<[string, string]>([
    ['text that is not NFC', 'cafe\u0301'],
    ['text encoded twice', 'cafÃ©'],
  ])('%s is left to the reader', (_, text) => {
    const leader = '00000nam a2200000 i 4500';
    expect(straight(writeIso2709({ leader, fields: [field('245', '10', 'a', text)] }))).toBeNull();
  });
});
