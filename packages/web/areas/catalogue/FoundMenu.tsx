import { DownloadOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { SaveButton } from '../../parts/searches/SaveButton';
import { searchIn } from '../../parts/searches/search-address';
import { useAddress } from '../../parts/use-address';
import { ActionMenu } from '../../parts/ActionMenu';
import { catalogueWords as wording } from './words';

const FORMATS = [
  ['as=csv', wording.asTable],
  ['as=iso2709&holdings=within', wording.asIso2709],
  ['as=marcxml&holdings=within', wording.asMarcXml],
  ['as=iso2709&holdings=none', wording.asIso2709Alone],
] as const;

/** What can be done with all that a search finds beside working on it: a file of it, and saving the search itself. */
export function FoundMenu({ branch, isNarrowed }: { branch: string | undefined; isNarrowed: boolean }) {
  const [query] = useAddress();
  const beside: Record<string, string> = branch ? { branch } : {};
  const search = { ...searchIn('record', query), ...beside };
  const exported = new URLSearchParams(Object.entries(search).filter(([name]) => name !== 'sort')).toString();
  return (
    <>
      <ActionMenu
        menu={{
          items: FORMATS.map(([key, name]) => ({
            key,
            label: <a href={`/api/records/export?${exported ? `${exported}&` : ''}${key}`}>{name}</a>,
          })),
        }}
      >
        <Button
          size="small"
          icon={<DownloadOutlined />}
          aria-label={wording.exportThoseFound}
          title={wording.exportThoseFound}
        />
      </ActionMenu>
      {isNarrowed ? <SaveButton of="record" beside={beside} isSmall /> : null}
    </>
  );
}
