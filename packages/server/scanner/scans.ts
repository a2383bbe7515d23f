import { Op, type WhereOptions } from 'sequelize';
import { scannedCodes } from '../copies/scanned';
import type { Transaction } from '../store/database';
import { insertRows } from '../store/insert';
import type { ScanColumns } from '../store/models';
import type { Store } from '../store/store';

/** What scans are for. */
export type ScanPurpose = ScanColumns['purpose'];

/** Scans that are to be kept. */
export interface NewScans {
  readonly purpose: Exclude<ScanPurpose, 'undone'>;
  readonly work: number;
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
  /** Throws when nothing may be scanned there. */
  readonly check: (inside: Store) => Promise<void>;
  /** More to do with the scans that are new, in the same transaction. */
  readonly also?: (inside: Store, fresh: readonly ScanColumns[], tx: Transaction) => Promise<void>;
}

/**
 * Scans are notes of a walk or a trolley, kept as they come; what is made of them goes through commit. Gives the codes,
 * and how many of them were not kept before.
 */
export async function addScans(
  store: Store,
  { purpose, work, person, raw, from, times = [], check, also }: NewScans,
): Promise<{ codes: string[]; fresh: number }> {
  const now = new Date().toISOString();
  const scans = (await scannedCodes(store, raw))
    .map((code, i) => ({ code, number: (from?.number ?? 0) + i, at: timeOf(times[i], now) }))
    .filter((s) => s.code !== '');
  const { device, run, location = '' } = from ?? { device: '', run: '' };
  const fresh = await store.write(async (tx) => {
    const inside = store.within(tx);
    await check(inside);
    const known = from
      ? await numbersKept(inside, {
          // What was undone does not come again.
          purpose: [purpose, 'undone'],
          work,
          device,
          run,
          number: { [Op.between]: [from.number, from.number + raw.length] },
        })
      : new Set<number>();
    const own = scans.filter((s) => !known.has(s.number));
    const rows = own.map(({ code, number, at }) => [
      purpose,
      work,
      code,
      at,
      person,
      device,
      run,
      from ? number : 0,
      location,
    ]);
    await insertRows(store, 'INSERT', 'scans', COLUMNS, rows, tx);
    await also?.(inside, await lastScans(inside, purpose, work, own.length), tx);
    const kind = purpose === 'stocktake' ? 'stocktake' : 'withdrawlist';
    if (own.length) tx.whenStored(() => store.feed.tell({ entry: null, kinds: { [kind]: [work] } }));
    return own.length;
  });
  return { codes: scans.map((s) => s.code), fresh };
}
const COLUMNS = ['purpose', 'work', 'code', 'at', 'person', 'device', 'run', 'number', 'location'];

/** A time as a device has it; now where it is none, or is still to come. */
function timeOf(time: string | undefined, now: string): string {
  const at = time === undefined ? NaN : Date.parse(time);
  return Number.isNaN(at) || at > Date.parse(now) ? now : new Date(at).toISOString();
}

/** The last few scans that were kept. */
const lastScans = (store: Store, purpose: ScanPurpose, work: number, limit: number): Promise<ScanColumns[]> =>
  store.table('scans').find({ where: { purpose, work }, order: [['id', 'DESC']], limit });

/** Which numbers were kept before, among those that are sent now. */
async function numbersKept(store: Store, where: WhereOptions<ScanColumns>): Promise<ReadonlySet<number>> {
  return new Set((await store.table('scans').find({ where })).map((s) => s.number));
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
