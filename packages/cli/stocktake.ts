import { schemeNamed, shelfKeyOf } from '@osier/core/callnumbers';
import {
  cleanCode,
  CodeSense,
  filedAs,
  SHELF_ORDERS,
  ShelfCount,
  type CountedCopy,
  type CountResult,
  type ShelfOrder,
} from '@osier/core/stocktake';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { array, number, object, string, ValidationError, type InferType } from 'yup';
import { readOptions, UsageError } from './usage';

const day = (name: string) =>
  string()
    .matches(/^\d{4}-\d\d-\d\d$/, { message: `${name} is a day as 2026-03-18`, excludeEmptyString: true })
    .default('');
const section = object({
  location: string().strict().required(),
  first_line: number().strict().integer().min(1).required(),
  last_line: number().strict().integer().min(0).required(),
  order: string<ShelfOrder>()
    .oneOf([...SHELF_ORDERS])
    .default('call'),
});
const stretchSchema = object({
  branch: string().strict().required(),
  seen_since: day('seen_since'),
  skip_run_min: number().strict().integer().min(1).required(),
  barcode: object({
    length: number().strict().integer().min(1).required(),
    check: string<'mod10' | 'none'>().oneOf(['mod10', 'none']).default('mod10'),
    prefix: string().strict().default(''),
  }).required(),
  sections: array(section.required()).min(1).required(),
});
type Stretch = InferType<typeof stretchSchema>;

const COLUMNS = [
  'barcode',
  'call_number',
  'scheme',
  'author',
  'title',
  'branch',
  'location',
  'status',
  'last_seen',
] as const;
type Row = Readonly<Record<(typeof COLUMNS)[number], string>>;

/** `osier stocktake`: copies, the scans of a walk and its stretch as three files; how shelf and records compare, as one JSON object. */
export function stocktakeFiles(args: readonly string[]): Promise<number> {
  const fileOf = readOptions(args, ['holdings', 'scans', 'stretch']);
  const stretch = readStretch(fileOf('stretch'));
  const rows = readHoldings(fileOf('holdings'));
  const lines = textOf(fileOf('scans')).split('\n');
  process.stdout.write(`${JSON.stringify(counted(rows, lines, stretch))}\n`);
  return Promise.resolve(0);
}

const textOf = (file: string): string => readFileSync(file, 'utf8').replace(/^\ufeff/, '');

function readStretch(file: string): Stretch {
  try {
    return stretchSchema.validateSync(JSON.parse(textOf(file)), { abortEarly: true });
  } catch (error) {
    if (error instanceof SyntaxError) throw new UsageError(`${file} is not JSON.`);
    if (error instanceof ValidationError) throw new UsageError(`${file}: ${error.message}.`);
    throw error;
  }
}

function readHoldings(file: string): Row[] {
  const { data, meta } = Papa.parse<Row>(textOf(file), {
    header: true,
    delimiter: ',',
    skipEmptyLines: true,
    transformHeader: (name) => name.trim(),
  });
  const lacking = COLUMNS.filter((c) => !(meta.fields ?? []).includes(c));
  if (lacking.length) throw new UsageError(`${file} has no column ${lacking.join(', ')}.`);
  const seen = new Set<string>();
  data.forEach((row, i) => {
    if (COLUMNS.some((c) => row[c] === undefined))
      throw new UsageError(`${file}: copy ${i + 1} has fewer columns than the first line.`);
    if (seen.has(row.barcode)) throw new UsageError(`${file} has the barcode ${row.barcode} twice.`);
    seen.add(row.barcode);
  });
  return data;
}

function counted(rows: readonly Row[], lines: readonly string[], stretch: Stretch): object {
  const homes = new Map(stretch.sections.map((s, i) => [s.location, i]));
  const copies = rows.map((row): CountedCopy => {
    const isHere = row.branch === stretch.branch;
    return {
      ...{ barcode: row.barcode.trim(), status: row.status, lastSeen: row.last_seen },
      home: isHere ? (homes.get(row.location) ?? -1) : -1,
      outside: isHere ? 'location' : 'branch',
      call: shelfKeyOf(row.call_number.trim(), schemeNamed(row.scheme) ?? 'own'),
      ...{ author: filedAs(row.author), title: filedAs(row.title) },
    };
  });
  const { length, check, prefix } = stretch.barcode;
  const count = new ShelfCount(
    copies,
    stretch.sections.map((s) => s.order),
    {
      ...{ seenSince: stretch.seen_since, skipRunMin: stretch.skip_run_min },
      isExpected: (status) => status === 'available',
      codes: new CodeSense([{ length, check, prefix }]),
    },
  );
  const walk = count.addWalk();
  stretch.sections.forEach((s, home) => {
    const number = count.addSection(walk, [home]);
    for (let line = s.first_line; line <= Math.min(s.last_line, lines.length); line++)
      count.add(number, cleanCode(lines[line - 1]!), line);
  });
  return written(count, count.result(), stretch);
}

const FOUND = ['on loan', 'lost', 'missing', 'withdrawn', 'in transit', 'in repair'];

/** The result as it is printed: copies by their barcodes. */
function written({ copies }: ShelfCount, r: CountResult, { sections }: Stretch): object {
  const codes = (of: Iterable<number>) => [...of].map((i) => copies[i]!.barcode);
  const outcome = (name: 'on loan' | 'seen since' | 'other') =>
    codes([...copies.keys()].filter((i) => r.outcomeOf(i) === name));
  const found: Record<string, string[]> = Object.fromEntries(FOUND.map((s) => [s, []]));
  for (const i of r.found) (found[copies[i]!.status] ??= []).push(copies[i]!.barcode);
  const away = (place: 'branch' | 'location') =>
    codes(r.elsewhere.filter((e) => e.outside === place).map((e) => e.copy));
  const orderOf = sections.map(({ location }, i) => {
    const moved = r.order.filter((o) => o.home === i).flatMap((o) => o.moves.flatMap((m) => m.copies));
    return [location, codes(moved)] as const;
  });
  return {
    missing: codes(r.missing),
    skipped: r.skipped.map((s) => ({ location: sections[s.home]!.location, copies: codes(s.copies) })),
    accounted: { on_loan: outcome('on loan'), seen_since: outcome('seen since'), other: outcome('other') },
    found,
    elsewhere: { branch: away('branch'), location: away('location') },
    order: {
      min_moves: Object.fromEntries(orderOf.map(([location, moved]) => [location, moved.length])),
      move: Object.fromEntries(orderOf),
    },
    repeated: codes(r.repeated.map((x) => x.copy)),
    unknown: r.strays.filter((s) => s.copy === null).map(({ line, code, why }) => ({ line, code, why })),
    misread: r.strays
      .filter((s) => s.copy !== null)
      .map(({ line, code, copy }) => ({ line, code, barcode: copies[copy!]!.barcode })),
  };
}
