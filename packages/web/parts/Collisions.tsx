import { fieldText, type Collision, type Side } from '@osier/core/marc';
import { Button, Radio } from 'antd';
import { Mark } from './Mark';

const text = (fields: Collision['mine']) =>
  fields.length ? fields.map(fieldText).join(' | ') : '(field deleted)';

/**
 * What two people changed in the same place, one by one: which of the two stands. All else that either changed is in the
 * record already.
 */
export function Collisions({
  collisions,
  choices,
  onChoose,
  onDone,
  onDiscard,
}: {
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
        <Mark kind="stop" /> Somebody saved this record while you worked on it. Nothing of yours was lost:
        changes in other fields are joined.{' '}
        {collisions.length
          ? `You both changed ${collisions.length === 1 ? 'this' : 'these'}; choose what stands.`
          : 'You changed different fields, so that both can stand.'}
      </p>
      {collisions.map((c, i) => (
        <fieldset key={i} className="collision">
          <legend>
            {c.base[0]?.tag ?? c.mine[0]?.tag ?? c.theirs[0]?.tag}, {i + 1} of {collisions.length}
          </legend>
          <Radio.Group
            aria-label="What stands"
            value={choices[i]}
            onChange={(e) => onChoose(i, e.target.value === 'mine' ? 'mine' : 'theirs')}
            options={[
              { value: 'mine', label: `Mine: ${text(c.mine)}` },
              { value: 'theirs', label: `Theirs: ${text(c.theirs)}` },
            ]}
            vertical
          />
        </fieldset>
      ))}
      <div className="row">
        <Button type="primary" disabled={open > 0} onClick={onDone}>
          {open ? `${open} to choose` : 'Continue editing'}
        </Button>
        <Button onClick={onDiscard}>Discard my changes</Button>
      </div>
    </div>
  );
}
