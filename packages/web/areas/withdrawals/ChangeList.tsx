import { api, changeListBody, type WithdrawalList } from '@osier/contract';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { allLimits } from '@osier/core/house';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useHouse } from '../../parts/use-house';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { ANYBODY, useConfirmerField } from './use-confirmers';
import { withdrawalsWords as wording } from './words';

/** Name, reason and branch of a list; or it is deleted. */
export function ChangeList({ list, onClose }: { list: WithdrawalList; onClose: () => void }) {
  const { reasons } = allLimits(useHouse()?.withdrawals);
  const branches = useSetUp()?.lists.value.branches;
  const confirmer = useConfirmerField();
  const { say, complain } = useShell();
  const navigate = useNavigate();
  if (!branches) return null;
  const { id, version, name, branch, reason } = list;
  const remove = async () => {
    try {
      const done = await call(api.withdrawals.remove, { params: { id } });
      say(done.sentence, done.entry);
      void navigate('/withdrawals');
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="stack">
      <SchemaForm
        takesFocus
        title={wording.changeTheList}
        schema={changeListBody}
        initial={{ version, name, branch, reason, confirmer: String(list.confirmer ?? ANYBODY) }}
        fields={[
          { name: 'name', label: wording.name },
          { name: 'branch', label: wording.branch, kind: 'code', list: branches },
          {
            name: 'reason',
            label: wording.reasonForTheRegister,
            width: 'wide',
            kind: 'offered',
            offers: reasons,
          },
          confirmer,
        ]}
        verb={wording.saveTheList}
        onCancel={onClose}
        onSend={async (body) => {
          const done = await call(api.withdrawals.change, { params: { id }, body });
          say(done.sentence, done.entry);
          onClose();
          await refresh();
        }}
      />
      <Button danger className="fix" onClick={() => void remove()}>
        {wording.deleteTheList}
      </Button>
    </div>
  );
}
