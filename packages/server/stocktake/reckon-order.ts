import type { BarcodeRule } from '@osier/core/barcodes';
import type { PrefixOrder } from '@osier/core/callnumbers';
import type { Coded } from '@osier/core/holdings';
import type { ShelfOrder, Stretch } from '@osier/core/stocktake';

/** What a thread reckons a stocktake from; copies and codes as JSON, so that handing them over holds nobody up. */
export interface ReckonOrder {
  readonly plan: {
    readonly stretch: Stretch;
    readonly orders: Readonly<Record<string, ShelfOrder>>;
    readonly seenSince: string;
    readonly skipRun: number;
    readonly statuses: readonly string[];
    readonly barcodes: readonly BarcodeRule[];
    readonly prefixOrder: PrefixOrder;
    readonly branches: readonly Coded[];
    readonly locations: readonly Coded[];
  };
  readonly copies: readonly string[];
  readonly runs: readonly { readonly id: number; readonly location: string; readonly codes: string }[];
  /** What is kept of findings (kind, code, place and detail, as JSON), and of the pictures of walks, so that only what differs comes back. */
  readonly findings: readonly string[];
  readonly digests: readonly { readonly run: number; readonly part: number; readonly digest: string }[];
}

/** What a thread gives back. */
export interface Reckoned {
  readonly changed: readonly (readonly [copy: number, outcome: number])[];
  /** Codes of copies on the shelf although recorded otherwise, that were not found before. */
  readonly found: readonly string[];
  /** Findings that are none any more (kind and code), and those that are new or other (with place and detail), as JSON, some hundreds in each text. */
  readonly goneFindings: readonly string[];
  readonly newFindings: readonly string[];
  /** How many pieces the picture of each walk has, and those pieces that differ. */
  readonly parts: readonly (readonly [run: number, parts: number])[];
  readonly spines: readonly {
    readonly run: number;
    readonly part: number;
    readonly digest: string;
    /** How many spines of each state, as JSON. */
    readonly states: string;
    readonly spines: string;
  }[];
}

/** How a stocktake is reckoned: in a thread of the server. */
export type ReckonStocktake = (order: ReckonOrder) => Promise<Reckoned>;
