import { callNumberFault, type CallNumber } from '../callnumbers';
import { creation, type ChangeOf, type Id, type Versioned } from '../changes';
import { codeProblem, placeProblems, sourceProblems, type FieldFault } from './code-check';
import {
  copyName,
  partKey,
  type CodeLists,
  type Copy,
  type CopyStatus,
  type Holding,
  type LoanRule,
} from './objects';
import { placeKey } from './place-key';
import { copyCost } from './price';

/** A copy that is to be made, with the place where it will stand. */
export interface CopyToCome extends CallNumber {
  readonly branch: string;
  readonly location: string;
  readonly barcode: string;
  readonly part: string;
  /** Null: counted on behind the title's other copies. */
  readonly number: number | null;
  readonly type: string;
  /** In hundredths; null: as the type has it. */
  readonly price: number | null;
  /** ISO 4217 code of its price's currency; '' or absent: the library's. */
  readonly currency?: string;
  readonly fund: string;
  readonly supplier: string;
  readonly acquired: string;
  readonly note: string;
  readonly status: CopyStatus;
  readonly loanRule?: LoanRule;
}

/** What is wrong with one cell of the rows. */
export interface RowProblem extends FieldFault {
  readonly row: number;
}

/** What several copies of a record are made from. */
export interface AddSeveral {
  readonly record: Id<'record'>;
  readonly rows: readonly CopyToCome[];
  readonly lists: CodeLists;
  /** ISO 4217 code of the library's currency. */
  readonly currency: string;
  /** What the record has already. */
  readonly holdings: readonly Versioned<Holding, 'holding'>[];
  readonly copies: readonly Pick<Copy, 'part' | 'number'>[];
  readonly nextHolding: () => Id<'holding'>;
  readonly nextCopy: () => Id<'copy'>;
}

/**
 * Makes copies of a record, each in the holding of its branch, location and call number: one that is there, or a new one. Copies without a
 * number are counted on, by part. What is wrong with a row is told by its cell; rows that have no fault are made all the same, so
 * that a review can show them.
 */
export function addSeveral(input: AddSeveral): {
  readonly holdings: readonly ChangeOf<'holding', Holding>[];
  readonly copies: readonly {
    readonly row: number;
    readonly change: ChangeOf<'copy', Copy> & { readonly after: Copy };
  }[];
  readonly problems: readonly RowProblem[];
} {
  const { record, rows, lists, nextHolding, nextCopy } = input;
  const places = new Map(input.holdings.map((h) => [placeKey(h.value), h.id]));
  const holdings: ChangeOf<'holding', Holding>[] = [];
  const numbers = numbersTaken(input.copies);
  const taken = new Map<string, number>();
  const problems: RowProblem[] = [];
  // Numbers that were written come before those that are counted on.
  const own = rows.map((row, at) => (row.number === null ? null : numbers.take(row.part, row.number, at)));
  const copies = rows.map((row, at) => {
    problems.push(...faultsOf(row, lists).map((f) => ({ row: at, ...f })));
    const code = row.barcode.toUpperCase();
    const first = taken.get(code);
    if (code && first !== undefined)
      problems.push({ row: at, field: 'barcode', message: `Row ${first + 1} has this barcode.` });
    else taken.set(code, at);
    if (own[at]) problems.push({ row: at, field: 'number', message: own[at] });
    const place = placeKey(row);
    let holding = places.get(place);
    if (holding === undefined) {
      holding = nextHolding();
      places.set(place, holding);
      holdings.push(creation('holding', holding, holdingOf(record, row)));
    }
    const number = row.number ?? numbers.next(row.part);
    const after = copyOf(row, holding, number, input);
    return { row: at, change: { ...creation('copy', nextCopy(), after), after } };
  });
  return { holdings, copies, problems };
}

const faultsOf = (row: CopyToCome, lists: CodeLists): FieldFault[] => [
  ...placeProblems(row, lists),
  ...[callNumberFault(row)].flatMap((message) => (message ? [{ field: 'class', message }] : [])),
  ...[codeProblem('type', 'type', row.type, lists.types)].filter((p) => p !== null),
  ...sourceProblems(row, lists),
];

/** The copy numbers of a title by part: those that are taken, and the next behind the greatest. */
function numbersTaken(copies: readonly Pick<Copy, 'part' | 'number'>[]) {
  const of = new Map<string, Map<number, number | null>>();
  const ofPart = (part: string | undefined) => {
    const key = partKey(part);
    const numbers = of.get(key) ?? new Map<number, number | null>();
    of.set(key, numbers);
    return numbers;
  };
  for (const c of copies) ofPart(c.part).set(c.number, null);
  return {
    /** Takes a number for a row; says what has it already. */
    take(part: string, number: number, row: number): string | null {
      const numbers = ofPart(part);
      const by = numbers.get(number);
      if (number > 0 && by !== undefined)
        return by === null
          ? `This title has ${copyName({ part, number })} already.`
          : `Row ${by + 1} has this number.`;
      numbers.set(number, row);
      return null;
    },
    next(part: string): number {
      const numbers = ofPart(part);
      const next = Math.max(0, ...numbers.keys()) + 1;
      numbers.set(next, null);
      return next;
    },
  };
}

const holdingOf = (record: Id<'record'>, row: CopyToCome): Holding => {
  const { branch, location, scheme, prefix, class: cls, item, year, suffix } = row;
  return {
    record,
    branch,
    location,
    scheme,
    prefix,
    class: cls,
    item,
    ...(year && { year }),
    suffix,
    note: '',
  };
};

function copyOf(
  row: CopyToCome,
  holding: Id<'holding'>,
  number: number,
  { lists, currency }: AddSeveral,
): Copy {
  const { barcode, part, type, fund, supplier, acquired, note, status, loanRule } = row;
  return {
    holding,
    barcode,
    ...(part && { part }),
    number,
    type,
    ...copyCost(row, lists, currency),
    fund,
    supplier,
    acquired,
    condition: '',
    note,
    ...(loanRule && loanRule !== 'lends' && { loanRule }),
    status,
    lastSeen: '',
  };
}
