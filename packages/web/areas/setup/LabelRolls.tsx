import { api, type Done, type RollRow } from '@osier/contract';
import { call } from '../../api/call';
import type { LabelRoll } from '@osier/core/barcodes';
import { Button, Checkbox, Input, InputNumber, Progress } from 'antd';
import { useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { FieldProblem } from '../../parts/FieldProblem';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

const EMPTY: LabelRoll = { name: '', prefix: '', from: 1, to: 1000, length: 14, check: true, supplier: '' };

/** Reserved runs of barcode numbers, each with how much of it is used. */
export function LabelRolls() {
  const { data: rolls = [] } = useApi(api.suppliers.rolls);
  const [editing, setEditing] = useState<number | 'new' | null>(null);
  const mayChange = useMay('set up');
  return (
    <section className="stack" aria-label="Label rolls">
      <div className="row spread">
        <h2>Label rolls</h2>
        {mayChange ? <Button onClick={() => setEditing('new')}>New label roll</Button> : null}
      </div>
      <table className="plain rolls">
        <thead>
          <tr>
            <th>Roll</th>
            <th>Reserved for</th>
            <th className="num">Numbers</th>
            <th>Used</th>
            <th>Next</th>
            <th>
              <span className="unseen">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rolls.map((r) => (
            <tr key={r.id}>
              <td>
                <b>{r.roll.name}</b>
              </td>
              <td>{r.roll.supplier || 'our own use'}</td>
              <td className="num">{r.all.toLocaleString('en-GB')}</td>
              <td>
                <Progress
                  percent={Math.round((100 * (r.all - r.left)) / r.all)}
                  size="small"
                  strokeColor="var(--willow)"
                  format={() => `${(r.all - r.left).toLocaleString('en-GB')}`}
                  aria-label={`${r.all - r.left} of ${r.all} used`}
                />
              </td>
              <td>{r.next ? <Barcode code={r.next} /> : 'all used'}</td>
              <td>
                {mayChange ? (
                  <Button size="small" className="fix" onClick={() => setEditing(r.id)}>
                    Change
                  </Button>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {editing !== null ? (
        <RollForm
          key={editing}
          row={rolls.find((r) => r.id === editing) ?? null}
          onDone={() => setEditing(null)}
        />
      ) : null}
    </section>
  );
}

function RollForm({ row, onDone }: { row: RollRow | null; onDone: () => void }) {
  const [roll, setRoll] = useState<LabelRoll>(row?.roll ?? EMPTY);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  const act = async (doing: () => Promise<Done>) => {
    try {
      const done = await doing();
      say(done.sentence, done.entry);
      onDone();
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const number = (key: 'from' | 'to' | 'length', label: string) => (
    <label>
      {label}
      <InputNumber
        aria-label={label}
        min={0}
        style={{ width: '100%' }}
        controls={false}
        value={roll[key]}
        onChange={(n) => setRoll({ ...roll, [key]: n ?? 0 })}
      />
      <FieldProblem of={problem} field={key} />
    </label>
  );
  const text = (key: 'name' | 'prefix' | 'supplier', label: string) => (
    <label>
      {label}
      <Input value={roll[key]} onChange={(e) => setRoll({ ...roll, [key]: e.target.value })} />
      <FieldProblem of={problem} field={key} />
    </label>
  );
  return (
    <div className="shelf-form stack">
      <div className="form-grid level">
        {text('name', 'Name')}
        {text('prefix', 'Prefix')}
        {number('from', 'First number')}
        {number('to', 'Last number')}
        {number('length', 'Digits in all')}
        {text('supplier', 'Reserved for (empty: our own)')}
        <Checkbox checked={roll.check} onChange={(e) => setRoll({ ...roll, check: e.target.checked })}>
          last is a check digit
        </Checkbox>
      </div>
      <div className="row spread">
        <span className="row">
          <Button
            type="primary"
            onClick={() =>
              void act(() =>
                row
                  ? call(api.suppliers.changeRoll, {
                      params: { id: row.id },
                      body: { version: row.version, roll },
                    })
                  : call(api.suppliers.keepRoll, { body: { roll } }),
              )
            }
          >
            {row ? `Save the roll ${row.roll.name}` : 'Make the label roll'}
          </Button>
          <Button onClick={onDone}>Cancel</Button>
        </span>
        {row ? (
          <Button
            size="small"
            className="fix"
            onClick={() =>
              void act(() =>
                call(api.suppliers.removeRoll, { params: { id: row.id }, body: { version: row.version } }),
              )
            }
          >
            Delete label roll
          </Button>
        ) : null}
      </div>
    </div>
  );
}
