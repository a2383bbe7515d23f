import { api } from '@osier/contract';
import { Select } from 'antd';
import { useApi } from '../../../api/queries';
import { rollOptions } from '../../../parts/roll-options';
import { useSetUp } from '../../setup/use-set-up';
import { shelfWords as wording } from './words';

/** Where the barcodes of copies to come are from: scanned, or the next numbers of a label roll; those for the copy in hand come first. */
export function RollChoice({
  copy,
  roll,
  onRoll,
}: {
  /** Where the first copy is to stand, and its type. */
  copy: { readonly branch: string; readonly type: string } | undefined;
  roll: number | null;
  onRoll: (roll: number | null) => void;
}) {
  const lists = useSetUp()?.lists.value;
  const { data: rolls = [] } = useApi(api.suppliers.rolls);
  return (
    <Select<number | null>
      aria-label={wording.barcodesFrom}
      popupMatchSelectWidth={false}
      style={{ minWidth: 170 }}
      value={roll}
      onChange={onRoll}
      options={rollOptions(rolls, wording.scanEveryBarcode, wording.fromRoll, { copy, lists })}
    />
  );
}
