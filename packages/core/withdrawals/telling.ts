import { holdingsRecords, type OnShelf } from '../holdings';
import type { MarcRecord } from '../marc';

/** What of one kind was told: of how many holdings, the rows of the register of their copies, and records that are told of themselves. */
export interface ToldPart {
  readonly holdings: number;
  readonly rows: readonly number[];
  readonly records: readonly number[];
}

/** That the union catalogue was told what had gone, and what had gone before and is back. */
export interface Telling {
  /** When (ISO date and time), and by whom. */
  readonly at: string;
  readonly by: string;
  readonly gone: ToldPart;
  readonly back: ToldPart;
}

/** A title of which another catalogue is told. */
export interface ToldTitle extends OnShelf {
  readonly id: number;
  readonly record: MarcRecord;
  /** The record itself went, or came back, and not only its holdings. */
  readonly whole: boolean;
}

/** Record status (leader position 5, MARC 21): deleted, or new. */
export type ToldStatus = 'd' | 'n';

const withStatus = (record: MarcRecord, status: ToldStatus): MarcRecord => ({
  ...record,
  leader: record.leader.slice(0, 5) + status + record.leader.slice(6),
});

/**
 * The records by which another catalogue is told that a title went or came back: the bibliographic record where that did itself, then a
 * record for each holding (MARC 21 Format for Holdings Data). `day` is an ISO date.
 */
export function toldRecords(title: ToldTitle, status: ToldStatus, day: string): MarcRecord[] {
  const { id, record, whole } = title;
  const all = [...(whole ? [record] : []), ...holdingsRecords(id, record, title, day)];
  return all.map((one) => withStatus(one, status));
}
