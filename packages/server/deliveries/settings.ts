import type { LabelRoll } from '@osier/core/barcodes';
import { DEFAULT_SETTINGS, type Delivery, type DeliverySettings } from '@osier/core/deliveries';
import type { CopyRules } from '@osier/core/holdings';
import type { Store } from '../store/store';

/** A delivery's settings; one that was taken in before there were any has the defaults. */
export const settingsFor = (delivery: Delivery): DeliverySettings => delivery.settings ?? DEFAULT_SETTINGS;

/** The name on the sheet that a delivery follows; empty for none. */
export const supplierOf = (delivery: Delivery): string => delivery.sheet?.name ?? '';

/** What copies of a delivery are made by. */
export interface CopyWork {
  readonly rules: CopyRules;
  readonly roll: LabelRoll | null;
  readonly rolls: readonly LabelRoll[];
}

/** The rules, lists and rolls by which copies of a delivery are made now. */
export async function copyWork(store: Store, settings: DeliverySettings): Promise<CopyWork> {
  const rolls = await store.find('roll', { order: [['id', 'ASC']] });
  return {
    rules: {
      mapping: settings.mapping,
      defaults: settings.defaults,
      house: (await store.house()).value,
      lists: (await store.lists()).value,
    },
    roll: rolls.find((r) => r.id === settings.roll)?.value ?? null,
    rolls: rolls.map((r) => r.value),
  };
}
