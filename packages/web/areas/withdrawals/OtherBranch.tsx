import { api, type WithdrawalList } from '@osier/contract';
import { Button } from 'antd';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from '../setup/use-set-up';
import { withdrawalsWords as wording } from './words';

/** When most copies of a list belong to another branch, the list may be meant for that one. */
export function OtherBranch({ list }: { list: WithdrawalList }) {
  const { say, complain } = useShell();
  const branches = useSetUp()?.lists.value.branches ?? [];
  const counts = new Map<string, number>();
  for (const { candidate } of list.verdicts)
    if (candidate) counts.set(candidate.branch, (counts.get(candidate.branch) ?? 0) + 1);
  const [most, n] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? ['', 0];
  const known = [...counts.values()].reduce((a, b) => a + b, 0);
  if (most === '' || most === list.branch || n * 2 <= known) return null;
  const name = branches.find((b) => b.code === most)?.name ?? most;
  const change = async () => {
    try {
      const { id, version, reason } = list;
      const done = await call(api.withdrawals.change, {
        params: { id },
        body: { version, name: list.name, branch: most, reason },
      });
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <p className="note caution" role="alert">
      {wording.mostBelongTo(n, known, name)}{' '}
      <Button size="small" onClick={() => void change()}>
        {wording.makeItAListOf(name)}
      </Button>
    </p>
  );
}
