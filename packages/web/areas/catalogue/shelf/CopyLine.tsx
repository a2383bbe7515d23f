import { DownOutlined } from '@ant-design/icons';
import { api, type RecordDetail } from '@osier/contract';
import { amountText, COPY_STATUSES, copyName, localOf, type CopyStatus } from '@osier/core/holdings';
import { Button, Select } from 'antd';
import { Fragment, useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../../api/call';
import { refresh } from '../../../api/queries';
import { problemText } from '../../../api/request';
import { Barcode } from '../../../parts/Barcode';
import { useLocalFields } from '../../../parts/local-fields';
import { Mark } from '../../../parts/Mark';
import { useShell } from '../../../shell/shell-store';
import { useSetUp } from '../../setup/use-set-up';
import { CopyEdit } from './CopyEdit';
import { MoveForm } from './MoveForm';
import { ActionMenu } from '../../../parts/ActionMenu';
import { shelfWords as wording } from './words';

type HeldCopy = RecordDetail['holdings'][number]['copies'][number];

/** A copy: all that is known of it, and what can be done with it in place. */
export function CopyLine({
  held,
  record,
  mayEdit,
  isWanted,
}: {
  held: HeldCopy;
  record: RecordDetail;
  mayEdit: boolean;
  /** It was asked for: it stands out. */
  isWanted: boolean;
}) {
  const [doing, setDoing] = useState<'change' | 'move' | null>(null);
  const setUp = useSetUp();
  const navigate = useNavigate();
  const { say, complain } = useShell();
  const { copy, due } = held;
  const name = (list: 'types' | 'funds' | 'suppliers', code: string) =>
    setUp?.lists.value[list].find((e) => e.code === code)?.name ?? code;
  const price =
    copy.price === null
      ? ''
      : `${amountText(copy.price)} ${copy.currency ?? setUp?.house.value.currency ?? ''}`.trim();
  const facts = [
    copyName(copy),
    name('types', copy.type).toLowerCase(),
    copy.loanRule ?? '',
    price,
    copy.supplier && name('suppliers', copy.supplier),
    copy.fund && name('funds', copy.fund),
    copy.acquired && wording.acquiredOn(copy.acquired),
    copy.lastSeen && wording.lastSeenOn(copy.lastSeen),
    copy.loans !== undefined && wording.loansCounted(copy.loans, copy.lastLoan),
    copy.condition,
  ].filter(Boolean);
  const locals = useLocalFields().filter((f) => localOf(copy, f.id) !== '');
  const move = async (to: number) => {
    try {
      const done = await call(api.copies.move, {
        params: { id: held.id },
        body: { version: held.version, to },
      });
      say(done.sentence, done.entry);
      setDoing(null);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <>
      <div className={isWanted ? 'copy-line wanted' : 'copy-line'}>
        <Barcode code={copy.barcode} />
        <Standing due={due} status={copy.status} named={!mayEdit} />
        <span className="faded copy-facts">
          {facts.map((fact, i) => (
            <Fragment key={i}>
              {i ? ' · ' : null}
              <span>{fact}</span>
            </Fragment>
          ))}
        </span>
        {mayEdit ? (
          <span className="copy-acts">
            <StatusPicker id={held.id} version={held.version} status={copy.status} />
            <ActionMenu
              menu={{
                items: [
                  { key: 'change', label: wording.changeCopy, onClick: () => setDoing('change') },
                  { key: 'move', label: wording.moveCopyTo, onClick: () => setDoing('move') },
                  {
                    key: 'history',
                    label: wording.historyOfTheCopy,
                    onClick: () => void navigate(`/daybook?object=${encodeURIComponent(copy.barcode)}`),
                  },
                ],
              }}
            >
              <Button size="small" type="text" aria-label={wording.moreOf(copy.barcode)}>
                <DownOutlined />
              </Button>
            </ActionMenu>
          </span>
        ) : null}
        {copy.note || copy.staffNote || locals.length ? (
          <span className="copy-notes">
            {copy.note}
            {copy.staffNote ? <span className="faded"> {wording.forTheStaff(copy.staffNote)}</span> : null}
            {locals.map(({ id, field: { name: called, form } }) => (
              <span key={id} className="local-value">
                <span className="faded">{called}:</span>{' '}
                <LocalText isLink={form === 'link'} text={localOf(copy, id)} />
              </span>
            ))}
          </span>
        ) : null}
      </div>
      {doing === 'change' ? <CopyEdit held={held} onClose={() => setDoing(null)} /> : null}
      {doing === 'move' ? (
        <MoveForm
          moving={{ of: 'copy', from: copy.holding }}
          record={record}
          onMove={move}
          onClose={() => setDoing(null)}
        />
      ) : null}
    </>
  );
}

/** A value of a local field; only links of http and https are kept in a field of links. */
function LocalText({ isLink, text }: { isLink: boolean; text: string }) {
  return isLink && /^https?:/i.test(text) ? (
    <a href={text} target="_blank" rel="noopener noreferrer">
      {text}
    </a>
  ) : (
    <bdi>{text}</bdi>
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
      style={{ minWidth: 110 }}
      aria-label={wording.status}
      value={status}
      onChange={(s) => void change(s)}
      options={COPY_STATUSES.map((s) => ({ value: s, label: s }))}
    />
  );
}
