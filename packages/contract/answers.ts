import type { RecordBrief } from '@osier/core/access';
import type { CallNumberOffer } from '@osier/core/callnumbers';
import type { Finding, Group, Severity } from '@osier/core/checks';
import type { Step } from '@osier/core/recipes';
import type { CodeLists, Copy, Holding, LoanState, Withdrawn } from '@osier/core/holdings';
import type { HouseRules } from '@osier/core/house';
import type { Kind } from '@osier/core/kinds';
import type { MarcRecord, Repair } from '@osier/core/marc';
import type { LabelRoll } from '@osier/core/barcodes';
import type { Delivery, DeliverySettings, ReportRow, SupplierSheet } from '@osier/core/deliveries';
import type { LookAlike } from '@osier/core/headings';
import type { ProposedCopy } from '@osier/core/holdings';
import type { Likeness, Match, Outcome } from '@osier/core/matching';
import type { Pile } from '@osier/core/piles';
import type { Reconciliation, ScanVerdict, Stocktake } from '@osier/core/stocktake';
import type { Verdict } from '@osier/core/withdrawals';
import type { Role } from './permissions';

/** RFC 9457 problem details with the fields it concerns. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  fields?: { field: string; message: string }[];
  /** For 409 on a save: what stands in the catalogue now. */
  current?: unknown;
  conflicts?: { kind: string; id: number; message: string; entry: number | null }[];
}

/** Who is signed in, or made an entry. */
export interface Person {
  id: number;
  name: string;
  login: string;
  role: Role;
}
/** An account; one that is not active cannot sign in. */
export interface PersonRow extends Person {
  active: boolean;
}
/** Who is signed in, and how one can sign in. */
export interface Welcome {
  person: Person | null;
  demo: { id: number; name: string; role: Role }[] | null;
  needsFirstHead: boolean;
}

/** What waits, over all areas, and what was done last. */
export interface Today {
  deliveries: { id: number; name: string; waiting: number; errors: number }[];
  lookAlikes: number;
  withdrawalLists: { id: number; name: string; codes: number }[];
  stocktakes: { id: number; name: string; found: number; expected: number }[];
  records: number;
  copies: number;
  headings: number;
  /** Things that an older store had twice, or hanging on nothing. */
  disputed: number;
  lastEntries: DaybookEntry[];
}

/** Something that breaks what must hold, with the sentence why; it stands aside until somebody has settled it. */
export interface DisputedRow {
  kind: string;
  id: number;
  label: string;
  why: string;
}

/** A delivery with how far it is read and how its records stand. */
export interface DeliveryRow {
  id: number;
  name: string;
  format: string;
  bytes: number;
  arrived: string;
  state: 'reading' | 'ready' | 'failed' | 'cancelled';
  problem: string | null;
  records: number;
  waiting: number;
  accepted: number;
  skipped: number;
  unreadable: number;
  repaired: number;
  job: number | null;
  sameAs: { id: number; name: string; arrived: string } | null;
  supplier: string | null;
}
/** A record of a delivery as the list shows it. */
export interface IncomingRow {
  id: number;
  version: number;
  seq: number;
  title: string;
  author: string;
  isbn: string;
  year: string;
  decision: Outcome;
  chosen: boolean;
  copies: number;
  copyProblems: number;
  note: string;
  target: number | null;
  state: 'waiting' | 'accepted' | 'skipped';
  record: number | null;
  recipe: string | null;
  matches: Match[];
  repeats: number | null;
  errors: number;
  warnings: number;
  advice: number;
  repairs: number;
}
/** A repair as it is kept; bytes that belong to no field as base64. */
export type KeptRepair = Omit<Repair, 'bytes'> & { bytes?: string };
/** A record of a delivery whole: as it came, as it is now, what it matches. */
export interface IncomingDetail extends IncomingRow {
  marc: MarcRecord;
  original: MarcRecord;
  findings: Finding[];
  repairList: KeptRepair[];
  proposedCopies: ProposedCopy[];
  /** The records that match, and the one that was paired by hand. */
  held: { id: number; marc: MarcRecord; likeness: Likeness; copies: number }[];
  /** What the catalogue's record becomes by the decision; null when nothing is replaced or merged. */
  becomes: MarcRecord | null;
}
/** A page of a delivery’s records. `next` is the place behind which the next page begins. */
export interface IncomingPage {
  rows: IncomingRow[];
  next: number | null;
  total: number;
  facets: Record<string, number>;
}

/** How a delivery stands, for the counts that are checked at a glance, the chart and the printed report. */
export interface DeliverySummary {
  id: number;
  version: number;
  sheet: NonNullable<Delivery['sheet']> | null;
  settings: DeliverySettings;
  read: number;
  unreadable: number;
  /** Records that wait, by what is to be done with them. */
  waiting: Record<Outcome, number>;
  /** Records that are done, by what was done. */
  done: Record<'added' | 'replaced' | 'merged' | 'copiesOnly' | 'skipped', number>;
  copies: { waiting: number; problems: number; made: number };
  /** Findings of the checks as the file came, and now, by kind. */
  findings: { rule: string; title: string; severity: Severity; before: number; after: number }[];
  /** Whether anything can be taken back. */
  accepted: number;
}
/** What became of each record of a delivery, for printing. */
export interface DeliveryReport {
  name: string;
  arrived: string;
  rows: (ReportRow & { outcome: string })[];
}
/** A supplier sheet as it is kept. */
export interface SheetRow {
  id: number;
  version: number;
  sheet: SupplierSheet;
}
/** A label roll with how much of it is used. */
export interface RollRow {
  id: number;
  version: number;
  roll: LabelRoll;
  all: number;
  left: number;
  next: string | null;
}
/** A recipe with its steps as sentences. */
export interface RecipeRow {
  id: string;
  name: string;
  /** Null for the one that comes with Osier. */
  version: number | null;
  steps: { sentence: string; step: Step }[];
}

/** Findings of one check in a delivery. */
export interface FindingKind {
  rule: string;
  title: string;
  severity: Severity;
  findings: number;
  records: number;
  /** How many have a fix that can be applied unseen, and one to look at first. */
  safe: number;
  look: number;
}

/** What every batch act shows before it is done. */
export interface Review {
  /** One sentence of what will happen, with counts. */
  sentence: string;
  /** Verb and number for the button. */
  verb: string;
  count: number;
  /** Consequences worth a second look. */
  consequences: string[];
  rows: ReviewRow[];
  /** Rows beyond those shown in full. */
  more: number;
  /** What the review was made from; sent back with the act, so that nothing else is done than what was shown. */
  token?: string;
}
/** One object of a review. */
export interface ReviewRow {
  id: number;
  label: string;
  detail: string;
  /** Shown before the rest. */
  exception: string | null;
  before: ReviewSide | null;
  after: ReviewSide | null;
  canLeaveOut: boolean;
}
export type ReviewSide = { marc: MarcRecord } | { text: string };

/** What an act tells: its entry of the daybook and its sentence. */
export interface Done {
  entry: number;
  sentence: string;
  undoable: boolean;
}

/** A page of what a search finds, with what its input was taken for and counts by facet. */
export interface SearchAnswer {
  tookFor: string;
  /** The pile or delivery that was searched; null for the whole catalogue. */
  within: string | null;
  total: number;
  rows: RecordRow[];
  next: number | null;
  facets: {
    language: Record<string, number>;
    branch: Record<string, number>;
    material: Record<string, number>;
  };
}
/** A record as a list shows it. */
export interface RecordRow extends RecordBrief {
  id: number;
  copies: number;
  callNumber: string;
}
/** A pile with how much lies on it. */
export interface PileRow extends Pile {
  id: number;
  version: number;
  /** How many records or copies lie on it. */
  count: number;
}
/** One record or copy on a pile. */
export interface PiledRow {
  /** Number of the record or copy. */
  object: number;
  record: number;
  title: string;
  author: string;
  year: string;
  callNumber: string;
  /** Of a copy; empty for a record. */
  barcode: string;
  place: string;
  status: string;
}
/** A pile with a page of what lies on it. */
export interface PileDetail extends PileRow {
  rows: PiledRow[];
  next: number | null;
  /** How many of them are not in the catalogue any more. */
  gone: number;
}
/** What scanning onto a pile did. The entry is null when nothing was new. */
export interface PileScans {
  entry: number | null;
  sentence: string;
  added: number;
  repeated: number;
  unknown: { code: string; message: string }[];
}
export type LookUp =
  | { as: 'record'; id: number; said: string; copy?: number }
  | { as: 'heading'; id: number; said: string }
  | { as: 'withdrawn'; said: string }
  | { as: 'list'; q: string; said: string }
  | { as: 'nothing'; said: string };

/** A record with its holdings, copies, findings and history. */
export interface RecordDetail {
  id: number;
  version: number;
  marc: MarcRecord;
  brief: RecordBrief;
  findings: Finding[];
  holdings: {
    id: number;
    version: number;
    holding: Holding;
    callNumber: string;
    copies: { id: number; version: number; copy: Copy; due: string | null; loan: LoanState }[];
  }[];
  offers: CallNumberOffer[];
  headings: { key: string; kind: string; id: number; text: string }[];
  history: DaybookEntry[];
}

/** A heading with how many records carry it. */
export interface HeadingRow {
  id: number;
  text: string;
  kind: string;
  records: number;
  mergedInto: number | null;
}
/** Headings that may be one, with why. */
export interface LookAlikeGroup {
  headings: (HeadingRow & { seeFrom: string[]; titles: string[] })[];
  pairs: readonly LookAlike[];
}
/** A page of groups that look alike, the surest first. */
export interface LookAlikePage {
  rows: LookAlikeGroup[];
  /** Where the next page begins; null when there is none. */
  next: string | null;
  total: number;
  /** How many names are still to be compared, so that there may be more groups. */
  comparing: number;
}
/** A heading with its authority record and what carries it. */
export interface HeadingDetail extends HeadingRow {
  version: number;
  marc: MarcRecord;
  seeFrom: string[];
  mergedFrom: { id: number; text: string }[];
  usedBy: { id: number; title: string; year: string }[];
}

/** A withdrawal list with how many codes it has. */
export interface WithdrawalListRow {
  id: number;
  name: string;
  branch: string;
  reason: string;
  state: 'open' | 'done';
  codes: number;
  by: string;
  madeOn: string;
}
/** A withdrawal list with its verdicts as of now. */
export interface WithdrawalList extends WithdrawalListRow {
  version: number;
  verdicts: (Verdict & { scan: number; callNumber: string; place: string })[];
  loansDesk: boolean;
}
/** A row of the register of withdrawn copies; `restored` when its withdrawal was undone. */
export interface RegisterRow {
  id: number;
  entry: number;
  restored: boolean;
  withdrawn: Withdrawn;
}

/** A stocktake with how it stands. */
export interface StocktakeRow {
  id: number;
  version: number;
  stocktake: Stocktake;
  expected: number;
  found: number;
  scans: number;
  /** How many things books and shelf do not agree on; null while it is open. */
  findings: number | null;
  /** Its stretch, in words. */
  placeName: string;
}
/** What is said of scans at once. */
export interface ScanAnswer {
  /** How many were not sent before. */
  added: number;
  /** Of the last twenty. */
  verdicts: ScanVerdict[];
  /** The expected copy that stands next and was not scanned; null when none does. */
  next: { barcode: string; callNumber: string; title: string } | null;
  expected: number;
  found: number;
}
/** A stocktake with all that was found. */
export interface StocktakeDetail extends StocktakeRow {
  result: Reconciliation;
  loansDesk: boolean;
}

/** An entry of the daybook. `at` is an ISO date and time. */
export interface DaybookEntry {
  id: number;
  at: string;
  person: string;
  act: string;
  sentence: string;
  undoneBy: number | null;
  undoes: number | null;
  undoable: boolean;
  objects: number;
}
/** An entry with its first changes. */
export interface DaybookDetail extends DaybookEntry {
  changes: { kind: string; id: number; label: string; before: unknown; after: unknown }[];
  more: number;
}

/** How far a job is. */
export interface JobState {
  id: number;
  kind: string;
  title: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  done: number;
  total: number | null;
  /** Records a second over the whole run so far. */
  rate: number | null;
  secondsLeft: number | null;
  message: string | null;
  work: Record<string, unknown>;
  entry: number | null;
}

/** Lists, rules, people and checks as they are set up. */
export interface SetUp {
  lists: { version: number; value: CodeLists };
  house: { version: number; value: HouseRules };
  people: PersonRow[];
  checks: { rule: string; title: string; group: Group; source: string }[];
}

/** Which objects an entry changed, by kind; null where they are too many to be named. Entry null: what is no entry's, such as scans. */
export interface Changed {
  readonly entry: number | null;
  readonly kinds: Readonly<Partial<Record<Kind, readonly number[] | null>>>;
}
/** What goes on while a page is open. */
export type LiveMessage = { readonly job: JobState } | { readonly changed: Changed };
/** Header of an answer to an act: what it changed, as a JSON list of `Changed`. */
export const CHANGED_HEADER = 'osier-changed';
