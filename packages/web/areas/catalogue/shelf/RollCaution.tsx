import { api } from '@osier/contract';
import { isRollFor, rollMeantFor, serialIn } from '@osier/core/barcodes';
import { useApi } from '../../../api/queries';
import { Mark } from '../../../parts/Mark';
import { useSetUp } from '../../setup/use-set-up';
import { shelfWords as wording } from './words';

/** That a barcode is a number of a label roll which is meant for other copies; nothing where it is not. */
export function RollCaution({ barcode, copy }: { barcode: string; copy: Parameters<typeof isRollFor>[1] }) {
  const lists = useSetUp()?.lists.value;
  const { data: rolls = [] } = useApi(api.suppliers.rolls);
  const of = rolls.find(({ roll }) => serialIn(roll, barcode) !== null && !isRollFor(roll, copy));
  if (!of || !lists) return null;
  return (
    <p>
      <Mark kind="caution" /> {wording.ofARollForOthers(of.roll.name, rollMeantFor(of.roll, lists))}
    </p>
  );
}
