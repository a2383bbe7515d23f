import { api, withdrawalListBody } from '@osier/contract';
import { allLimits } from '@osier/core/house';
import { call } from '../../api/call';
import { Button } from 'antd';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { AreaHead } from '../../parts/AreaHead';
import { PageButtons } from '../../parts/PageButtons';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { WorkList } from '../../parts/WorkList';
import { WorkSplit } from '../../parts/WorkSplit';
import { useHouse } from '../../parts/use-house';
import { useMay } from '../../shell/person';
import { useMyBranch } from '../../shell/my-branch';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { ListPiece } from './ListPiece';
import { nameOfToday } from './name-of-today';
import { Register } from './Register';
import { ANYBODY, useConfirmerField } from './use-confirmers';
import { UnionCatalogue } from './UnionCatalogue';
import { Weeding } from './Weeding';
import { WithdrawalsOverview } from './WithdrawalsOverview';
import '../../parts/verdicts.css';
import { withdrawalsWords as wording } from './words';

const PAGES = ['weeding', 'register', 'union'] as const;

/** Lists of copies to withdraw, and the register of what went. */
export default function Withdrawals() {
  const { id } = useParams();
  const [query] = useSearchParams();
  const navigate = useNavigate();
  const answer = useApi(api.withdrawals.lists);
  const lists = answer.data ?? [];
  const mayPrepare = useMay('prepare withdrawals');
  const starting = mayPrepare && query.has('start');
  const names = useSetUp()?.lists.value.branches ?? [];
  const show = PAGES.find((page) => page === query.get('show')) ?? 'lists';
  const open = lists.filter((l) => l.state === 'open').length;
  return (
    <>
      <AreaHead
        name={wording.withdrawals}
        state={open ? wording.open(open, open === 1 ? wording.list : wording.lists) : wording.noListIsOpen}
      >
        <PageButtons
          label={wording.show}
          pages={[
            ['lists', wording.lists2],
            ['weeding', wording.weeding],
            ['register', wording.register],
            ['union', wording.unionCatalogue],
          ]}
          chosen={show}
          onChoose={(key) => void navigate(key === 'lists' ? '/withdrawals' : `/withdrawals?show=${key}`)}
        />
        {mayPrepare ? (
          <Button type="primary" data-key="n" onClick={() => void navigate('/withdrawals?start=1')}>
            {wording.startAList}
          </Button>
        ) : null}
      </AreaHead>
      {show === 'weeding' ? (
        <Weeding />
      ) : show === 'register' ? (
        <Register />
      ) : show === 'union' ? (
        <UnionCatalogue />
      ) : (
        <WorkSplit
          share={27}
          open={id !== undefined || starting}
          list={
            <WorkList
              items={lists}
              label={wording.withdrawalLists}
              idOf={(l) => l.id}
              selected={id ? Number(id) : null}
              onOpen={(l) => void navigate(`/withdrawals/${l.id}`)}
              answer={answer}
              empty={wording.noListYetStartOne}
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
                    <span>{wording.scans(l.codes)}</span>
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

function StartList({ taken, onClose }: { taken: readonly string[]; onClose: () => void }) {
  const branches = useSetUp()?.lists.value.branches;
  const { reasons } = allLimits(useHouse()?.withdrawals);
  const [branch] = useMyBranch();
  const confirmer = useConfirmerField();
  const { say } = useShell();
  const navigate = useNavigate();
  if (!branches) return null;
  return (
    <SchemaForm
      takesFocus
      title={wording.aNewWithdrawalList}
      schema={withdrawalListBody}
      initial={{ name: nameOfToday(taken), branch, confirmer: ANYBODY }}
      draft={{ key: 'new withdrawal list', title: wording.aNewWithdrawalList, path: '/withdrawals?start=1' }}
      fields={[
        { name: 'name', label: wording.name },
        {
          name: 'branch',
          label: wording.branch,
          kind: 'code',
          list: branches,
          placeholder: wording.chooseABranch,
        },
        {
          name: 'reason',
          label: wording.reasonForTheRegister,
          width: 'wide',
          kind: 'offered',
          offers: reasons,
          placeholder: wording.wornSupersededNotUsedIn,
        },
        confirmer,
      ]}
      verb={wording.startTheList}
      onCancel={onClose}
      onSend={async (body) => {
        const done = await call(api.withdrawals.start, { body });
        say(done.sentence, done.entry);
        await refresh();
        void navigate(`/withdrawals/${done.id}`);
      }}
    />
  );
}
