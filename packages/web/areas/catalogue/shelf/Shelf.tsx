import { DownOutlined } from '@ant-design/icons';
import { api, type RecordDetail } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { call } from '../../../api/call';
import { refresh } from '../../../api/queries';
import { problemText } from '../../../api/request';
import { useMay } from '../../../shell/person';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import { CopyForm } from './CopyForm';
import { CopyLine } from './CopyLine';
import { HoldingForm } from './HoldingForm';
import { MoveForm } from './MoveForm';
import { SeveralCopies } from './SeveralCopies';
import { ActionMenu } from '../../../parts/ActionMenu';
import { shelfWords as wording } from './words';

type HeldHolding = RecordDetail['holdings'][number];

/** Where a title stands: its holdings with their copies, corrected in place, and the forms that add to them. */
export function HoldingsOfRecord({ record, copy }: { record: RecordDetail; copy: number | null }) {
  const [query] = useSearchParams();
  const [adding, setAdding] = useState<'holding' | 'several' | number | null>(
    query.has('copies') ? 'several' : null,
  );
  const mayEdit = useMay('edit copies');
  return (
    <section aria-label={wording.holdings}>
      <div className="row spread" style={{ marginBottom: 6 }}>
        <h3>{wording.holdings}</h3>
        {mayEdit ? (
          <span className="row">
            <Button size="small" data-key="g" onClick={() => setAdding('several')}>
              {wording.addSeveralCopies}
            </Button>
            <Button size="small" data-key="h" onClick={() => setAdding('holding')}>
              {wording.addAHolding}
            </Button>
          </span>
        ) : null}
      </div>
      {adding === 'several' ? <SeveralCopies record={record} onClose={() => setAdding(null)} /> : null}
      {record.holdings.length === 0 && adding !== 'holding' ? (
        <p className="faded">{wording.noHoldingsYet}</p>
      ) : null}
      {record.holdings.map((h) => (
        <HoldingBlock
          key={h.id}
          held={h}
          record={record}
          copy={copy}
          mayEdit={mayEdit}
          isAdding={adding === h.id}
          onAdd={(open) => setAdding(open ? h.id : null)}
        />
      ))}
      {adding === 'holding' ? (
        <HoldingForm record={record} onClose={() => setAdding(null)} onMade={setAdding} />
      ) : null}
    </section>
  );
}

function HoldingBlock({
  held,
  record,
  copy,
  mayEdit,
  isAdding,
  onAdd,
}: {
  held: HeldHolding;
  record: RecordDetail;
  copy: number | null;
  mayEdit: boolean;
  isAdding: boolean;
  onAdd: (open: boolean) => void;
}) {
  const [doing, setDoing] = useState<'change' | 'move' | null>(null);
  const navigate = useNavigate();
  const lists = useSetUp()?.lists.value;
  const { say, complain } = useShell();
  const { id, version, holding } = held;
  const name = (list: 'branches' | 'locations', code: string) =>
    lists?.[list].find((e) => e.code === code)?.name ?? code;
  const act = async (doIt: () => Promise<{ readonly sentence: string; readonly entry: number }>) => {
    try {
      const done = await doIt();
      say(done.sentence, done.entry);
      setDoing(null);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const others = record.holdings.filter((h) => h.id !== id);
  return (
    <div className="holding">
      <div className="holding-head">
        <b>
          {held.callNumber ? (
            <Link
              title={wording.shelfAround}
              to={`/catalogue?${new URLSearchParams({ show: 'browse', list: 'callnumber', from: held.callNumber }).toString()}`}
            >
              {held.callNumber}
            </Link>
          ) : null}
        </b>
        <span>
          {name('branches', holding.branch)}, {name('locations', holding.location)}
        </span>
        {mayEdit ? (
          <span className="copy-acts">
            <Button size="small" data-key="k" onClick={() => onAdd(true)}>
              {wording.addACopy}
            </Button>
            <ActionMenu
              menu={{
                items: [
                  { key: 'change', label: wording.changeHolding, onClick: () => setDoing('change') },
                  { key: 'move', label: wording.moveHoldingTo, onClick: () => setDoing('move') },
                  {
                    key: 'history',
                    label: wording.historyOfTheCopy,
                    onClick: () => void navigate(`/daybook?object=holding ${id}`),
                  },
                  ...others.map((o) => ({
                    key: `join ${o.id}`,
                    label: wording.joinTo(`${o.callNumber}, ${name('branches', o.holding.branch)}`),
                    onClick: () =>
                      void act(() =>
                        call(api.copies.joinHolding, { params: { id }, body: { version, to: o.id } }),
                      ),
                  })),
                  ...(held.copies.length === 0
                    ? [
                        {
                          key: 'delete',
                          danger: true,
                          label: wording.deleteHolding,
                          onClick: () =>
                            void act(() =>
                              call(api.copies.removeHolding, { params: { id }, body: { version } }),
                            ),
                        },
                      ]
                    : []),
                ],
              }}
            >
              <Button size="small" type="text" data-key="e" aria-label={wording.moreOf(held.callNumber)}>
                <DownOutlined />
              </Button>
            </ActionMenu>
          </span>
        ) : null}
        {holding.note || holding.staffNote ? (
          <span className="copy-notes">
            {holding.note}
            {holding.staffNote ? (
              <span className="faded"> {wording.forTheStaff(holding.staffNote)}</span>
            ) : null}
          </span>
        ) : null}
      </div>
      {doing === 'change' ? (
        <HoldingForm record={record} held={held} onClose={() => setDoing(null)} onMade={() => undefined} />
      ) : null}
      {doing === 'move' ? (
        <MoveForm
          moving={{ of: 'holding' }}
          record={record}
          onMove={(to) => act(() => call(api.copies.moveHolding, { params: { id }, body: { version, to } }))}
          onClose={() => setDoing(null)}
        />
      ) : null}
      {held.copies.map((c) => (
        <CopyLine key={c.id} held={c} record={record} mayEdit={mayEdit} isWanted={c.id === copy} />
      ))}
      {isAdding ? <CopyForm holding={id} branch={holding.branch} onClose={() => onAdd(false)} /> : null}
    </div>
  );
}
