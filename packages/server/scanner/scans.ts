import { scannedCodes } from '../copies/scanned';
import type { Transaction } from '../store/database';
import type { ScanColumns } from '../store/models';
import type { Store } from '../store/store';
import { insertFresh } from './queries';

/** What scans are for. */
export type ScanPurpose = ScanColumns['purpose'];

/** Scans as one person sends them. */
export interface SentScans {
  readonly person: number;
  /** The codes as the scanner gave them. */
  readonly raw: readonly string[];
  /** Where they come from: `number` is that of the first, the others follow. Null when they cannot be sent again. */
  readonly from: {
    readonly device: string;
    readonly run: string;
    readonly number: number;
    readonly location?: string;
  } | null;
  /** When each was scanned (ISO); now where it is not said. */
  readonly times?: readonly string[];
}

/** What scans are for: a withdrawal list, or a stocktake, by its number. */
interface ScannedFor {
  readonly purpose: Exclude<ScanPurpose, 'undone'>;
  readonly work: number;
}

/** Scans that are ready to be kept. */
export interface ReadyScans {
  readonly person: number;
  readonly from: SentScans['from'];
  readonly scans: readonly { readonly code: string; readonly number: number; readonly at: string }[];
}

/** The barcodes that sent scans stand for, with their numbers and times; scans of nothing are left out. */
export async function readyScans(
  store: Store,
  { person, raw, from, times = [] }: SentScans,
): Promise<ReadyScans> {
  const now = new Date().toISOString();
  const scans = (await scannedCodes(store, raw))
    .map((code, i) => ({ code, number: (from?.number ?? 0) + i, at: timeOf(times[i], now) }))
    .filter((s) => s.code !== '');
  return { person, from, scans };
}

/** Keeps scans that several people send at once; gives those that were not kept before, and how many each of them sent. */
export async function keepScans(
  store: Store,
  { purpose, work }: ScannedFor,
  sent: readonly ReadyScans[],
  tx: Transaction,
): Promise<{ readonly fresh: readonly ScanColumns[]; readonly counts: readonly number[] }> {
  const coming = new Set<string>();
  const rows = sent.flatMap(({ person, from, scans }, sender) => {
    const { device, run, location = '' } = from ?? { device: '', run: '' };
    return scans.flatMap(({ code, number, at }) => {
      const key = scanKey(device, run, number);
      if (from && coming.has(key)) return [];
      coming.add(key);
      return [{ code, at, person, device, run, number: from ? number : 0, location, sender }];
    });
  });
  const fresh = await insertFresh(store, purpose, work, rows, tx);
  const kept = new Set(fresh.map((s) => scanKey(s.device, s.run, s.number)));
  const counts = sent.map(
    (_, i) =>
      rows.filter((r) => r.sender === i && (r.device === '' || kept.has(scanKey(r.device, r.run, r.number))))
        .length,
  );
  const kind = purpose === 'stocktake' ? 'stocktake' : 'withdrawlist';
  if (fresh.length) tx.whenStored(() => store.feed.tell({ entry: null, kinds: { [kind]: [work] } }));
  return { fresh, counts };
}

const scanKey = (device: string, run: string, number: number): string =>
  JSON.stringify([device, run, number]);

/**
 * Scans are notes of a walk or a trolley, kept as they come; what is made of them goes through commit. `check` throws when nothing may be scanned
 * there. Gives the codes, and how many of them were not kept before.
 */
export async function addScans(
  store: Store,
  { check, ...to }: ScannedFor & SentScans & { readonly check: (inside: Store) => Promise<void> },
): Promise<{ codes: string[]; fresh: number }> {
  const ready = await readyScans(store, to);
  const fresh = await store.write(async (tx) => {
    const inside = store.within(tx);
    await check(inside);
    return (await keepScans(inside, to, [ready], tx)).fresh.length;
  });
  return { codes: ready.scans.map((s) => s.code), fresh };
}

/** A time as a device has it; now where it is none, or is still to come. */
function timeOf(time: string | undefined, now: string): string {
  const at = time === undefined ? NaN : Date.parse(time);
  return Number.isNaN(at) || at > Date.parse(now) ? now : new Date(at).toISOString();
}

/** The scans of a withdrawal list or stocktake, as they came. */
export const scansOf = (store: Store, purpose: ScanPurpose, work: number): Promise<ScanColumns[]> =>
  store.table('scans').find({ where: { purpose, work }, order: [['id', 'ASC']] });

/** The last scan of a walk; undefined when it has none. */
export const lastScanOf = (
  store: Store,
  purpose: ScanPurpose,
  work: number,
  walk: { readonly device: string; readonly run: string },
): Promise<ScanColumns | undefined> =>
  store.table('scans').first({
    where: { purpose, work, ...walk },
    order: [
      ['number', 'DESC'],
      ['id', 'DESC'],
    ],
  });

/** Takes one scan away. */
export const removeScan = async (
  store: Store,
  purpose: ScanPurpose,
  work: number,
  id: number,
): Promise<void> => void (await store.write((tx) => store.table('scans').remove({ purpose, work, id }, tx)));
