import type { Role } from '@osier/contract';
import type { BriefState } from '@osier/core/neighbours';

/** A job as it is kept. */
export interface JobColumns {
  id: number;
  kind: string;
  title: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  person: number;
  work: string;
  cursor: string;
  done: number;
  total: number | null;
  message: string | null;
  entry: number | null;
  started: string;
  begun: number;
}

/** An account as it is kept. */
export interface PersonColumns {
  id: number;
  name: string;
  login: string;
  login_key: string | null;
  role: Role;
  password: string;
  demo: number;
  active: number;
  /** What the person may beside what the role allows, as JSON. */
  rights: string;
}

/** A session: the digest of its token, whose it is, and until when (ISO date and time). */
export interface SignInColumns {
  token: string;
  person: number;
  expires: string;
}

/** A scan of a withdrawal list or a stocktake, as it came. */
export interface ScanColumns {
  id: number;
  /** What it is for; `undone`: one of a stocktake that does not count any more. */
  purpose: 'withdrawal' | 'stocktake' | 'undone';
  work: number;
  code: string;
  at: string;
  person: number;
  /** Where it comes from, so that sending it again never doubles it; '' when it was sent without. */
  device: string;
  run: string;
  number: number;
  /** Code of the location that is walked; '' for all of the stretch. */
  location: string;
}

/** What the registry says otherwise of a heading. */
export interface RegistryNewsColumns {
  heading: number;
  says: 'form' | 'gone';
  form: string;
  number: string;
  at: string;
}

/** Up to which entry a person has printed labels of a kind. */
export interface LabelPrintColumns {
  person: number;
  kind: string;
  entry: number;
  at: string;
}

/** How far the reading of a delivery has come. */
export interface ReadingColumns {
  delivery: number;
  state: 'reading' | 'ready' | 'failed' | 'cancelled';
  problem: string | null;
  unreadable: number;
  repaired: number;
  since: number;
}

/** An entry of the daybook without its changes. */
export interface DaybookColumns {
  id: number;
  at: string;
  person: number;
  act: string;
  sentence: string;
  /** What was done, as JSON; null in entries from before it was kept as data. */
  said: string | null;
  objects: number;
  undone_by: number | null;
  undoes: number | null;
}

/** The next number of a kind. */
export interface CounterColumns {
  kind: string;
  next: number;
}

/** Books that are looked for together among the neighbours. */
export interface BookListColumns {
  id: number;
  name: string;
  at: string;
  person: number;
}

/** A book of such a list, as far as it has been looked for. */
export interface BookListRowColumns {
  list: number;
  seq: number;
  /** As it was scanned. */
  code: string;
  /** In 13 digits; '' for what is no ISBN. */
  isbn: string;
  state: string;
  /** Why, as a sentence. */
  reason: string;
  title: string;
  /** The neighbour that has it; 0 for none. */
  neighbour: number;
  /** Numbers of the neighbours that were asked, as JSON. */
  asked: string;
  /** The record that was found, as JSON. */
  marc: string | null;
  /** The delivery that it went into; 0 for none. */
  delivery: number;
}

/** A brief record that waits for its full one. */
export interface BriefRecordColumns {
  record: number;
  /** The day since which it waits, ISO. */
  since: string;
  /** When the neighbours were asked last, ISO; '' for never. */
  asked: string;
  state: BriefState;
  /** What the last asking found, as a sentence. */
  reason: string;
  /** The neighbour whose record is offered; 0 for none. */
  neighbour: number;
  /** The record that is offered, as JSON. */
  marc: string | null;
  /** Marks of records that were refused, as JSON. */
  refused: string;
}

/** The tables that hold no objects of a kind, with what a row of each is. */
export interface TableColumns {
  label_prints: LabelPrintColumns;
  registry_news: RegistryNewsColumns;
  jobs: JobColumns;
  people: PersonColumns;
  sign_ins: SignInColumns;
  scans: ScanColumns;
  readings: ReadingColumns;
  daybook: DaybookColumns;
  counters: CounterColumns;
  brief_records: BriefRecordColumns;
  book_lists: BookListColumns;
  book_list_rows: BookListRowColumns;
}
