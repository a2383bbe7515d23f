import { DEFAULT_HOUSE } from '@osier/core/house';
import { barcodeFor, type LabelRoll } from '@osier/core/barcodes';
import { DEFAULT_SETTINGS, type SupplierSheet } from '@osier/core/deliveries';
import { byKey, callNumberText, offerCallNumbers, shelfKey, type CallNumber } from '@osier/core/callnumbers';
import { headingFrom, headingIdentity, headingsOf, type Heading } from '@osier/core/headings';
import {
  NO_DEFAULTS,
  STANDARD_MAPPING,
  type CodeLists,
  type Copy,
  type CopyStatus,
  type Holding,
  type LocalField,
  type LocalValue,
} from '@osier/core/holdings';
import type { MarcRecord } from '@osier/core/marc';
import { COPY_BARCODES } from './barcodes';
import { EAST_ASIAN, FOREIGN } from './foreign';
import { makeForeign, makeRecord, secondRecordOf, type MadeRecord, type Material } from './make-record';
import { makeAuthors } from './people';
import { randomFrom, type Random } from './random';

export const LISTS: CodeLists = {
  branches: [
    { code: 'SH', name: 'Sedge House' },
    { code: 'MR', name: 'Millrace' },
    { code: 'HB', name: 'Hallow Barn' },
  ],
  locations: [
    { code: 'READ', name: 'Reading room', branch: 'SH' },
    { code: 'FOLIO', name: 'Folio cases', branch: 'SH' },
    { code: 'OPEN', name: 'Open shelves', branch: 'MR' },
    { code: 'BENCH', name: 'By the benches', branch: 'MR' },
    { code: 'PATT', name: 'Pattern drawers', branch: 'MR' },
    { code: 'STORE', name: 'Closed store', branch: 'HB' },
    { code: 'CAGE', name: 'Kit cage', branch: 'HB' },
  ],
  types: [
    { code: 'BK', name: 'Book', price: 1800 },
    { code: 'PA', name: 'Pamphlet', price: 350 },
    { code: 'VI', name: 'Video', price: 1500 },
    { code: 'PT', name: 'Pattern', price: 600 },
    { code: 'KT', name: 'Kit', price: 4500 },
  ],
  funds: [
    { code: 'GEN', name: 'General fund' },
    { code: 'HOLT', name: 'Holt bequest' },
    { code: 'CRAFT', name: 'Crafts council grant' },
  ],
  suppliers: [
    { code: 'TP', name: 'Tallow & Pike' },
    { code: 'RLS', name: 'Reedling Library Supply' },
    { code: 'GIFT', name: 'Gifts' },
  ],
};

/** What the workroom keeps of its copies beside what all libraries do. Numbered 1 to 3. */
export const LOCAL_FIELDS: readonly LocalField[] = [
  { name: 'Given by', form: 'text', choices: [], types: [] },
  {
    name: 'Binding',
    form: 'choice',
    choices: ['Publisher’s', 'Rebound', 'Sewn in the workroom'],
    types: ['BK', 'PA'],
  },
  { name: 'Pieces counted on', form: 'date', choices: [], types: ['KT', 'PT'] },
];

/** Labels for the workroom's own use, and those that a supplier puts on shelf-ready books. */
export const WORKROOM: LabelRoll = {
  name: 'Workroom labels',
  prefix: '31204',
  from: 700_001,
  to: 702_000,
  length: 14,
  check: true,
  supplier: '',
};
export const SHELF_READY: LabelRoll = {
  name: 'Reedling shelf-ready',
  prefix: '31204',
  from: 800_001,
  to: 800_600,
  length: 14,
  check: true,
  supplier: 'Reedling Library Supply',
};

const ASKING = { ...DEFAULT_SETTINGS, mapping: { ...STANDARD_MAPPING, tag: '' } };
/** The suppliers' sheets: one that sends titles only, one that sends shelf-ready books. Label rolls by number: 1 and 2. */
export const SHEETS: readonly SupplierSheet[] = [
  { ...ASKING, name: 'Tallow & Pike', files: ['tallow-and-pike*'], organisations: ['TallowPike'] },
  {
    ...DEFAULT_SETTINGS,
    name: 'Reedling Library Supply',
    files: ['reedling-shelf-ready*'],
    organisations: ['ReedlingLS'],
    actions: { one: 'copies', several: 'ask', none: 'add' },
    recipe: 'house-style',
    mapping: {
      tag: '949',
      subfields: { branch: 'b', location: 'l', type: 't', barcode: 'p', price: 'c', note: 'n' },
      tables: {
        branch: { MILL: 'MR', SEDGE: 'SH', BARN: 'HB' },
        location: { OP: 'OPEN', RR: 'READ', ST: 'STORE' },
        type: { BOOK: 'BK', PAMPH: 'PA', DVD: 'VI' },
      },
    },
    defaults: {
      ...NO_DEFAULTS,
      branch: 'MR',
      location: 'OPEN',
      type: 'BK',
      fund: 'GEN',
      supplier: 'RLS',
    },
    roll: 2,
  },
];

export interface Library {
  readonly records: readonly { id: number; marc: MarcRecord; material: Material }[];
  readonly headings: readonly { id: number; heading: Heading }[];
  readonly holdings: readonly { id: number; holding: Holding }[];
  readonly copies: readonly { id: number; copy: Copy }[];
  /** Copies on loan: barcode and due date. */
  readonly loans: readonly { barcode: string; due: string }[];
  readonly authorsTwice: number;
}

const RECORDS = 1500;
const SUPPLIERS = ['TP', 'RLS', 'GIFT', ''];

/** The whole demo library, always the same. */
export function makeLibrary(): Library {
  const random = randomFrom(46_001);
  const authors = makeAuthors(random, 480);
  const made: MadeRecord[] = FOREIGN.map((book, i) => makeForeign(random, i + 1, book));
  // Every twice-spelled author gets books under both spellings.
  authors
    .filter((a) => a.variant)
    .forEach((a, i) => {
      made.push(makeRecord(random, 100 + i * 2, { ...a, variant: null }, null));
      made.push(makeRecord(random, 101 + i * 2, { ...a.variant!, variant: null }, null));
    });
  while (made.length < RECORDS) {
    const n = 1000 + made.length;
    made.push(makeRecord(random, n, random.pick(authors), random.chance(0.1) ? random.pick(authors) : null));
  }
  // Those of East Asia take the place of a few books, so that everything else stays as it is.
  const books = made.flatMap((m, at) => (m.material === 'BK' && at >= 1000 ? [at] : []));
  EAST_ASIAN.forEach((book, i) => {
    made[books[i * 40]!] = makeForeign(randomFrom(46_100 + i), 900 + i, book);
  });
  // A few books were catalogued twice.
  [5, 45, 85, 125].forEach((at, i) => {
    made[books[at]!] = secondRecordOf(made[books[at + 7]!]!, 950 + i);
  });
  const records = random.shuffled(made).map((m, i) => ({ id: i + 1, marc: m.marc, material: m.material }));
  const { holdings, copies } = stock(random, records);
  return {
    records,
    holdings,
    copies,
    headings: headingsIn(records),
    loans: loansOf(random, copies),
    authorsTwice: authors.filter((a) => a.variant).length,
  };
}

function headingsIn(records: readonly { marc: MarcRecord }[]): { id: number; heading: Heading }[] {
  const found = new Map<string, Heading>();
  for (const r of records)
    for (const use of headingsOf(r.marc))
      if (!found.has(headingIdentity(use))) found.set(headingIdentity(use), headingFrom(use));
  return [...found.values()].map((heading, i) => ({ id: i + 1, heading }));
}

function placesFor(random: Random, material: Material): [string, string][] {
  if (material === 'KT') return [['HB', 'CAGE']];
  if (material === 'PT')
    return random.chance(0.3)
      ? [
          ['MR', 'PATT'],
          ['SH', 'FOLIO'],
        ]
      : [['MR', 'PATT']];
  const all: [string, string][] = [
    ['SH', random.chance(0.06) ? 'FOLIO' : 'READ'],
    ['MR', random.chance(0.08) ? 'BENCH' : 'OPEN'],
    ['HB', 'STORE'],
  ];
  const at = random.next();
  return random.shuffled(all).slice(0, at < 0.45 ? 1 : at < 0.85 ? 2 : 3);
}

function stock(random: Random, records: Library['records']): Pick<Library, 'holdings' | 'copies'> {
  const holdings: { id: number; holding: Holding }[] = [];
  const copies: { id: number; copy: Copy }[] = [];
  let serial = 50_000;
  for (const { id: record, marc, material } of records) {
    const dewey = offerCallNumbers(marc, DEFAULT_HOUSE).find((o) => o.scheme === 'dewey')!;
    let number = 0;
    for (const [branch, location] of placesFor(random, material)) {
      const call: CallNumber =
        material === 'KT'
          ? {
              scheme: 'own',
              prefix: '',
              class: 'KIT',
              item: String(holdings.length + 1).padStart(4, '0'),
              suffix: '',
            }
          : { scheme: 'dewey', prefix: '', class: dewey.class, item: dewey.item, suffix: '' };
      const id = holdings.length + 1;
      holdings.push({ id, holding: { record, branch, location, ...call, note: '' } });
      const many = random.chance(0.18) ? 2 : random.chance(0.05) ? 3 : 1;
      for (let k = 0; k < many; k++) {
        serial += random.chance(0.05) ? random.between(2, 30) : 1;
        copies.push({
          id: copies.length + 1,
          copy: makeCopy(random, id, barcodeFor(COPY_BARCODES, serial), ++number, material),
        });
      }
    }
  }
  return { holdings, copies };
}

/** What the loans desk has counted of a copy by the end of November 2026; of one in fourteen nothing. */
function loansCounted(barcode: string, acquired: string): Pick<Copy, 'loans' | 'lastLoan'> {
  const random = randomFrom(Number(barcode.slice(-9)));
  if (random.chance(0.07)) return {};
  if (random.chance(0.12)) return { loans: 0 };
  const from = Number(acquired.slice(0, 4)) + 1;
  const years = Math.max(0, 2026 - from);
  // Most are lent now and then; some often, and lately.
  const liked = random.next() ** 3;
  const year = Math.min(2026, from + Math.floor(years * Math.max(random.next(), liked)));
  const day = `${year}-${String(random.between(1, 11)).padStart(2, '0')}-${String(random.between(1, 28)).padStart(2, '0')}`;
  return { loans: 1 + Math.floor(liked * 60 + random.next() * (year - from + 1)), lastLoan: day };
}

const GIVERS = ['Friends of the Institute', 'Estate of J. Withers', 'A member', 'Osmere Ferry Trust'];

/** What a copy has in the local fields: most have nothing. */
function localsOf(barcode: string, type: Material, supplier: string): Pick<Copy, 'local'> {
  const random = randomFrom(Number(barcode.slice(-9)) + 7);
  const local: LocalValue[] = [];
  if (supplier === 'GIFT' && random.chance(0.6)) local.push({ field: 1, value: random.pick(GIVERS) });
  if ((type === 'BK' || type === 'PA') && random.chance(0.15))
    local.push({ field: 2, value: random.pick(LOCAL_FIELDS[1]!.choices) });
  if ((type === 'KT' || type === 'PT') && random.chance(0.5))
    local.push({ field: 3, value: `2025-0${random.between(1, 9)}-1${random.between(0, 9)}` });
  return local.length ? { local } : {};
}

function makeCopy(random: Random, holding: number, barcode: string, number: number, type: Material): Copy {
  const at = random.next();
  const status: CopyStatus =
    at < 0.008
      ? 'lost'
      : at < 0.02
        ? 'missing'
        : at < 0.023
          ? 'in transit'
          : at < 0.026
            ? 'reserved'
            : at < 0.03
              ? 'in repair'
              : 'available';
  const base = LISTS.types.find((t) => t.code === type)!.price!;
  const made: Copy = {
    holding,
    barcode,
    number,
    type,
    status,
    price: random.chance(0.8) ? base + random.between(-5, 12) * 50 : base,
    fund: random.chance(0.7) ? random.pick(['GEN', 'HOLT', 'CRAFT']) : '',
    supplier: random.pick(SUPPLIERS),
    acquired: `${random.between(1998, 2025)}-${String(random.between(1, 12)).padStart(2, '0')}-${String(random.between(1, 28)).padStart(2, '0')}`,
    condition: random.chance(0.06)
      ? random.pick(['spine faded', 'water-stained', 'rebound 2014', 'lacks plate 7'])
      : '',
    note: '',
    lastSeen: random.chance(0.8)
      ? `${random.between(2024, 2025)}-${String(random.between(1, 12)).padStart(2, '0')}-${String(random.between(1, 28)).padStart(2, '0')}`
      : '',
  };
  return {
    ...made,
    ...loansCounted(barcode, made.acquired),
    ...localsOf(barcode, type, made.supplier),
  };
}

function loansOf(random: Random, copies: Library['copies']): { barcode: string; due: string }[] {
  return copies
    .filter(({ copy }) => copy.status === 'available' && random.chance(0.06))
    .map(({ copy }) => ({
      barcode: copy.barcode,
      due: `2026-${random.pick(['11', '12'])}-${String(random.between(1, 28)).padStart(2, '0')}`,
    }));
}

/** The copies of a place in shelf order. */
export function shelf(library: Library, branch: string, location: string) {
  const holdings = new Map(library.holdings.map((h) => [h.id, h.holding]));
  const titles = new Map(library.records.map((r) => [r.id, r.marc]));
  return library.copies
    .map(({ id, copy }) => ({ id, copy, holding: holdings.get(copy.holding)! }))
    .filter((c) => c.holding.branch === branch && c.holding.location === location)
    .map((c) => ({
      ...c,
      key: shelfKey(c.holding),
      callNumber: callNumberText(c.holding),
      marc: titles.get(c.holding.record)!,
    }))
    .sort((a, b) => byKey(a.key, b.key) || byKey(a.copy.barcode, b.copy.barcode));
}
