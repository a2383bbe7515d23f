import { nextSerial, rollNumber, serialIn, type LabelRoll } from '@osier/core/barcodes';
import { rollUse } from '../projections/roll-numbers';
import type { Store } from '../store/store';
import { barcodesBrought } from './queries';

/** The label roll of a delivery, with the highest of its numbers that waiting records bring. */
export interface RollInUse {
  readonly id: number;
  readonly roll: LabelRoll;
  readonly brought: number | null;
}

/** Looks once over all that waits, so that no number is given out that a record further on brings. */
export async function rollInUse(store: Store, id: number | null): Promise<RollInUse | null> {
  const held = id === null ? null : await store.read('roll', id);
  if (!held) return null;
  const { value: roll } = held;
  const brought = await barcodesBrought(store, {
    from: rollNumber(roll, roll.from),
    to: rollNumber(roll, roll.to),
    length: roll.length,
  });
  const serials = brought.flatMap((barcode) => serialIn(roll, barcode) ?? []);
  return {
    id: held.id,
    roll,
    brought: serials.reduce<number | null>((most, n) => Math.max(most ?? n, n), null),
  };
}

/** Gives the numbers of a roll, as it stands now, behind the last one that is or was on a copy or is brought, one after another. */
export async function numbersOfRoll(store: Store, used: RollInUse | null): Promise<() => string | null> {
  const held = used && (await store.read('roll', used.id));
  if (!held) return () => null;
  const [{ value: roll }, { brought }] = [held, used];
  const { last } = await rollUse(store, held);
  const behind = last === null || brought === null ? (last ?? brought) : Math.max(last, brought);
  let serial = nextSerial(roll, behind);
  return () => {
    if (serial === null) return null;
    const number = rollNumber(roll, serial);
    serial = nextSerial(roll, serial);
    return number;
  };
}
