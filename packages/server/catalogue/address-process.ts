import { hasAny, isAddress, parseAddress } from '@osier/core/address';
import { keptJson, keptValue } from '../store/kept-json';
import sqlite3 from 'sqlite3';
import { RECORDS_WITH_TEXT } from './queries';

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
const AT_ONCE = 1000;

function search(): void {
  const address = parseAddress(written);
  if (!isAddress(address)) return void process.send?.({ end: true });
  const db = new sqlite3.Database(file, sqlite3.OPEN_READONLY);
  const statement = db.prepare(RECORDS_WITH_TEXT);
  const next = (after: number): void =>
    void statement.all<Row>([after, tag, AT_ONCE], (error, rows) => {
      if (error) throw error;
      const ids = rows.filter((r) => hasAny(keptValue('record', r.value), address)).map((r) => r.id);
      process.send?.({ ids });
      if (rows.length === AT_ONCE) return next(rows.at(-1)!.id);
      statement.finalize(() => db.close(() => process.send?.({ end: true })));
    });
  next(0);
}

// The server is gone, or nobody waits any more.
process.on('disconnect', () => process.exit());
search();
