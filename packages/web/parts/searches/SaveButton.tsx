import { SaveOutlined } from '@ant-design/icons';
import type { SavedOf } from '@osier/core/find';
import { Button } from 'antd';
import { useState } from 'react';
import { useMay } from '../../shell/person';
import { useAddress } from '../use-address';
import { SaveSearch } from './SaveSearch';
import { searchIn } from './search-address';
import { searchWords as wording } from './words';

/** Saves the search that stands in the address, and what narrows it beside that, under a name; nothing where there is none, or one may not. */
export function SaveButton({
  of,
  beside = {},
  isSmall = false,
}: {
  of: SavedOf;
  beside?: Readonly<Record<string, string>>;
  isSmall?: boolean;
}) {
  const [query] = useAddress();
  const [isSaving, setSaving] = useState(false);
  const maySave = useMay('keep searches');
  const search = { ...searchIn(of, query), ...beside };
  if (!maySave || Object.keys(search).length === 0) return null;
  return (
    <>
      <Button
        size={isSmall ? 'small' : 'middle'}
        icon={<SaveOutlined />}
        aria-label={wording.saveSearch}
        title={wording.saveSearch}
        onClick={() => setSaving(true)}
      />
      {isSaving ? <SaveSearch of={of} search={search} onClose={() => setSaving(false)} /> : null}
    </>
  );
}
