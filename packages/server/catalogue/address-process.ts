import { hasAny, isAddress, parseAddress } from '@osier/core/address';
import { keptJson, keptValue } from '../store/kept-json';
import sqlite3 from 'sqlite3';
import { LAST_RECORD, RECORDS_WITH_TEXT } from './queries';

/** What the process is told: the database file, the address as it was typed, and a text that every record with such a tag has. */
export interface AddressWork {
  readonly file: string;
  readonly address: string;
  readonly tag: string;
}

interface Row {
  readonly id: number;
  readonly value: string;
}

/**
 * Looks through all records for an address, in a process and on a connection of its own, and hands over ids as it finds them. A process
 * and no thread: it can be ended at any moment, which a thread with a database open survives as little as the server around it.
 */
const { file, address: written, tag } = keptJson<AddressWork>(process.env.OSIER_ADDRESS_WORK ?? '{}');
/** Numbers of records that are looked at in one go: few first, so that something is soon there. */
const FIRST = 250;
const AT_ONCE = 2000;

/** What the process says: those it has found since it spoke last, and how much of all it has looked at (0 to 1); in the end that it has. */
export type AddressSaid =
  { readonly ids: readonly number[]; readonly share: number } | { readonly end: true };
const say = (said: AddressSaid): void => void process.send?.(said);

function search(): void {
  const address = parseAddress(written);
  if (!isAddress(address)) return say({ end: true });
  const db = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
  const statement = db.prepare(RECORDS_WITH_TEXT);
  const end = () => statement.finalize(() => db.close(() => say({ end: true })));
  const next = (after: number, to: number, last: number): void =>
    void statement.all<Row>([after, to, tag], (error, rows) => {
      if (error) throw error;
      const ids = rows.filter((r) => hasAny(keptValue('record', r.value), address)).map((r) => r.id);
      say({ ids, share: Math.min(1, to / last) });
      if (to < last) next(to, to + AT_ONCE, last);
      else end();
    });
  db.get<{ id: number }>(LAST_RECORD, (error, row) => {
    if (error) throw error;
    next(0, FIRST, row.id);
  });
}

// The server is gone, or nobody waits any more.
process.on('disconnect', () => process.exit());
search();
