import { DeleteOutlined, EditOutlined } from '@ant-design/icons';
import { api, type SavedSearchRow } from '@osier/contract';
import type { SavedOf } from '@osier/core/find';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { useApi } from '../../api/queries';
import { OverviewSection } from '../Overview';
import { useMay } from '../../shell/person';
import { useAct } from '../use-act';
import { SaveSearch } from './SaveSearch';
import { addressOfSearch } from './search-address';
import { searchWords as wording } from './words';

/** The saved searches of a list: one’s own and those that others share. Nothing where there are none. */
export function SavedSearches({ of }: { of: SavedOf }) {
  const { data = [] } = useApi(api.searches.list);
  const { act } = useAct();
  const isHead = useMay('set up');
  const mayKeep = useMay('keep searches');
  const [changing, setChanging] = useState<SavedSearchRow | null>(null);
  const rows = data.filter((s) => s.of === of);
  if (rows.length === 0) return null;
  const remove = ({ id, version }: SavedSearchRow) =>
    act(() => call(api.searches.remove, { params: { id }, body: { version } }));
  return (
    <OverviewSection title={wording.savedSearches}>
      <ul>
        {rows.map((s) => (
          <li key={s.id}>
            <Link to={addressOfSearch(s.of, s.search)}>{s.name}</Link>{' '}
            <span className="faded">
              {s.isMine ? (s.isShared ? wording.shared : '') : wording.sharedBy(s.by)}
            </span>
            {mayKeep && (s.isMine || isHead) ? (
              <>
                <Button
                  type="text"
                  size="small"
                  icon={<EditOutlined />}
                  aria-label={wording.changeSearch(s.name)}
                  title={wording.changeSearch(s.name)}
                  onClick={() => setChanging(s)}
                />
                <Button
                  type="text"
                  size="small"
                  icon={<DeleteOutlined />}
                  aria-label={wording.deleteSearch(s.name)}
                  title={wording.deleteSearch(s.name)}
                  onClick={() => void remove(s)}
                />
              </>
            ) : null}
          </li>
        ))}
      </ul>
      {changing ? (
        <SaveSearch
          key={changing.id}
          of={of}
          search={changing.search}
          saved={changing}
          onClose={() => setChanging(null)}
        />
      ) : null}
    </OverviewSection>
  );
}
