import { isCoverNumber, type CodeSense, type UnknownWhy } from './code-sense';
import type { CountedCopy, ShelfOrder } from './counted-copy';
import { sortedHomes, type Home } from './home';
import { KeptOrder } from './kept-order';
import { resultOf, type CountResult } from './count-result';
import { SlipIndex } from './slip-index';

/** What a stocktake goes by. */
export interface CountRules {
  /** ISO date: a copy seen on or after it is accounted for; '' for none. */
  readonly seenSince: string;
  /** So many expected copies in a row that were not read are a skipped shelf. */
  readonly skipRunMin: number;
  /** Whether a copy of this status is expected on the shelf. */
  readonly isExpected: (status: string) => boolean;
  readonly codes: CodeSense;
}

/** A code that no copy has, with all that does not depend on the rest of the walk. */
export interface Stray {
  readonly section: number;
  readonly line: number;
  readonly code: string;
  /** Its place among the scans of its walk. */
  readonly at: number;
  /** Copies that one slip leads to, by barcode. */
  readonly candidates: readonly number[];
  /** Why it is unknown when it is paired with none of them. */
  readonly why: UnknownWhy;
}

/** What was read of one home in one section of a walk. */
export interface ReadShelf {
  readonly section: number;
  readonly home: number;
  /** Copies by their first reading there, and the places of these in the walk. */
  readonly copies: number[];
  readonly at: number[];
  readonly order: KeptOrder;
  /** By copy: 1 where it was read. */
  readonly seen: Uint8Array;
}

/** Readings nearer than this are of one book, read twice. */
const NEAR = 4;

/**
 * A stocktake as it grows: the copies and their places are given at the beginning, scans are added as they come, one at a time (log n
 * each), and `result` says how shelf and records compare (n, without sorting). A *section* is a piece of a walk in which some homes are
 * walked; copies of other homes are out of place in it. A *walk* is what one person walks with one scanner.
 */
export class ShelfCount {
  readonly barcodes: SlipIndex;
  readonly homes: readonly Home[];
  readonly ranks: Int32Array;
  /** How often each copy was read, the section of its first reading, whether it was read again further on. */
  readonly reads: Int32Array;
  readonly firstSection: Int32Array;
  readonly readFar: Uint8Array;
  readonly strays: Stray[] = [];
  readonly shelves: ReadShelf[] = [];
  readonly sections: { readonly walk: number; readonly homes: readonly number[] }[] = [];
  /** Of each walk the copies in the order of its scans; -1 for a code that no copy has. */
  readonly walks: number[][] = [];
  /** Order of all scans, for what is near and far. */
  private readonly lastAt: Int32Array;
  private readonly lastWalk: Int32Array;
  private readonly shelfOf: Map<number, ReadShelf>[] = [];

  constructor(
    readonly copies: readonly CountedCopy[],
    readonly orders: readonly ShelfOrder[],
    readonly rules: CountRules,
  ) {
    this.barcodes = new SlipIndex(
      copies.map((c) => c.barcode),
      rules.codes,
    );
    ({ homes: this.homes, ranks: this.ranks } = sortedHomes(copies, orders));
    this.reads = new Int32Array(copies.length);
    this.firstSection = new Int32Array(copies.length).fill(-1);
    this.readFar = new Uint8Array(copies.length);
    this.lastAt = new Int32Array(copies.length).fill(-1);
    this.lastWalk = new Int32Array(copies.length).fill(-1);
  }

  /** A walk; gives its number. */
  addWalk(): number {
    return this.walks.push([]) - 1;
  }

  /** A section of a walk in which these homes are walked; gives its number. */
  addSection(walk: number, homes: readonly number[]): number {
    this.shelfOf.push(new Map());
    return this.sections.push({ walk, homes }) - 1;
  }

  /** The shelf of a home as it was read in a section; undefined when nothing of it was. */
  shelf(section: number, home: number): ReadShelf | undefined {
    return this.shelfOf[section]!.get(home);
  }

  private newShelf(section: number, home: number): ReadShelf {
    const order = new KeptOrder(this.homes[home]!.places);
    const made: ReadShelf = {
      section,
      home,
      copies: [],
      at: [],
      order,
      seen: new Uint8Array(this.copies.length),
    };
    this.shelfOf[section]!.set(home, made);
    this.shelves.push(made);
    return made;
  }

  /** The next scan of a section; `code` is clean, an empty one is no scan. `line` says where it stands, for the result. */
  add(section: number, code: string, line: number): void {
    if (code === '') return;
    const { walk, homes } = this.sections[section]!;
    const scans = this.walks[walk]!;
    const at = scans.length;
    const copy = this.barcodes.at(code);
    scans.push(copy);
    if (copy < 0) {
      this.strays.push({ section, line, code, at, ...this.strayed(code) });
      return;
    }
    if (this.reads[copy]!++ === 0) this.firstSection[copy] = section;
    else if (this.lastWalk[copy] !== walk || at - this.lastAt[copy]! >= NEAR) this.readFar[copy] = 1;
    this.lastAt[copy] = at;
    this.lastWalk[copy] = walk;
    const { home } = this.copies[copy]!;
    if (home < 0 || !homes.includes(home)) return;
    const shelf = this.shelf(section, home) ?? this.newShelf(section, home);
    if (shelf.seen[copy]) return;
    shelf.seen[copy] = 1;
    shelf.copies.push(copy);
    shelf.at.push(at);
    shelf.order.append(this.ranks[copy]!);
  }

  /** How shelf and records compare by what was added so far. */
  result(): CountResult {
    return resultOf(this);
  }

  private strayed(code: string): Pick<Stray, 'candidates' | 'why'> {
    const { codes } = this.rules;
    const stranger = codes.stranger(code);
    if (stranger) return { candidates: [], why: stranger };
    if (isCoverNumber(code)) return { candidates: [], why: 'isbn' };
    return { candidates: this.barcodes.near(code), why: codes.isSound(code) ? 'not_in_file' : 'unreadable' };
  }
}
