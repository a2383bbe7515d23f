import { barcodeFor, rollNumber } from '@osier/core/barcodes';
import { COPY_BARCODES } from './barcodes';
import {
  encodeUtf8,
  field,
  isData,
  MARCXML_END,
  MARCXML_START,
  marcXmlElement,
  writeIso2709,
  type DataField,
  type MarcRecord,
} from '@osier/core/marc';
import {
  inLatin1,
  inMarc8,
  join,
  twiceEncoded,
  withLineEnd,
  withoutTerminator,
  wrongBase,
  wrongDirectory,
  wrongLength,
} from './damage';
import { SHELF_READY, shelf, WORKROOM, type Library } from './library';
import { isbn10, makeForeign, makeRecord } from './make-record';
import { makeAuthors, type Author } from './people';
import { randomFrom, type Random } from './random';
import { FOREIGN } from './foreign';

const titled = (m: MarcRecord) => m.fields.find((f) => f.tag === '245');

/** A record of our own as a supplier would send it: another control number, the same ISBN. */
function fromSupplier(m: MarcRecord, number: string, organisation: string): MarcRecord {
  return {
    ...m,
    fields: m.fields
      .filter((f) => f.tag !== '040')
      .map((f) =>
        f.tag === '001'
          ? { tag: '001', value: number }
          : f.tag === '003'
            ? { tag: '003', value: organisation }
            : f,
      ),
  };
}

const withFields = (m: MarcRecord, ...more: MarcRecord['fields'][number][]): MarcRecord => ({
  ...m,
  fields: [...m.fields, ...more],
});
const withCapital = (m: MarcRecord): MarcRecord => ({
  ...m,
  fields: m.fields.map((f) => {
    if (f.tag !== '245' || !isData(f) || f.ind2 === '0') return f;
    const skip = Number(f.ind2);
    return {
      ...f,
      subfields: f.subfields.map((s, i) =>
        i
          ? s
          : { ...s, value: s.value.slice(0, skip) + s.value[skip]!.toUpperCase() + s.value.slice(skip + 1) },
      ),
    };
  }),
});

/** The first subject once more, in small letters. */
function withSubjectTwice(m: MarcRecord): MarcRecord {
  const subject = m.fields.find((f) => f.tag === '650');
  if (!subject || !isData(subject)) return m;
  return withFields(m, {
    ...subject,
    subfields: subject.subfields.map((s) => ({ ...s, value: s.value.toLowerCase() })),
  });
}

function fresh(
  random: Random,
  authors: readonly Author[],
  from: number,
  count: number,
  organisation: string,
): MarcRecord[] {
  return Array.from({ length: count }, (_, i) =>
    fromSupplier(
      makeRecord(random, from + i, random.pick(authors), null).marc,
      `${organisation.slice(0, 2).toLowerCase()}${from + i}`,
      organisation,
    ),
  );
}

/** Delivery of a good supplier: 42 records, six of them held already, a few complaints for the recipe. */
export function cleanDelivery(library: Library): Uint8Array {
  const random = randomFrom(7);
  const authors = makeAuthors(randomFrom(46_001), 480);
  const held = library.records
    .filter((r) => r.marc.fields.some((f) => f.tag === '020'))
    .slice(20, 26)
    .map((r, i) => fromSupplier(r.marc, `tp88${i}`, 'TallowPike'));
  const news = fresh(random, authors, 60_000, 36, 'TallowPike').map((m, i) =>
    i % 2 === 0 ? withCapital(m) : i % 5 === 0 ? withSubjectTwice(m) : m,
  );
  return join(...random.shuffled([...news, ...held]).map((r) => writeIso2709(r)));
}

/**
 * Shelf-ready delivery: 24 records with a copy or several in 949, in the supplier's own codes, barcodes from the roll that is
 * reserved for it; three of books that the library holds, and among the rest a number that is taken, one of another
 * roll, one that is misprinted, a shelf that nobody knows, and a price in another currency.
 */
export function shelfReadyDelivery(library: Library): Uint8Array {
  const random = randomFrom(9);
  const authors = makeAuthors(randomFrom(46_001), 480);
  const held = library.records
    .filter((r) => r.marc.fields.some((f) => f.tag === '020'))
    .slice(40, 43)
    .map((r, i) => fromSupplier(r.marc, `rs77${i}`, 'ReedlingLS'));
  const records = random.shuffled([...fresh(random, authors, 90_000, 21, 'ReedlingLS'), ...held]);
  let serial = SHELF_READY.from;
  const next = () => rollNumber(SHELF_READY, serial++);
  const copy = (barcode: string, more: Partial<Record<'b' | 'l' | 't' | 'c' | 'n', string>> = {}) =>
    field(
      '949',
      '  ',
      'b',
      more.b ?? 'MILL',
      'l',
      more.l ?? 'OP',
      't',
      more.t ?? 'BOOK',
      'p',
      barcode,
      'c',
      more.c ?? `£${random.between(8, 40)}.50`,
    );
  const odd: Record<number, () => DataField[]> = {
    2: () => [copy(library.copies[5]!.copy.barcode)],
    5: () => [copy(rollNumber(WORKROOM, WORKROOM.from + 40))],
    8: () => [copy(`${next().slice(0, -1)}x`)],
    11: () => [copy(next(), { l: 'TOWER' })],
    14: () => [copy(next(), { c: '€24.90' })],
    17: () => [copy(next()), copy(next(), { b: 'SEDGE', l: 'RR' }), copy(next(), { b: 'SEDGE', l: 'RR' })],
  };
  return join(
    ...records.map((m, i) => {
      const copies = odd[i]?.() ?? [copy(next())];
      return writeIso2709(withFields(m, ...copies));
    }),
  );
}

/** Delivery in which everything is wrong that goes wrong. */
export function brokenDelivery(library: Library): Uint8Array {
  const random = randomFrom(8);
  const authors = makeAuthors(randomFrom(46_001), 480);
  const records = fresh(random, authors, 70_000, 20, 'Reedling');
  const accents = FOREIGN.slice(0, 8).map((b, i) =>
    fromSupplier(makeForeign(random, 80_000 + i, b).marc, `re${80_000 + i}`, 'Reedling'),
  );
  const taken = library.copies.slice(0, 3).map((c) => c.copy.barcode);
  const free = barcodeFor(COPY_BARCODES, 90_001);
  const withCopy = (m: MarcRecord, barcode: string) =>
    withFields(m, field('852', '1 ', 'b', 'MR', 'c', 'OPEN', 'p', barcode));
  const isbnTwice = (m: MarcRecord) => ({
    ...m,
    fields: m.fields.map((f) => (f.tag === '020' ? field('020', '  ', 'a', isbn10(99_999)) : f)),
  });
  const [r0, r1, r2, r3, r4, r5, r6, r7, r8, r9, r10, r11, r12, r13, r14, r15, ...rest] = records as [
    MarcRecord,
    ...MarcRecord[],
  ];
  const pad = (m: MarcRecord | undefined) => m!;
  const sure = (m: MarcRecord | undefined) => {
    const x = pad(m);
    return x.fields.some((f) => f.tag === '020')
      ? x
      : {
          ...x,
          fields: [...x.fields.slice(0, 3), field('020', '  ', 'a', isbn10(99_998)), ...x.fields.slice(3)],
        };
  };
  return join(
    encodeUtf8('\ufeff'),
    wrongLength(r0),
    withLineEnd(pad(r1)),
    inMarc8(accents[0]!),
    writeIso2709(twiceEncoded(accents[1]!)),
    wrongBase(pad(r2)),
    writeIso2709(isbnTwice(sure(r3))),
    inLatin1(accents[2]!),
    wrongDirectory(pad(r4)),
    writeIso2709(isbnTwice(sure(r5))),
    inMarc8(accents[5]!),
    withoutTerminator(pad(r6)),
    writeIso2709(withCopy(pad(r7), taken[0]!)),
    writeIso2709(withCopy(pad(r8), free)),
    writeIso2709(withCopy(pad(r9), taken[1]!)),
    writeIso2709(
      withFields(pad(r10), field('650', ' 0', 'a', 'Willows.'), field('650', ' 0', 'a', 'willows')),
    ),
    writeIso2709({
      ...pad(r11),
      fields: pad(r11).fields.map((f) =>
        f.tag === '020' ? field('020', '  ', 'a', '0197012345 (hbk.) £12.50') : f,
      ),
    }),
    inMarc8(accents[3]!),
    writeIso2709(withCapital(pad(r12))),
    encodeUtf8('\r\n\r\n'),
    writeIso2709({ ...pad(r13), fields: pad(r13).fields.filter((f) => f !== titled(pad(r13))) }),
    writeIso2709(withFields(pad(r14), field('856', '40', 'u', 'htp://wickmere example/plates'))),
    writeIso2709(twiceEncoded(accents[4]!)),
    writeIso2709(pad(r15)),
    ...rest.map((r) => writeIso2709(r)),
    writeIso2709(accents[6]!).slice(0, -60),
  );
}

/** MARCXML of an exchange partner: fifteen records, scripts other than Latin among them. */
export function exchangeDelivery(): string {
  const random = randomFrom(9);
  const authors = makeAuthors(randomFrom(46_001), 480);
  const foreign = FOREIGN.slice(-6).map((b, i) =>
    fromSupplier(
      makeForeign(random, 81_000 + i, { ...b, title: `${b.title} : ny samling` }).marc,
      `ly${i + 1}`,
      'LyngbyEB',
    ),
  );
  return (
    MARCXML_START +
    [...fresh(random, authors, 72_000, 9, 'LyngbyEB'), ...foreign].map(marcXmlElement).join('') +
    MARCXML_END
  );
}

/** A scanner's file of a walk along the open shelves of Millrace, class 746, with what happens on a walk. */
export function stocktakeFile(library: Library): string {
  const random = randomFrom(10);
  const onLoan = new Set(library.loans.map((l) => l.barcode));
  const here = shelf(library, 'MR', 'OPEN').filter((c) => c.callNumber.startsWith('746'));
  const there = here.filter((c) => !onLoan.has(c.copy.barcode) && c.copy.status === 'available');
  // A whole board walked past, and a handful that are simply not there.
  const jumpedFrom = Math.floor(there.length * 0.6);
  const walked = there
    .filter((_, i) => i < jumpedFrom || i >= jumpedFrom + 12)
    .filter((_, i) => i % 29 !== 17);
  const codes = walked.map((c) => c.copy.barcode);
  for (const at of [14, 41, 77]) codes.splice(at + 9, 0, ...codes.splice(at, 1));
  for (const c of here.filter((x) => ['lost', 'missing'].includes(x.copy.status)).slice(0, 2))
    codes.splice(random.between(5, codes.length - 5), 0, c.copy.barcode);
  const lent = here.find((c) => onLoan.has(c.copy.barcode));
  if (lent) codes.splice(33, 0, lent.copy.barcode);
  const stray = shelf(library, 'SH', 'READ').filter((c) => c.callNumber.startsWith('746'))[3]!;
  const bench = shelf(library, 'MR', 'BENCH').filter((c) => c.callNumber.startsWith('746'))[0];
  codes.splice(20, 0, stray.copy.barcode);
  if (bench) codes.splice(52, 0, bench.copy.barcode);
  const misread = (code: string) => `${code.slice(0, 7)}${code.slice(8)}`;
  codes[8] = misread(codes[8]!);
  codes[61] = `${codes[61]!.slice(0, 9)}${(Number(codes[61]![9]) + 3) % 10}${codes[61]!.slice(10)}`;
  codes.splice(70, 0, codes[70]!);
  return codes.map((c, i) => (i % 17 === 3 ? `A${c}B` : c)).join('\r\n') + '\r\n';
}

/** A trolley of discards from Millrace, scanned. */
export function trolleyFile(library: Library): string {
  const random = randomFrom(11);
  const onLoan = new Set(library.loans.map((l) => l.barcode));
  const open = shelf(library, 'MR', 'OPEN');
  const free = open.filter((c) => !onLoan.has(c.copy.barcode));
  const recordOf = new Map(library.holdings.map((h) => [h.id, h.holding.record]));
  const copies = new Map<number, number>();
  for (const { copy } of library.copies) {
    const record = recordOf.get(copy.holding)!;
    copies.set(record, (copies.get(record) ?? 0) + 1);
  }
  const copiesOf = (record: number) => copies.get(record) ?? 0;
  const several = random
    .shuffled(free.filter((c) => c.copy.status === 'available' && copiesOf(c.holding.record) > 1))
    .slice(0, 14);
  const last = random
    .shuffled(free.filter((c) => c.copy.status === 'available' && copiesOf(c.holding.record) === 1))
    .slice(0, 3);
  const lost = free.filter((c) => c.copy.status === 'lost').slice(0, 1);
  const lent = open.filter((c) => onLoan.has(c.copy.barcode)).slice(0, 2);
  const stray = shelf(library, 'SH', 'READ').slice(40, 42);
  const codes = random.shuffled([...several, ...last, ...lost, ...lent, ...stray].map((c) => c.copy.barcode));
  codes.push(codes[4]!, `${codes[6]!.slice(0, 5)}9${codes[6]!.slice(6)}`);
  return codes.join('\n') + '\n';
}

/** A table of the loans desk: how often each copy of Millrace was lent, and when last, some weeks after what the catalogue has. */
export function loanFiguresFile(library: Library): string {
  const random = randomFrom(23);
  const lines = shelf(library, 'MR', 'OPEN').map(({ copy }) => {
    const since = copy.loans === undefined ? random.below(3) : random.chance(0.15) ? random.between(1, 3) : 0;
    const loans = (copy.loans ?? 0) + since;
    const last = since ? `2026-11-${String(random.between(10, 29)).padStart(2, '0')}` : (copy.lastLoan ?? '');
    return `${copy.barcode},${loans},${last}`;
  });
  lines.splice(12, 0, '31204000000000,4,2025-02-11');
  return `Barcode,Loans,Last loan\r\n${lines.join('\r\n')}\r\n`;
}
