import { counted } from '../changes';
import type { CountedCopy, ShelfOrder } from './counted-copy';
import type { CountResult } from './count-result';
import {
  belongsSays,
  elsewhereSays,
  foundActs,
  foundSays,
  unknownSays,
  type PlaceNames,
  type StockFinding,
  type StockFindingKind,
} from './finding';
import { COPY_OUTCOMES } from './outcomes';
import { ShelfCount, type CountRules } from './shelf-count';
import { spinesOf, type Spine } from './spines';

/** A copy of a stocktake with all that is told of it. */
export interface ReckonedCopy extends CountedCopy {
  readonly id: number;
  readonly record: number;
  /** As they are shown; `author` and `title` are keys. */
  readonly callNumber: string;
  readonly name: string;
  readonly branch: string;
  readonly location: string;
  readonly type: string;
  /** It was of the stretch when the stocktake was started; the number of its outcome as it was reckoned last. */
  readonly outcome: number | null;
  /** Days (ISO) on which it was scanned last and on which the loans desk was heard about it; '' for none. */
  readonly scanned: string;
  readonly heard: string;
}

/** The scans of one walk, clean, in their order. */
export interface ReckonedRun {
  readonly id: number;
  /** Code of the location that was walked; '' for all of the stretch. */
  readonly location: string;
  readonly codes: readonly string[];
}

/** What a stocktake is reckoned from. */
export interface ReckonInput {
  readonly homes: readonly {
    readonly branch: string;
    readonly location: string;
    readonly order: ShelfOrder;
  }[];
  readonly copies: readonly ReckonedCopy[];
  readonly runs: readonly ReckonedRun[];
}

/** What reckoning gives. */
export interface Reckoning {
  /** Copies whose outcome is another than last time, with the number of their outcome. */
  readonly changed: readonly (readonly [copy: number, outcome: number])[];
  readonly findings: readonly StockFinding[];
  readonly spines: readonly { readonly run: number; readonly spines: readonly Spine[] }[];
}

/** Reckons a stocktake: the outcome of every copy, what is to be settled, and the picture of every walk. */
export function reckon(input: ReckonInput, rules: CountRules, names: PlaceNames): Reckoning {
  const { copies } = input;
  const count = new ShelfCount(
    copies,
    input.homes.map((h) => h.order),
    rules,
  );
  const all = input.homes.map((_, i) => i);
  for (const run of input.runs) {
    const own = all.filter((i) => input.homes[i]!.location === run.location);
    const section = count.addSection(count.addWalk(), run.location === '' ? all : own);
    run.codes.forEach((code, i) => count.add(section, code, i + 1));
  }
  const result = count.result();
  const changed: [number, number][] = [];
  copies.forEach((copy, i) => {
    if (copy.outcome === null) return;
    const outcome = COPY_OUTCOMES.findIndex((o) => o === result.outcomeOf(i));
    if (outcome >= 0 && outcome !== copy.outcome) changed.push([copy.id, outcome]);
  });
  return {
    changed,
    findings: onceEach(findingsOf(copies, inBranches(input, count, result), names)),
    spines: spinesOf(count, result, copies).map((spines, i) => ({ run: input.runs[i]!.id, spines })),
  };
}

/** In a stretch of several branches a copy read in a location of another branch belongs to another branch. */
function inBranches({ homes, copies }: ReckonInput, count: ShelfCount, result: CountResult): CountResult {
  if (new Set(homes.map((h) => h.branch)).size < 2) return result;
  const elsewhere = result.elsewhere.map((read) => {
    const [walked] = count.sections[read.section]!.homes;
    const isOther = walked !== undefined && homes[walked]!.branch !== copies[read.copy]!.branch;
    return read.outside === 'location' && isOther ? { ...read, outside: 'branch' as const } : read;
  });
  return { ...result, elsewhere };
}

/** A copy may be out of order in two walks: it is told once. */
function onceEach(findings: readonly StockFinding[]): StockFinding[] {
  const first = new Map<string, StockFinding>();
  for (const f of findings) if (!first.has(`${f.kind} ${f.code}`)) first.set(`${f.kind} ${f.code}`, f);
  return [...first.values()];
}

/** What is to be settled, but for missing copies, which have it as their outcome. */
function findingsOf(copies: readonly ReckonedCopy[], result: CountResult, names: PlaceNames): StockFinding[] {
  const of = (
    kind: StockFindingKind,
    copy: ReckonedCopy,
    message: string,
    more: Partial<StockFinding> = {},
  ) => ({
    ...{ kind, code: copy.barcode, copy: copy.id, record: copy.record, title: copy.name },
    ...{ callNumber: copy.callNumber, location: copy.location, message, count: 1 },
    ...{ acts: ['done'] as const, others: [] },
    ...more,
  });
  const number = (index: number | null) => (index === null ? null : copies[index]!.callNumber);
  const codes = (indexes: readonly number[]) => indexes.map((i) => copies[i]!.barcode);
  const strays = new Map<string, StockFinding>();
  for (const { code, copy, why, candidates } of result.strays) {
    const known = strays.get(code);
    if (known) strays.set(code, { ...known, count: known.count + 1 });
    else if (copy === null)
      strays.set(code, {
        ...{ kind: 'unknown', code, copy: null, record: null, title: '', callNumber: '', location: '' },
        ...{ message: unknownSays(why), acts: ['done'], others: codes(candidates), count: 1 },
      });
    else {
      const { barcode } = copies[copy]!;
      strays.set(code, {
        ...of('misread', copies[copy]!, 'Not read right: taken for this copy.', { others: [barcode] }),
        code,
      });
    }
  }
  return [
    ...result.skipped.map((run) => {
      const [first, last] = [copies[run.copies[0]!]!, copies[run.copies.at(-1)!]!];
      const message = `${counted(run.copies.length, 'copy', 'copies')} in a row not scanned, from ${first.callNumber} to ${last.callNumber}.`;
      return of('skipped', first, message, { count: run.copies.length, copy: null, record: null });
    }),
    ...result.found.map((i) =>
      of('found', copies[i]!, foundSays(copies[i]!.status, copies[i]), {
        acts: foundActs(copies[i]!.status),
      }),
    ),
    ...result.elsewhere
      .filter(({ copy }) => copies[copy]!.status !== 'withdrawn')
      .map(({ copy, outside }) =>
        of('elsewhere', copies[copy]!, elsewhereSays(copies[copy]!, outside, names), {
          acts: outside === 'branch' || outside === 'location' ? ['done', 'correct-location'] : ['done'],
        }),
      ),
    ...result.order.flatMap(({ moves }) =>
      moves.map((block) => {
        const [first, ...rest] = block.copies.map((i) => copies[i]!);
        const together = rest.length ? ` ${counted(rest.length + 1, 'copy', 'copies')} stand together.` : '';
        return of('misplaced', first!, belongsSays(number(block.after), number(block.before)) + together, {
          ...{ others: rest.map((c) => c.barcode), count: block.copies.length },
        });
      }),
    ),
    ...result.repeated.map(({ copy, times, isFar }) =>
      of(
        'repeated',
        copies[copy]!,
        isFar
          ? `Scanned ${times} times, not one after the other: do two things have this barcode?`
          : `Scanned ${times} times one after the other.`,
        { count: times },
      ),
    ),
    ...strays.values(),
  ];
}
