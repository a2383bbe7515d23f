import { asExported, holdingsRecords, withHoldings } from '@osier/core/holdings';
import type { HouseRules } from '@osier/core/house';
import type { StoredObject } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import { today } from '../day';
import { withNumbersOfHeadings } from '../headings/number-fields';
import type { Store } from '../store/store';
import { localFieldsOf } from './local-fields';

/** How holdings go with their records: in them, in records of their own behind each, or not. */
export type HoldingsAs = 'within' | 'apart' | 'none';

/** Records as they leave the catalogue, with their holdings as they are wanted; prices in the currency of the house, numbers of headings where it wants them. */
export async function withTheirHoldings(
  store: Store,
  records: readonly StoredObject<'record'>[],
  as: HoldingsAs,
  { currency, writesNumbers = false }: Pick<HouseRules, 'currency' | 'writesNumbers'>,
): Promise<MarcRecord[]> {
  const ids = records.map((r) => r.id);
  const holdings = await store.find('holding', {
    where: { record: ids },
    order: [
      ['shelf_key', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const copies =
    as === 'none' ? [] : await store.find('copy', { where: { record: ids }, order: [['id', 'ASC']] });
  const fields = as === 'none' ? [] : await localFieldsOf(store);
  const plainOf = records.map((r) => r.value);
  const values = writesNumbers ? await withNumbersOfHeadings(store, plainOf) : plainOf;
  return records.flatMap(({ id }, at) => {
    const value = values[at]!;
    const own = holdings.filter((h) => h.value.record === id);
    const onShelf = { holdings: own, copies, currency, fields };
    if (as === 'within') return [withHoldings(value, onShelf)];
    const plain = asExported(value, own.length > 0);
    return as === 'apart' ? [plain, ...holdingsRecords(id, plain, onShelf, today())] : [plain];
  });
}
