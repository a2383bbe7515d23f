import { fieldText, type Collision, type MarcRecord, type Side } from '@osier/core/marc';
import { Button, Radio } from 'antd';
import { Compare } from './Compare';
import { Mark } from './Mark';
import { partWords as wording } from './words';

const text = (fields: Collision['mine']) =>
  fields.length ? fields.map(fieldText).join(' | ') : wording.fieldDeleted;

/**
 * What two people changed in the same place, one by one: which of the two stands. All else that either changed is in the
 * record already.
 */
export function Collisions({
  before,
  after,
  collisions,
  choices,
  onChoose,
  onDone,
  onDiscard,
}: {
  /** The record as it was when the editing began, and as the other person saved it. */
  before: MarcRecord;
  after: MarcRecord;
  collisions: readonly Collision[];
  choices: readonly (Side | undefined)[];
  onChoose: (at: number, side: Side) => void;
  onDone: () => void;
  onDiscard: () => void;
}) {
  const open = collisions.filter((_, i) => choices[i] === undefined).length;
  return (
    <div className="note stop" role="alert">
      <p>
        <Mark kind="stop" />{' '}
        {wording.somebodySavedThisRecordWhile(
          collisions.length
            ? wording.youBothChangedChooseWhich(collisions.length === 1 ? 'this' : 'these')
            : wording.youChangedDifferentFieldsBoth,
        )}
      </p>
      <h4>{wording.whatTheyChanged}</h4>
      <Compare before={before} after={after} />
      {collisions.map((c, i) => (
        <fieldset key={i} className="collision">
          <legend>
            {c.base[0]?.tag ?? c.mine[0]?.tag ?? c.theirs[0]?.tag}
            {wording.of(i + 1, collisions.length)}
          </legend>
          <p className="faded">{c.base.length ? wording.asItWas(text(c.base)) : wording.wasNotThere}</p>
          <Radio.Group
            aria-label={wording.versionToKeep}
            value={choices[i]}
            onChange={(e) => onChoose(i, e.target.value === 'mine' ? 'mine' : 'theirs')}
            options={[
              { value: 'mine', label: wording.mine(text(c.mine)) },
              { value: 'theirs', label: wording.theirs(text(c.theirs)) },
            ]}
            vertical
          />
        </fieldset>
      ))}
      <div className="row">
        <Button type="primary" disabled={open > 0} onClick={onDone}>
          {open ? wording.toChoose(open) : wording.continueEditing}
        </Button>
        <Button onClick={onDiscard}>{wording.discardMyChanges}</Button>
      </div>
    </div>
  );
}
