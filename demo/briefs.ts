import { isbns } from '@osier/core/access';
import { barcodeFor } from '@osier/core/barcodes';
import { offerCallNumbers } from '@osier/core/callnumbers';
import { briefRecord } from '@osier/core/editing';
import { DEFAULT_HOUSE } from '@osier/core/house';
import type { Copy, Holding } from '@osier/core/holdings';
import { dataFields, first, type MarcRecord } from '@osier/core/marc';
import { bookFacts } from '@osier/core/neighbours';
import { COPY_BARCODES } from './barcodes';
import type { Library } from './library';
import { isbn10 } from './make-record';
import { neighbourShelves } from './neighbours';

/** A brief record of the demo library with its copy, and for how many days it has waited for its full one. */
export interface DemoBrief {
  readonly id: number;
  readonly marc: MarcRecord;
  readonly holding: Holding;
  readonly copy: Copy;
  readonly days: number;
}

const DAY = '2026-09-01';

/**
 * Books that came before their records: neighbours have some of them, have some under another title or without the number, and have
 * not all. They stand behind the library's own records, holdings and copies.
 */
export function demoBriefs(library: Library): DemoBrief[] {
  const own = new Set(library.records.flatMap((r) => isbns(r.marc)));
  const { national, regional } = neighbourShelves(library);
  const inDemo = (r: MarcRecord) => !own.has(isbns(r)[0] ?? '') && dataFields(r, '100').length > 0;
  const books = [...national.filter(inDemo).slice(-60, -57), ...regional.filter(inDemo).slice(-4, -2)];
  const parts = books.map((marc, i) => ({
    title: i === 2 ? 'Walking the sea wall' : bookFacts(marc).title,
    name: first(dataFields(marc, '100')[0], 'a')?.replace(/[,.]$/, '') ?? '',
    isbn: i === 4 ? '' : (isbns(marc)[0] ?? ''),
    class: first(dataFields(marc, '082')[0], 'a') ?? '551.4',
    year: bookFacts(marc).year.replace(/\D/g, '').slice(0, 4),
    language: 'eng',
  }));
  const nobodys = {
    ...{ title: 'Sluices and their keepers', name: 'Tarn, Wilfred', isbn: isbn10(990_020) },
    ...{ class: '627.8', year: '2026', language: 'eng' },
  };
  const template = library.copies[0]!.copy;
  return [...parts, nobodys].map((of, i) => {
    const id = library.records.length + i + 1;
    const made = briefRecord(of, DAY);
    const marc = { ...made, fields: [{ tag: '001', value: String(id) }, ...made.fields] };
    const [offer] = offerCallNumbers(marc, DEFAULT_HOUSE);
    return {
      id,
      marc,
      holding: {
        ...{
          record: id,
          branch: 'HB',
          location: 'STORE',
          scheme: offer?.scheme ?? 'own',
          prefix: offer?.prefix ?? '',
        },
        ...{
          class: offer?.class ?? of.class,
          item: offer?.item ?? '',
          year: '',
          suffix: '',
          note: '',
          staffNote: '',
        },
      },
      copy: {
        ...template,
        holding: library.holdings.length + i + 1,
        barcode: barcodeFor(COPY_BARCODES, 980_001 + i),
        number: 1,
        status: 'in process',
        lastSeen: '',
      },
      days: i < 4 ? 12 + i : 95 + i,
    };
  });
}
