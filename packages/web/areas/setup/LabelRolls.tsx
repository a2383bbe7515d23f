import { api, rollSchema, type Done, type RollRow } from '@osier/contract';
import { call } from '../../api/call';
import type { LabelRoll } from '@osier/core/barcodes';
import { Button, Progress } from 'antd';
import { useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { LazyBars } from '../../parts/charts/LazyBars';
import { SchemaForm } from '../../parts/form/SchemaForm';
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
      {rolls.length > 1 ? (
        <LazyBars
          caption="Numbers used and left"
          of="Roll"
          names={rolls.map((r) => r.roll.name)}
          series={[
            { name: 'used', values: rolls.map((r) => r.all - r.left), colour: '--willow' },
            { name: 'left', values: rolls.map((r) => r.left), colour: '--edge-strong' },
          ]}
          isStacked
        />
      ) : null}
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
  const { say, complain } = useShell();
  const done = async ({ sentence, entry }: Done) => {
    say(sentence, entry);
    onDone();
    await refresh();
  };
  const remove = async () => {
    if (!row) return;
    try {
      await done(
        await call(api.suppliers.removeRoll, { params: { id: row.id }, body: { version: row.version } }),
      );
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="shelf-form">
      <SchemaForm
        takesFocus
        title={row ? row.roll.name : 'New label roll'}
        schema={rollSchema}
        initial={{ ...(row?.roll ?? EMPTY) }}
        fields={[
          { name: 'name', label: 'Name' },
          { name: 'prefix', label: 'Prefix', isMono: true, help: 'digits that every number begins with' },
          { name: 'from', label: 'First number', kind: 'number' },
          { name: 'to', label: 'Last number', kind: 'number' },
          { name: 'length', label: 'Digits in all', kind: 'number', min: 3, max: 20 },
          { name: 'supplier', label: 'Reserved for', help: 'a supplier’s name; empty for our own use' },
          { name: 'check', label: 'The last digit is a check digit', kind: 'flag' },
        ]}
        verb={row ? `Save the roll ${row.roll.name}` : 'Make the label roll'}
        onCancel={onDone}
        onSend={async (roll) =>
          done(
            row
              ? await call(api.suppliers.changeRoll, {
                  params: { id: row.id },
                  body: { version: row.version, roll },
                })
              : await call(api.suppliers.keepRoll, { body: { roll } }),
          )
        }
        more={row ? <Button onClick={() => void remove()}>Delete label roll</Button> : null}
      />
    </div>
  );
}
