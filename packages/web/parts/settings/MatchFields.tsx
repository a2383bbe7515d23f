import { ArrowUpOutlined, CloseOutlined } from '@ant-design/icons';
import { OUTCOME_NAMES, POINT_NAMES, POINTS, type MatchPoint, type Outcome } from '@osier/core/matching';
import { Button, Checkbox, InputNumber, Select } from 'antd';
import { FieldProblem } from '../FieldProblem';
import type { Editing } from './editing';

const FOR_ONE: readonly Outcome[] = ['ask', 'replace', 'merge', 'copies', 'skip', 'add'];
const FOR_SEVERAL: readonly Outcome[] = ['ask', 'skip', 'add'];
const FOR_NONE: readonly Outcome[] = ['add', 'ask', 'skip'];

/** The match rule in its order, the guards, and what is done on one, several or no matches. */
export function MatchFields({ value, onChange, problem, disabled }: Editing) {
  const { rule, actions } = value;
  const points = (next: readonly MatchPoint[]) => onChange({ ...value, rule: { ...rule, points: next } });
  const change = (i: number, part: Partial<MatchPoint>) =>
    points(rule.points.map((p, k) => (k === i ? { ...p, ...part } : p)));
  const guard = (part: Partial<typeof rule.guards>) =>
    onChange({ ...value, rule: { ...rule, guards: { ...rule.guards, ...part } } });
  const left = POINTS.filter((by) => !rule.points.some((p) => p.by === by));
  const action = (key: keyof typeof actions, label: string, from: readonly Outcome[]) => (
    <label>
      {label}
      <Select
        aria-label={label}
        value={actions[key]}
        disabled={disabled}
        onChange={(outcome) => onChange({ ...value, actions: { ...actions, [key]: outcome } })}
        options={from.map((o) => ({ value: o, label: OUTCOME_NAMES[o] }))}
      />
      <FieldProblem of={problem} field={`actions.${key}`} />
    </label>
  );
  return (
    <fieldset disabled={disabled}>
      <legend>Matching</legend>
      <p className="faded">
        Weights of what two records share are added; from 100 they are taken for the same. What decides alone
        needs no more. A guard that speaks against it always leaves the record to you.
      </p>
      <FieldProblem of={problem} field="rule" />
      <table className="plain match-points">
        <thead>
          <tr>
            <th>Match point</th>
            <th className="num">Weight</th>
            <th>Decides alone</th>
            <th>
              <span className="unseen">Order</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rule.points.map((p, i) => (
            <tr key={p.by}>
              <td>{POINT_NAMES[p.by]}</td>
              <td className="num">
                <InputNumber
                  size="small"
                  aria-label={`Weight of ${POINT_NAMES[p.by]}`}
                  min={1}
                  max={100}
                  value={p.weight}
                  disabled={disabled}
                  onChange={(weight) => change(i, { weight: weight ?? 1 })}
                />
              </td>
              <td>
                <Checkbox
                  aria-label={`${POINT_NAMES[p.by]} decides alone`}
                  checked={p.alone}
                  disabled={disabled}
                  onChange={(e) => change(i, { alone: e.target.checked })}
                />
              </td>
              <td>
                <span className="row nowrap">
                  {i > 0 ? (
                    <Button
                      size="small"

                      className="fix"
                      aria-label={`Move ${POINT_NAMES[p.by]} up`}
                      onClick={() =>
                        points([
                          ...rule.points.slice(0, i - 1),
                          p,
                          rule.points[i - 1]!,
                          ...rule.points.slice(i + 1),
                        ])
                      }
                    >
                      <ArrowUpOutlined />
                    </Button>
                  ) : null}
                  <Button
                    size="small"

                    className="fix"
                    aria-label={`Take ${POINT_NAMES[p.by]} out`}
                    onClick={() => points(rule.points.filter((_, k) => k !== i))}
                  >
                    <CloseOutlined />
                  </Button>
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {left.length ? (
        <Select
          aria-label="Add a match point"
          placeholder="Add a match point"
          style={{ width: 320 }}
          value={null}
          disabled={disabled}
          onChange={(by: MatchPoint['by'] | null) =>
            by && points([...rule.points, { by, weight: 50, alone: false }])
          }
          options={left.map((by) => ({ value: by, label: POINT_NAMES[by] }))}
        />
      ) : null}
      <div className="row guards" role="group" aria-label="Guards">
        <span>Not the same when</span>
        {(
          [
            ['format', 'the format differs'],
            ['part', 'the part differs'],
            ['edition', 'the edition differs'],
            ['title', 'the titles are unlike'],
          ] as const
        ).map(([key, name]) => (
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
          years are more than
          <InputNumber
            size="small"
            aria-label="Years apart"
            min={0}
            max={500}
            style={{ width: 64 }}
            value={rule.guards.years}
            disabled={disabled}
            onChange={(years) => guard({ years })}
          />
          apart
        </span>
      </div>
      <div className="form-grid">
        {action('one', 'One record matches', FOR_ONE)}
        {action('several', 'Several match', FOR_SEVERAL)}
        {action('none', 'None matches', FOR_NONE)}
      </div>
    </fieldset>
  );
}
