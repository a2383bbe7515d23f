import type { ScanBatch } from '@osier/core/stocktake';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { ScanColumns } from '../store/models';
import type { Store } from '../store/store';

/** More codes than a file may have. */
const IN_A_FILE = 1_000_000;
/** Files come before scans that were made one by one. */
const BEHIND_FILES = 4e15;

/** Scans of one walk that are added together. */
export interface SeenScans {
  /** Which walk: a file by its number, else device and run; 0 and '' for what was scanned without a name. */
  readonly walk: {
    readonly file: number;
    readonly device: string;
    readonly run: string;
    readonly name: string;
    readonly location: string;
    readonly person: number;
  };
  /** Codes with their places in all that was scanned, numbers that grow, and when they were scanned (ISO). */
  readonly scans: readonly { readonly code: string; readonly place: number; readonly at: string }[];
}

/** The scans of a file, in their order. */
export const inFile = (file: number, { name, on, location = '', codes }: ScanBatch): SeenScans => ({
  walk: { file, device: '', run: '', name, location, person: 0 },
  scans: codes.map((code, i) => ({ code, place: file * IN_A_FILE + i, at: on })),
});

/** Scans that were made one by one, walk by walk. */
export function madeOnes(scans: readonly ScanColumns[]): SeenScans[] {
  const walks = new Map<string, SeenScans & { scans: { code: string; place: number; at: string }[] }>();
  for (const { id, code, at, device, run, location, person } of scans) {
    const key = `${device} ${run}`;
    const known = walks.get(key) ?? { walk: { file: 0, device, run, name: '', location, person }, scans: [] };
    walks.set(key, known);
    known.scans.push({ code, place: BEHIND_FILES + id, at });
  }
  return [...walks.values()];
}

/** Adds scans to what was seen in a stocktake, and to their walks. */
export async function addSeen(
  store: Store,
  id: number,
  walks: readonly SeenScans[],
  tx: Transaction,
): Promise<void> {
  const scans = walks.flatMap((w) => w.scans);
  if (scans.length === 0) return;
  const seen = new Map<string, { first: number; times: number; day: string }>();
  for (const { code, place, at } of scans) {
    const known = seen.get(code);
    const day = at.slice(0, 10);
    seen.set(code, {
      first: Math.min(known?.first ?? place, place),
      times: (known?.times ?? 0) + 1,
      day: known && known.day > day ? known.day : day,
    });
  }
  const codes = JSON.stringify([...seen.keys()]);
  // Counted before they are kept as seen.
  await store.run(
    `UPDATE stocktake_state SET found = found + (${FOUND_AMONG}), scans = scans + :scans WHERE stocktake = :id`,
    { id, codes, scans: scans.length },
    tx,
  );
  const rows = [...seen].map(([code, { first, times, day }]) => [id, code, first, times, day]);
  await insertRows(
    store,
    'INSERT',
    'stocktake_seen',
    ['stocktake', 'code', 'first', 'times', 'day'],
    rows,
    tx,
    `ON CONFLICT (stocktake, code) DO UPDATE SET times = times + excluded.times, first = MIN(first, excluded.first), day = MAX(day, excluded.day)`,
  );
  // What the loans desk said before counts no more: a copy stands as it does when it is scanned.
  await store.run(
    'DELETE FROM stocktake_loans WHERE stocktake = :id AND barcode IN (SELECT value FROM json_each(:codes))',
    { id, codes },
    tx,
  );
  await insertRows(
    store,
    'INSERT',
    'stocktake_runs',
    ['stocktake', 'device', 'run', 'file', 'name', 'location', 'person', 'scans', 'began', 'ended'],
    walks.flatMap(({ walk, scans: own }) => {
      const times = own.map((s) => s.at).sort();
      const { device, run, file, name, location, person } = walk;
      return own.length
        ? [[id, device, run, file, name, location, person, own.length, times[0], times.at(-1)]]
        : [];
    }),
    tx,
    `ON CONFLICT (stocktake, device, run, file) DO UPDATE SET scans = scans + excluded.scans, began = MIN(began, excluded.began), ended = MAX(ended, excluded.ended)`,
  );
}

/** How many expected copies are among codes of which none was seen. */
const FOUND_AMONG = `SELECT COUNT(*) FROM json_each(:codes) w CROSS JOIN stocktake_expected e INDEXED BY stocktake_expected_barcode ON e.stocktake = :id AND e.barcode = w.value AND e.counts = 1
   WHERE NOT EXISTS (SELECT 1 FROM stocktake_seen s WHERE s.stocktake = :id AND s.code = w.value)`;

/** Takes a scan out of what was seen in a stocktake. */
export async function takeSeen(
  store: Store,
  id: number,
  { code, device, run }: Pick<ScanColumns, 'code' | 'device' | 'run'>,
  tx: Transaction,
): Promise<void> {
  await store.run(
    'UPDATE stocktake_seen SET times = times - 1 WHERE stocktake = :id AND code = :code',
    { id, code },
    tx,
  );
  await store.run(
    'DELETE FROM stocktake_seen WHERE stocktake = :id AND code = :code AND times < 1',
    { id, code },
    tx,
  );
  await store.run(
    `UPDATE stocktake_state SET found = found - (${FOUND_AMONG}), scans = scans - 1 WHERE stocktake = :id`,
    { id, codes: JSON.stringify([code]) },
    tx,
  );
  await store.run(
    'UPDATE stocktake_runs SET scans = scans - 1 WHERE stocktake = :id AND device = :device AND run = :run AND file = 0',
    { id, device, run },
    tx,
  );
}
