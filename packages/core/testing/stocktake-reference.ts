import { schemeNamed, shelfKeyOf } from '../callnumbers';
import type { GeneratedCopy } from './generated-shelf';

/** A walk by sections, and what a stocktake goes by. */
export interface ReferenceStretch {
  readonly branch: string;
  readonly seen_since: string;
  readonly skip_run_min: number;
  readonly barcode: { readonly length: number; readonly prefix: string };
  readonly sections: readonly { location: string; first_line: number; last_line: number; order: string }[];
}

/** What is found, as it is printed; `move` is left to the other side, as any smallest set will do. */
export interface ReferenceResult {
  readonly missing: string[];
  readonly skipped: { location: string; copies: string[] }[];
  readonly accounted: { on_loan: string[]; seen_since: string[]; other: string[] };
  readonly found: Record<string, string[]>;
  readonly elsewhere: { branch: string[]; location: string[] };
  readonly minMoves: Record<string, number>;
  readonly repeated: string[];
  readonly unknown: { line: number; code: string }[];
  readonly misread: { line: number; code: string; barcode: string }[];
}

type Key = readonly [string, string, string];
const folded = (t: string) =>
  t
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/[Łł]/g, 'l')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const keyOf = (c: GeneratedCopy): Key => [
  shelfKeyOf(c.callNumber, schemeNamed(c.scheme) ?? 'own'),
  folded(c.author),
  folded(c.title),
];
const compare = (a: readonly string[], b: readonly string[]): number => {
  for (const [i, x] of a.entries()) if (x !== b[i]) return x < b[i]! ? -1 : 1;
  return 0;
};

function clean(raw: string): string {
  const text = raw
    .replace(/\s/g, '')
    .toUpperCase()
    .replace(/^\*(.*)\*$/, '$1');
  return text.replace(/^[A-D](.*)[A-D]$/, '$1');
}
function luhn(code: string): boolean {
  const sum = [...code].reverse().reduce((n, d, i) => {
    const value = Number(d) * (i % 2 ? 2 : 1);
    return n + (value > 9 ? value - 9 : value);
  }, 0);
  return sum % 10 === 0;
}
const ean = (code: string) => [...code].reduce((n, d, i) => n + Number(d) * (i % 2 ? 3 : 1), 0) % 10 === 0;
/** Whether `to` is `from` with two neighbours swapped. */
function isSwap(from: string, to: string): boolean {
  if (from.length !== to.length) return false;
  const at = [...from].findIndex((d, i) => d !== to[i]);
  return at >= 0 && from.slice(0, at) + from[at + 1] + from[at] + from.slice(at + 2) === to;
}
const isOneOther = (from: string, to: string) =>
  from.length === to.length && [...from].filter((d, i) => d !== to[i]).length === 1;
const isOneLess = (from: string, to: string) =>
  from.length + 1 === to.length && [...to].some((_, i) => to.slice(0, i) + to.slice(i + 1) === from);

/**
 * A stocktake reckoned slowly and plainly, every rule as it is written down; `moved` are the copies that the other side takes out of each
 * section, which decide what fits.
 */
export function referenceStocktake(
  copies: readonly GeneratedCopy[],
  lines: readonly string[],
  stretch: ReferenceStretch,
  moved: Readonly<Record<string, readonly string[]>>,
): ReferenceResult {
  const of = new Map(copies.map((c) => [c.barcode, c]));
  const keys = new Map(copies.map((c) => [c.barcode, keyOf(c)]));
  const scans = stretch.sections.flatMap((section, s) =>
    lines.slice(section.first_line - 1, section.last_line).flatMap((raw, i) => {
      const code = clean(raw);
      return code === '' ? [] : [{ code, s, line: section.first_line + i, copy: of.get(code) }];
    }),
  );
  const homes = stretch.sections.map((section) =>
    copies
      .filter((c) => c.branch === stretch.branch && c.location === section.location)
      .sort((a, b) => compare([...keys.get(a.barcode)!, a.barcode], [...keys.get(b.barcode)!, b.barcode])),
  );
  const parts = stretch.sections.map(
    (s) => ({ call: 1, 'call+author': 2, 'call+author+title': 3 })[s.order]!,
  );
  const orderKey = (code: string, s: number) => keys.get(code)!.slice(0, parts[s]);
  const first = stretch.sections.map((_, s) => {
    const seen = new Set<string>();
    const home = new Set(homes[s]);
    return scans.filter((x) => {
      if (x.s !== s || !x.copy || !home.has(x.copy) || seen.has(x.code)) return false;
      seen.add(x.code);
      return true;
    });
  });
  const minMoves = Object.fromEntries(
    stretch.sections.map((section, s) => {
      const own = first[s]!.map((x) => orderKey(x.code, s));
      const best: number[] = [];
      own.forEach((key, i) => {
        best[i] = 1 + Math.max(0, ...own.slice(0, i).map((k, j) => (compare(k, key) <= 0 ? best[j]! : 0)));
      });
      return [section.location, own.length - Math.max(0, ...best)];
    }),
  );
  const read = new Set(scans.flatMap((x) => (x.copy ? [x.code] : [])));
  const unknown: ReferenceResult['unknown'] = [];
  const misread: ReferenceResult['misread'] = [];
  scans.forEach(({ code, copy, s, line }, at) => {
    if (copy) return;
    const { length, prefix } = stretch.barcode;
    const sound = code.length === length && /^\d+$/.test(code) && luhn(code);
    const nothing = () => void unknown.push({ line, code });
    if (sound && !code.startsWith(prefix)) return nothing();
    if (/^97[89]\d{10}$/.test(code) && ean(code)) return nothing();
    const leads = copies.filter(({ barcode: b }) =>
      sound
        ? isSwap(code, b)
        : code.length === length
          ? isOneOther(code, b) || isSwap(code, b)
          : code.length === length - 1 && isOneLess(code, b),
    );
    const out = new Set(moved[stretch.sections[s]!.location]);
    const stays = first[s]!.filter((x) => !out.has(x.code));
    const before = stays.filter((x) => x.line < line).at(-1);
    const after = stays.find((x) => x.line > line);
    const home = new Set(homes[s]);
    const classOf = (c: GeneratedCopy): number => {
      const key = orderKey(c.barcode, s);
      const fits =
        home.has(c) &&
        (!before || compare(orderKey(before.code, s), key) <= 0) &&
        (!after || compare(key, orderKey(after.code, s)) <= 0);
      if (fits && !read.has(c.barcode)) return c.status === 'available' ? 1 : 2;
      if (scans[at + 1]?.code === c.barcode) return 3;
      return scans[at - 1]?.code === c.barcode ? 4 : 9;
    };
    const ranked = leads
      .map((c) => ({ barcode: c.barcode, rank: classOf(c) }))
      .filter((c) => c.rank < 9)
      .sort((a, b) => a.rank - b.rank || compare([a.barcode], [b.barcode]));
    if (ranked[0]) misread.push({ line, code, barcode: ranked[0].barcode });
    else nothing();
  });
  const stood = new Set([...read, ...misread.map((m) => m.barcode)]);
  const missing: string[] = [];
  const skipped: ReferenceResult['skipped'] = [];
  const accounted = { on_loan: [] as string[], seen_since: [] as string[], other: [] as string[] };
  homes.forEach((home, s) => {
    let run: string[] = [];
    for (const c of [...home, null]) {
      if (c === null || stood.has(c.barcode)) {
        if (run.length >= stretch.skip_run_min)
          skipped.push({ location: stretch.sections[s]!.location, copies: run });
        else missing.push(...run);
        run = [];
      } else if (c.status === 'on loan') accounted.on_loan.push(c.barcode);
      else if (c.status !== 'available') accounted.other.push(c.barcode);
      else if (c.lastSeen >= stretch.seen_since) accounted.seen_since.push(c.barcode);
      else run.push(c.barcode);
    }
  });
  const found: Record<string, string[]> = {};
  const elsewhere = { branch: [] as string[], location: [] as string[] };
  const repeated: string[] = [];
  for (const code of read) {
    const c = of.get(code)!;
    if (c.status !== 'available') (found[c.status] ??= []).push(code);
    const where = scans.find((x) => x.code === code)!.s;
    if (c.branch !== stretch.branch) elsewhere.branch.push(code);
    else if (c.location !== stretch.sections[where]!.location) elsewhere.location.push(code);
    if (scans.filter((x) => x.code === code).length > 1) repeated.push(code);
  }
  return { missing, skipped, accounted, found, elsewhere, minMoves, repeated, unknown, misread };
}
