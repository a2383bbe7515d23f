import { DeleteOutlined } from '@ant-design/icons';
import { OUTCOME_NAMES, POINT_NAMES, POINTS, type MatchPoint, type Outcome } from '@osier/core/matching';
import { Button, Checkbox, InputNumber, Select } from 'antd';
import { KitField, KitGrid, KitSection } from '../form/KitField';
import { SortableRows } from '../SortableRows';
import type { Editing } from './editing';
import { partWords as wording } from '../words';

const FOR_ONE: readonly Outcome[] = ['ask', 'replace', 'merge', 'copies', 'skip', 'add'];
const FOR_SEVERAL: readonly Outcome[] = ['ask', 'skip', 'add'];
const FOR_NONE: readonly Outcome[] = ['add', 'ask', 'skip'];
const ACTIONS = [
  ['one', wording.oneRecordMatches, FOR_ONE],
  ['several', wording.severalRecordsMatch, FOR_SEVERAL],
  ['none', wording.noRecordMatches, FOR_NONE],
] as const;
const GUARDS = [
  ['format', wording.theFormatDiffers],
  ['part', wording.thePartOrVolumeDiffers],
  ['edition', wording.theEditionDiffers],
  ['title', wording.theTitlesDiffer],
] as const;

/** The match rule in its order, the guards, and what is done on one, several or no matches. */
export function MatchFields({ value, onChange, problem, disabled = false }: Editing) {
  const { rule, actions } = value;
  const points = (next: readonly MatchPoint[]) => onChange({ ...value, rule: { ...rule, points: next } });
  const change = (i: number, part: Partial<MatchPoint>) =>
    points(rule.points.map((p, k) => (k === i ? { ...p, ...part } : p)));
  const guard = (part: Partial<typeof rule.guards>) =>
    onChange({ ...value, rule: { ...rule, guards: { ...rule.guards, ...part } } });
  const left = POINTS.filter((by) => !rule.points.some((p) => p.by === by));
  const wrong = problem('rule') ?? problem('rule.points');
  return (
    <KitSection title={wording.matching} intro={wording.theWeightsOfTheMatch}>
      {wrong ? (
        <p className="field-problem" role="alert">
          {wrong}
        </p>
      ) : null}
      <div className="match-points">
        <SortableRows
          rows={rule.points}
          keyOf={(p) => p.by}
          nameOf={(p) => POINT_NAMES[p.by]}
          label={wording.matchPointsInTheirOrder}
          disabled={disabled}
          onOrder={points}
        >
          {(p, i) => (
            <div className="match-point">
              <span>{POINT_NAMES[p.by]}</span>
              <label className="row nowrap">
                {wording.weight}
                <InputNumber
                  size="small"
                  aria-label={wording.weightOf(POINT_NAMES[p.by])}
                  min={1}
                  max={100}
                  controls={false}
                  style={{ width: 56 }}
                  status={problem(`rule.points.${i}.weight`) ? 'error' : ''}
                  value={p.weight}
                  disabled={disabled}
                  onChange={(weight) => change(i, { weight: weight ?? 1 })}
                />
              </label>
              <Checkbox
                aria-label={wording.decidesAlone(POINT_NAMES[p.by])}
                checked={p.alone}
                disabled={disabled}
                onChange={(e) => change(i, { alone: e.target.checked })}
              >
                {wording.decidesAlone2}
              </Checkbox>
              {disabled ? null : (
                <Button
                  type="text"
                  size="small"
                  icon={<DeleteOutlined />}
                  aria-label={wording.delete(POINT_NAMES[p.by])}
                  onClick={() => points(rule.points.filter((_, k) => k !== i))}
                />
              )}
            </div>
          )}
        </SortableRows>
        {left.length && !disabled ? (
          <Select
            aria-label={wording.addAMatchPoint}
            placeholder={wording.addAMatchPoint}
            style={{ width: 320, margin: '6px 0' }}
            value={null}
            onChange={(by: MatchPoint['by'] | null) =>
              by && points([...rule.points, { by, weight: 50, alone: false }])
            }
            options={left.map((by) => ({ value: by, label: POINT_NAMES[by] }))}
          />
        ) : null}
      </div>
      <div className="row guards" role="group" aria-label={wording.guards}>
        <span>{wording.noMatchWhen}</span>
        {GUARDS.map(([key, name]) => (
          <Checkbox
            key={key}
            checked={rule.guards[key]}
            disabled={disabled}
            onChange={(e) => guard({ [key]: e.target.checked })}
          >
            {name}
          </Checkbox>
        ))}
        <span className="row nowrap">
          {wording.theYearsDifferByMore}
          <InputNumber
            size="small"
            aria-label={wording.mostYearsBetweenThem}
            min={0}
            max={500}
            controls={false}
            style={{ width: 64 }}
            placeholder={wording.any}
            value={rule.guards.years}
            disabled={disabled}
            onChange={(years) => guard({ years })}
          />
        </span>
      </div>
      <KitGrid isDense>
        {ACTIONS.map(([key, label, from]) => (
          <KitField key={key} label={label} problem={problem(`actions.${key}`)}>
            <Select
              value={actions[key]}
              disabled={disabled}
              popupMatchSelectWidth={false}
              onChange={(outcome) => onChange({ ...value, actions: { ...actions, [key]: outcome } })}
              options={from.map((o) => ({ value: o, label: OUTCOME_NAMES[o] }))}
            />
          </KitField>
        ))}
      </KitGrid>
    </KitSection>
  );
}
