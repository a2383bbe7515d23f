import { api, type FillListBody } from '@osier/contract';
import { Select } from 'antd';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField } from '../../parts/form/KitField';
import { useShell } from '../../shell/shell-store';
import { withdrawalsWords as wording } from './words';

/** Adds the copies of a pile to a list, or those that a stocktake misses: they are to be pulled from the shelf. */
export function FromPile({ list }: { list: number }) {
  const { data: piles = [] } = useApi(api.piles.list);
  const { data: stocktakes = [] } = useApi(api.stocktakes.list);
  const { note, complain } = useShell();
  const fill = async (body: Pick<FillListBody, 'pile' | 'stocktake'>) => {
    try {
      const { added } = await call(api.withdrawals.fill, { params: { id: list }, body });
      note(wording.barcodesAdded(added));
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const choices: readonly FillChoice[] = [
    {
      label: wording.addAPile,
      placeholder: wording.chooseAPile,
      options: piles.map((p) => ({ value: p.id, label: p.name })),
      fill: (pile) => void fill({ pile }),
    },
    {
      label: wording.addMissing,
      placeholder: wording.chooseAStocktake,
      options: stocktakes.map((s) => ({ value: s.id, label: s.stocktake.name })),
      fill: (stocktake) => void fill({ stocktake }),
    },
  ];
  return choices
    .filter((c) => c.options.length > 0)
    .map((c) => (
      <KitField key={c.label} label={c.label}>
        <Select
          className="from-pile"
          showSearch
          optionFilterProp="label"
          placeholder={c.placeholder}
          value={null}
          onChange={(id: number | null) => void (id && c.fill(id))}
          options={[...c.options]}
        />
      </KitField>
    ));
}

interface FillChoice {
  readonly label: string;
  readonly placeholder: string;
  readonly options: readonly { readonly value: number; readonly label: string }[];
  readonly fill: (id: number) => void;
}
