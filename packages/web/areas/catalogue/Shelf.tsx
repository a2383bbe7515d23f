import { api, type RecordDetail } from '@osier/contract';
import { call } from '../../api/call';
import { Button, Select } from 'antd';
import { COPY_STATUSES, type CopyStatus, copyName } from '@osier/core/holdings';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { Barcode } from '../../parts/Barcode';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { CopyForm } from './CopyForm';
import { HoldingForm } from './HoldingForm';
import { catalogueWords as wording } from './words';

/** Where a title stands: its holdings with their copies, and the forms that add to them. */
export function HoldingsOfRecord({ record, copy }: { record: RecordDetail; copy: number | null }) {
  const [adding, setAdding] = useState<'holding' | number | null>(null);
  const mayEdit = useMay('edit copies');
  const lists = useSetUp()?.lists.value;
  const name = (list: 'branches' | 'locations' | 'types' | 'funds' | 'suppliers', code: string) =>
    lists?.[list].find((e) => e.code === code)?.name ?? code;
  return (
    <section aria-label={wording.holdings}>
      <div className="row spread" style={{ marginBottom: 6 }}>
        <h3>{wording.holdings}</h3>
        {mayEdit ? (
          <Button size="small" data-key="h" onClick={() => setAdding('holding')}>
            {wording.addAHolding}
          </Button>
        ) : null}
      </div>
      {record.holdings.length === 0 && adding !== 'holding' ? (
        <p className="faded">{wording.noHoldingsYet}</p>
      ) : null}
      {record.holdings.map((h) => (
        <div key={h.id} className="holding">
          <div className="holding-head">
            <b>{h.callNumber}</b>
            <span>
              {name('branches', h.holding.branch)}, {name('locations', h.holding.location)}
            </span>
            {mayEdit ? (
              <Button
                size="small"
                data-key="k"
                style={{ marginLeft: 'auto' }}
                onClick={() => setAdding(h.id)}
              >
                {wording.addACopy}
              </Button>
            ) : null}
          </div>
          {h.copies.map((c) => (
            <div key={c.id} className={c.id === copy ? 'copy-line wanted' : 'copy-line'}>
              <Barcode code={c.copy.barcode} />
              <span className="faded">
                {copyName(c.copy)}, {name('types', c.copy.type).toLowerCase()}
              </span>
              <Standing due={c.due} status={c.copy.status} named={!mayEdit} />
              {c.copy.fund || c.copy.supplier ? (
                <span className="faded">
                  {[
                    c.copy.supplier && name('suppliers', c.copy.supplier),
                    c.copy.fund && name('funds', c.copy.fund),
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
              ) : null}
              {c.copy.condition ? <span className="faded">{c.copy.condition}</span> : null}
              {mayEdit ? <StatusPicker id={c.id} version={c.version} status={c.copy.status} /> : null}
            </div>
          ))}
          {adding === h.id ? <CopyForm holding={h.id} onClose={() => setAdding(null)} /> : null}
        </div>
      ))}
      {adding === 'holding' ? (
        <HoldingForm record={record} onClose={() => setAdding(null)} onMade={setAdding} />
      ) : null}
    </section>
  );
}

/** How a copy stands; its status is named here unless a picker beside it names it. */
function Standing({
  due,
  status,
  named,
}: {
  due: string | null | undefined;
  status: string;
  named: boolean;
}) {
  const kind =
    status === 'lost' || status === 'missing' ? 'stop' : status === 'available' && !due ? 'clear' : 'caution';
  const words = [
    named ? status : '',
    due ? wording.onLoanDue(due) : '',
    due === null ? wording.theLoansDeskDoesNot : '',
  ]
    .filter(Boolean)
    .join('; ');
  return (
    <span>
      <Mark kind={kind} name={status} /> {words}
    </span>
  );
}

function StatusPicker({ id, version, status }: { id: number; version: number; status: CopyStatus }) {
  const { say, complain } = useShell();
  const change = async (next: CopyStatus) => {
    try {
      const done = await call(api.copies.change, { params: { id }, body: { version, status: next } });
      say(done.sentence, done.entry);
    } catch (e) {
      complain(problemText(e));
    }
    await refresh();
  };
  return (
    <Select
      size="small"
      variant="borderless"
      style={{ marginLeft: 'auto', minWidth: 110 }}
      aria-label={wording.status}
      value={status}
      onChange={(s) => void change(s)}
      options={COPY_STATUSES.map((s) => ({ value: s, label: s }))}
    />
  );
}
