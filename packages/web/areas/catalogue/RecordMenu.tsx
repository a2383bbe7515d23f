import { DownOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { ActionMenu } from '../../parts/ActionMenu';
import { catalogueWords as wording } from './words';

/** What else can be done with a record: another one like it, files, deleting it. */
export function RecordMenu({
  id,
  version,
  isSuppressed,
  onPile,
}: {
  id: number;
  version: number;
  isSuppressed: boolean;
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
  const suppress = async () => {
    try {
      const done = await call(api.desk.suppress, { params: { id }, body: { isSuppressed: !isSuppressed } });
      say(done.sentence, done.entry);
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
    <ActionMenu
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
          {
            key: 'labels',
            label: wording.printLabels,
            onClick: () => void navigate(`/copies/labels?record=${id}`),
          },
          { type: 'divider' as const },
          file('iso2709', wording.saveAsFile(wording.iso2709)),
          file('marcxml', wording.saveAsFile(wording.marcxml)),
          file('iso2709&holdings=within', wording.saveWithHoldings(wording.iso2709)),
          file('iso2709&holdings=apart', wording.saveHoldingsApart(wording.iso2709)),
          ...(mayEdit
            ? [
                { type: 'divider' as const },
                {
                  key: 'suppress',
                  label: isSuppressed ? wording.showToThePublic : wording.suppressFromThePublic,
                  onClick: () => void suppress(),
                },
                { key: 'delete', danger: true, label: wording.deleteRecord, onClick: () => void remove() },
              ]
            : []),
        ],
      }}
    >
      <Button data-key="m">
        {wording.more} <DownOutlined />
      </Button>
    </ActionMenu>
  );
}
