import { api } from '@osier/contract';
import { call } from '../../api/call';
import { Button, Input } from 'antd';
import { useState, type FormEvent } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { AreaHead } from '../../parts/AreaHead';
import { FieldProblem } from '../../parts/FieldProblem';
import { CodePicker } from '../../parts/CodePicker';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useMay } from '../../shell/person';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { ListPiece } from './ListPiece';
import { Register } from './Register';
import { WithdrawalsOverview } from './WithdrawalsOverview';
import '../../parts/verdicts.css';

/** Lists of copies to withdraw, and the register of what went. */
export default function Withdrawals() {
  const { id } = useParams();
  const [query] = useSearchParams();
  const navigate = useNavigate();
  const { data: lists = [] } = useApi(api.withdrawals.lists);
  const mayPrepare = useMay('prepare withdrawals');
  const starting = mayPrepare && query.has('start');
  const names = useSetUp()?.lists.value.branches ?? [];
  const showRegister = query.get('show') === 'register';
  const open = lists.filter((l) => l.state === 'open').length;
  return (
    <>
      <AreaHead
        name="Withdrawals"
        state={open ? `${open} open ${open === 1 ? 'list' : 'lists'}.` : 'No list is open.'}
      >
        <div className="seg" role="group" aria-label="Show">
          <Button
            type="text"
            size="small"
            aria-pressed={!showRegister}
            onClick={() => void navigate('/withdrawals')}
          >
            Lists
          </Button>
          <Button
            type="text"
            size="small"
            aria-pressed={showRegister}
            onClick={() => void navigate('/withdrawals?show=register')}
          >
            Register
          </Button>
        </div>
        {mayPrepare ? (
          <Button type="primary" onClick={() => void navigate('/withdrawals?start=1')}>
            Start a list
          </Button>
        ) : null}
      </AreaHead>
      {showRegister ? (
        <Register />
      ) : (
        <WorkSplit
          share={27}
          open={id !== undefined || starting}
          list={
            <WorkList
              items={lists}
              label="Withdrawal lists"
              idOf={(l) => l.id}
              selected={id ? Number(id) : null}
              onOpen={(l) => void navigate(`/withdrawals/${l.id}`)}
              empty="No list yet. Start one, then scan the trolley; a file to paste from is demo/files/trolley-of-discards.txt."
              row={(l) => (
                <>
                  <div className="one">
                    <b>{l.name}</b>
                    <span className="said-decision">{l.state}</span>
                  </div>
                  <div className="two">
                    <span className="main">
                      {names.find((b) => b.code === l.branch)?.name} · {l.by}
                    </span>
                    <span>{l.codes} scans</span>
                  </div>
                </>
              )}
            />
          }
          piece={
            starting ? (
              <StartList taken={lists.map((l) => l.name)} onClose={() => void navigate('/withdrawals')} />
            ) : id ? (
              <ListPiece key={id} id={Number(id)} />
            ) : (
              <WithdrawalsOverview />
            )
          }
        />
      )}
    </>
  );
}

/** A name for a list of today that no other list has. */
function nameOfToday(taken: readonly string[]): string {
  const name = `Discards ${new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}`;
  const free = (n: number) => (n === 1 ? name : `${name} (${n})`);
  let n = 1;
  while (taken.includes(free(n))) n++;
  return free(n);
}

function StartList({ taken, onClose }: { taken: readonly string[]; onClose: () => void }) {
  const lists = useSetUp()?.lists.value;
  const [name, setName] = useState(() => nameOfToday(taken));
  const [mine] = useMyBranch();
  const [branch, setBranch] = useState(mine);
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say } = useShell();
  const navigate = useNavigate();
  const save = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const done = await call(api.withdrawals.start, { body: { name, branch, reason } });
      say(done.sentence, done.entry);
      await refresh();
      void navigate(`/withdrawals/${done.id}`);
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      else useShell.getState().complain(problemText(e));
    }
  };
  const trouble = (field: string) => <FieldProblem of={problem} field={field} />;
  return (
    <form className="stack" style={{ maxWidth: 420 }} onSubmit={(e) => void save(e)}>
      <h2>A new withdrawal list</h2>
      <label>
        Name
        <Input
          value={name}
          onChange={(e) => setName(e.target.value)}
          status={problem?.field('name') ? 'error' : ''}
        />
        {trouble('name')}
      </label>
      <label>
        Copies of which branch
        <CodePicker
          label="Branch"
          list={lists?.branches ?? []}
          value={branch}
          onChange={(v) => setBranch(String(v))}
          status={problem?.field('branch') ? 'error' : ''}
        />
        {trouble('branch')}
      </label>
      <label>
        Reason, for the register
        <Input
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          placeholder="worn, superseded, not used in ten years…"
        />
        {trouble('reason')}
      </label>
      <div className="row">
        <Button type="primary" htmlType="submit">
          Start the list
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
