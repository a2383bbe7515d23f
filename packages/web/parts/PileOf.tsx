import { Radio } from 'antd';
import type { PiledKind } from '@osier/core/piles';
import './pile.css';

const KINDS: readonly (readonly [PiledKind, string])[] = [
  ['copy', 'copies, one barcode each'],
  ['record', 'records, whole titles'],
];

/** Chooses whether a pile is of copies or of records. */
export function PileOf({ value, onChange }: { value: PiledKind; onChange: (of: PiledKind) => void }) {
  return (
    <fieldset className="pile-of">
      <legend>A pile of</legend>
      {KINDS.map(([kind, name]) => (
        <Radio key={kind} name="pile-of" checked={value === kind} onChange={() => onChange(kind)}>
          {name}
        </Radio>
      ))}
    </fieldset>
  );
}
