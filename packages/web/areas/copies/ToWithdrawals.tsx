import { api, type CopySearch } from '@osier/contract';
import { DownOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { useMyBranch } from '../../shell/my-branch';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { nameOfToday } from '../withdrawals/name-of-today';
import { ActionMenu } from '../../parts/ActionMenu';
import { copiesWords as wording } from './words';

const NEW = 'new';

/** Puts all copies that are found on a withdrawal list: one that is open, or a new one. */
export function ToWithdrawals({ found, isTooMany }: { found: CopySearch; isTooMany: boolean }) {
  const navigate = useNavigate();
  const { say, note, complain } = useShell();
  const mayPrepare = useMay('prepare withdrawals');
  const [mine] = useMyBranch();
  const { data: lists = [] } = useApi(api.withdrawals.lists);
  if (!mayPrepare) return null;
  const branch = found.branch || mine;
  const put = async (key: string) => {
    try {
      const made =
        key === NEW
          ? await call(api.withdrawals.start, {
              body: { name: nameOfToday(lists.map((l) => l.name)), branch, reason: '' },
            })
          : null;
      const id = made?.id ?? Number(key);
      const { added } = await call(api.withdrawals.fill, { params: { id }, body: { found } });
      if (made) say(made.sentence, made.entry);
      else note(wording.addedToTheList(added));
      await refresh();
      void navigate(`/withdrawals/${id}`);
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <ActionMenu
      disabled={isTooMany}
      menu={{
        onClick: ({ key }) => void put(key),
        items: [
          {
            key: NEW,
            label: branch ? wording.newWithdrawalList(branch) : wording.chooseABranchFirst,
            disabled: branch === '',
          },
          ...lists.filter((l) => l.state === 'open').map((l) => ({ key: String(l.id), label: l.name })),
        ],
      }}
    >
      <Button data-key="w" disabled={isTooMany} title={isTooMany ? wording.tooManyForAList : undefined}>
        {wording.toWithdrawals} <DownOutlined />
      </Button>
    </ActionMenu>
  );
}
