import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { field, type MarcRecord } from '../marc';
import { readExplain, readSruAnswer } from '../neighbours';
import { dublinCore, explainResponse, readSruRequest, scanResponse, searchRefused, searchResponse } from '.';

const record: MarcRecord = {
  leader: '00000nam a2200000 i 4500',
  fields: [
    { tag: '008', value: '240101s1998    enka   g      000 0 eng d' },
    field('020', '  ', 'a', '0306406152'),
    field('100', '1 ', 'a', 'Fenn, Ada,', 'd', '1950-', 'e', 'author.'),
    field('245', '14', 'a', 'The eels of Osmere :', 'b', 'a life & more /', 'c', 'Ada Fenn.'),
    field('264', ' 1', 'a', 'Leeds :', 'b', 'Withy Press,', 'c', '1998.'),
    field('300', '  ', 'a', '212 pages ;', 'c', '22 cm'),
    field('520', '  ', 'a', 'An account of eels.'),
    field('650', ' 0', 'a', 'Eels', 'z', 'Brindle Moor.'),
    field('700', '1 ', 'a', 'Holt, Ben.'),
    field('856', '40', 'u', 'https://example.org/?a=1&b=2'),
  ],
};
const bytes = (text: string) => new TextEncoder().encode(text);
const isWellFormed = (xml: string) => void new SaxesParser({ xmlns: true }).write(xml).close();

test('a record in Dublin Core, by the crosswalk of the Library of Congress', () => {
  expect(dublinCore(record)).toEqual([
    ['title', 'The eels of Osmere : a life & more'],
    ['creator', 'Fenn, Ada, 1950-'],
    ['contributor', 'Holt, Ben'],
    ['subject', 'Eels--Brindle Moor'],
    ['publisher', 'Leeds : Withy Press'],
    ['date', '1998'],
    ['type', 'Text'],
    ['format', '212 pages ; 22 cm'],
    ['language', 'eng'],
    ['identifier', 'urn:isbn:9780306406157'],
    ['identifier', 'https://example.org/?a=1&b=2'],
    ['description', 'An account of eels'],
  ]);
  expect(dublinCore({ leader: record.leader, fields: [] }).map(([name]) => name)).toEqual(['type']);
});

test.each([
  [{}, { operation: 'explain', version: '1.2', packing: 'xml' }],
  [
    { operation: 'searchRetrieve', version: '1.1', query: 'eels', maximumRecords: '500' },
    {
      operation: 'searchRetrieve',
      version: '1.1',
      query: 'eels',
      start: 1,
      most: 50,
      schema: 'marcxml',
      packing: 'xml',
    },
  ],
  [
    {
      operation: 'searchRetrieve',
      query: 'eels',
      recordSchema: 'info:srw/schema/1/dc-v1.1',
      startRecord: '11',
      recordPacking: 'string',
    },
    {
      operation: 'searchRetrieve',
      version: '1.2',
      query: 'eels',
      start: 11,
      most: 10,
      schema: 'dc',
      packing: 'string',
    },
  ],
  [
    { operation: 'scan', version: '1.2', scanClause: 'title = e', maximumTerms: '7', responsePosition: '8' },
    { operation: 'scan', version: '1.2', clause: 'title = e', position: 8, most: 7 },
  ],
])('the request %j', (said, asked) => {
  expect(readSruRequest(new Map(Object.entries(said)))).toEqual(asked);
});

test.each([
  [{ operation: 'delete' }, 4],
  [{ operation: 'explain', version: '3.0' }, 5],
  [{ operation: 'searchRetrieve' }, 7],
  [{ operation: 'searchRetrieve', query: 'a', maximumRecords: '-1' }, 6],
  [{ operation: 'searchRetrieve', query: 'a', recordSchema: 'mods' }, 66],
  [{ operation: 'scan', scanClause: 'a', maximumTerms: '0' }, 6],
  [{ operation: 'scan', scanClause: 'a', maximumTerms: '2', responsePosition: '4' }, 120],
])('the request %j is refused with diagnostic %i', (said, code) => {
  expect(readSruRequest(new Map(Object.entries(said)))).toMatchObject({ refused: { code } });
});

test('what is answered is read as what was meant, whatever is in the records', () => {
  const text = fc.oneof(
    fc.string({ minLength: 1, unit: 'binary' }),
    fc.constantFrom('<&>"\u0007', ']]>', '\ud800', '\uffff', 'é '),
  );
  fc.assert(
    fc.property(
      fc.array(text, { minLength: 1, maxLength: 4 }),
      fc.constantFrom('xml' as const, 'string' as const),
      fc.constantFrom('marcxml' as const, 'dc' as const),
      (texts, packing, schema) => {
        const marc = {
          leader: record.leader,
          fields: [...record.fields, ...texts.map((t) => field('500', '  ', 'a', t))],
        };
        const xml = searchResponse('1.2', {
          ...{ count: 7, records: [{ id: 3, marc }], start: 2, schema, packing },
          diagnostics: [{ code: 60, message: texts[0]!, details: texts[0]! }],
        });
        isWellFormed(xml);
        expect(xml).toContain('<zs:nextRecordPosition>3<');
        const read = readSruAnswer(bytes(xml));
        expect(read).toMatchObject({ count: 7, problem: null, diagnostics: [{ code: '60' }] });
        if (schema === 'marcxml') expect(read.records[0]!.record!.fields).toHaveLength(marc.fields.length);
        isWellFormed(
          scanResponse(
            '1.1',
            texts.map((t) => ({ value: t, count: 1, shown: t })),
          ),
        );
        isWellFormed(searchRefused('1.1', { code: 10, message: texts[0]!, details: texts[0]! }));
        isWellFormed(
          explainResponse('1.2', { host: texts[0]!, port: 80, title: texts[0]!, records: 3 }, packing),
        );
      },
    ),
  );
});

test('the explain record says by what it can be asked', () => {
  const place = { host: 'osier.example', port: 443, title: 'Wickmere', records: 3 };
  const read = readExplain(bytes(explainResponse('1.1', place)));
  expect(read).toMatchObject({ title: 'Wickmere', most: 50 });
  expect(read!.indexes).toEqual(expect.arrayContaining(['dc.title', 'bath.isbn', 'cql.anywhere']));
});
