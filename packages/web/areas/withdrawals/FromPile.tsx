import { api } from '@osier/contract';
import { Select } from 'antd';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField } from '../../parts/form/KitField';
import { useShell } from '../../shell/shell-store';
import { withdrawalsWords as wording } from './words';

/** Adds the copies of a pile to a list: what was found in Copies is put on one. */
export function FromPile({ list }: { list: number }) {
  const { data: piles = [] } = useApi(api.piles.list);
  const { note, complain } = useShell();
  if (piles.length === 0) return null;
  const fill = async (pile: number) => {
    try {
      const { added } = await call(api.withdrawals.fill, { params: { id: list }, body: { pile } });
      note(wording.barcodesAdded(added));
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <KitField label={wording.addAPile}>
      <Select
        className="from-pile"
        showSearch
        optionFilterProp="label"
        placeholder={wording.chooseAPile}
        value={null}
        onChange={(pile: number | null) => void (pile && fill(pile))}
        options={piles.map((p) => ({ value: p.id, label: p.name }))}
      />
    </KitField>
  );
}
