import { DownOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { Button, Select, type MenuProps } from 'antd';
import { call } from '../api/call';
import { queries } from '../api/queries';
import { problemText } from '../api/request';
import { useSetUp } from '../areas/setup/use-set-up';
import { useLook } from './look-store';
import { useMyBranch } from './my-branch';
import { usePerson } from './person';
import { tellSession } from './session';
import { useShell } from './shell-store';
import { ActionMenu } from '../parts/ActionMenu';
import { shellWords as wording } from './words';

const LOOKS = [
  ['system', wording.lightOrDarkAsThe],
  ['light', wording.light],
  ['dark', wording.dark],
] as const;

/** Where one works and who one is: the branch, the look of the screen, signing out. */
export function WhoMenu() {
  const person = usePerson();
  const { look, setLook, isLarge, setLarge } = useLook();
  const branches = useSetUp()?.lists.value.branches ?? [];
  const [branch, chooseBranch] = useMyBranch();
  const signOut = async () => {
    try {
      await call(api.people.signOut);
    } catch (e) {
      useShell.getState().complain(problemText(e));
      return;
    }
    tellSession(null);
    queries.clear();
    window.location.assign('/');
  };
  const items: MenuProps['items'] = [
    {
      key: 'look',
      type: 'group',
      label: wording.appearance,
      children: LOOKS.map(([key, label]) => ({ key: `look ${key}`, label, onClick: () => setLook(key) })),
    },
    {
      key: 'text',
      label: isLarge ? wording.usualTextSize : wording.largerText,
      onClick: () => setLarge(!isLarge),
    },
    { type: 'divider' },
    { key: 'out', label: wording.signOut, onClick: () => void signOut() },
  ];
  return (
    <div className="who">
      {branches.length ? (
        <Select
          className="my-branch"
          aria-label={wording.myBranch}
          title={wording.myBranchFormsBeginWith}
          size="small"
          popupMatchSelectWidth={false}
          value={branches.some((b) => b.code === branch) ? branch : ''}
          options={[
            { value: '', label: wording.noBranch },
            ...branches.map((b) => ({ value: b.code, label: b.name })),
          ]}
          onChange={chooseBranch}
        />
      ) : null}
      <ActionMenu menu={{ items, selectedKeys: [`look ${look}`], 'aria-label': wording.person }}>
        <Button type="text" className="who-button" aria-label={`${person.name}, ${person.role}`}>
          <span>
            {person.name}
            <small>{person.role}</small>
          </span>
          <DownOutlined aria-hidden />
        </Button>
      </ActionMenu>
    </div>
  );
}
