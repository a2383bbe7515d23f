import { Checkbox } from 'antd';
import { shelfWords as wording } from './words';

/** Lets barcodes of a grid be used that were refused only for their form, their roll, or what they were on before. */
export function KeepBarcodes({ keep, onKeep }: { keep: boolean; onKeep: (keep: boolean) => void }) {
  return (
    <Checkbox checked={keep} onChange={(e) => onKeep(e.target.checked)}>
      {wording.useTheseBarcodesAnyway}
    </Checkbox>
  );
}
