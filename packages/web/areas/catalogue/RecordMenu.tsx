import { DownOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { Button, Dropdown } from 'antd';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { catalogueWords as wording } from './words';

/** What else can be done with a record: another one like it, files, deleting it. */
export function RecordMenu({
  id,
  version,
  onPile,
}: {
  id: number;
  version: number;
  onPile?: (() => void) | undefined;
}) {
  const navigate = useNavigate();
  const mayEdit = useMay('edit records');
  const { say, complain } = useShell();
  const remove = async () => {
    try {
      const done = await call(api.desk.remove, { params: { id }, body: { version } });
      say(done.sentence, done.entry);
      void navigate('/catalogue');
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const file = (as: string, label: string) => ({
    key: as,
    label: <a href={`/api/records/${id}/export?as=${as}`}>{label}</a>,
  });
  return (
    <Dropdown
      trigger={['click']}
      autoFocus
      menu={{
        items: [
          ...(onPile ? [{ key: 'pile', label: wording.addToPile, onClick: onPile }] : []),
          ...(mayEdit
            ? [
                {
                  key: 'like',
                  label: wording.newOneLikeThis,
                  onClick: () => void navigate(`/catalogue/new?like=${id}`),
                },
              ]
            : []),
          { type: 'divider' as const },
          file('iso2709', wording.saveAsFile(wording.iso2709)),
          file('marcxml', wording.saveAsFile(wording.marcxml)),
          ...(mayEdit
            ? [
                { type: 'divider' as const },
                { key: 'delete', danger: true, label: wording.deleteRecord, onClick: () => void remove() },
              ]
            : []),
        ],
      }}
    >
      <Button data-key="m">
        {wording.more} <DownOutlined />
      </Button>
    </Dropdown>
  );
}
