import { DownloadOutlined, SaveOutlined } from '@ant-design/icons';
import { Button, Dropdown } from 'antd';
import { useState } from 'react';
import { SaveSearch } from '../../parts/searches/SaveSearch';
import { searchIn } from '../../parts/searches/search-address';
import { searchWords } from '../../parts/searches/words';
import { useAddress } from '../../parts/use-address';
import { useMay } from '../../shell/person';
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
  const [isSaving, setSaving] = useState(false);
  const maySave = useMay('keep searches');
  const search = { ...searchIn('record', query), ...(branch && { branch }) };
  const exported = new URLSearchParams(Object.entries(search).filter(([name]) => name !== 'sort')).toString();
  return (
    <>
      <Dropdown
        trigger={['click']}
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
      </Dropdown>
      {maySave && isNarrowed ? (
        <Button
          size="small"
          icon={<SaveOutlined />}
          aria-label={searchWords.saveSearch}
          title={searchWords.saveSearch}
          onClick={() => setSaving(true)}
        />
      ) : null}
      {isSaving ? <SaveSearch of="record" search={search} onClose={() => setSaving(false)} /> : null}
    </>
  );
}
