import { Button, InputNumber } from 'antd';
import { useState } from 'react';
import { PickMany } from '../../../parts/form/PickMany';
import { useSetUp } from '../../setup/use-set-up';
import { RollChoice } from './RollChoice';
import { shelfWords as wording } from './words';

/** What fills the grid of copies: the first row at some branches, and barcodes of a label roll. */
export function GridTools({
  copy,
  roll,
  onRoll,
  onRows,
}: {
  /** Where the first copy is to stand, and its type. */
  copy: { readonly branch: string; readonly type: string };
  roll: number | null;
  onRoll: (roll: number | null) => void;
  onRows: (branches: readonly string[], each: number) => void;
}) {
  const lists = useSetUp()?.lists.value;
  const [branches, setBranches] = useState<readonly string[]>([]);
  const [each, setEach] = useState(1);
  return (
    <div className="row grid-tools">
      <span>{wording.thisCallNumberAt}</span>
      <PickMany
        list={lists?.branches ?? []}
        placeholder={wording.branches}
        label={wording.branches}
        value={[...branches]}
        onChange={setBranches}
      />
      <InputNumber
        aria-label={wording.copiesEach}
        min={1}
        max={50}
        controls={false}
        style={{ width: 56 }}
        value={each}
        onChange={(n) => setEach(n ?? 1)}
      />
      <Button disabled={branches.length === 0} onClick={() => onRows(branches, each)}>
        {wording.makeRows}
      </Button>
      <RollChoice copy={copy} roll={roll} onRoll={onRoll} />
    </div>
  );
}
