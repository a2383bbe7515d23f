import { api } from '@osier/contract';
import { codeOptions } from '@osier/core/format';
import type { Step } from '@osier/core/recipes';
import { Input } from 'antd';
import { useApi } from '../../api/queries';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';

type When = NonNullable<Step['when']>;

/** On which records a step runs; on all when nothing is filled in. */
export function StepConditions({
  when,
  onChange,
}: {
  when: When | undefined;
  onChange: (when: When | undefined) => void;
}) {
  const { data: sheets = [] } = useApi(api.suppliers.sheets);
  const set = (key: keyof When, value: string | string[] | undefined) => {
    const next: Record<string, unknown> = { ...when, [key]: value };
    if (value === undefined || value.length === 0) delete next[key];
    onChange(Object.keys(next).length ? next : undefined);
  };
  return (
    <details open={when !== undefined}>
      <summary>Only on some records</summary>
      <KitGrid>
        <KitField label="The record has" help="a field address">
          <Input
            className="mono"
            placeholder="650{$v}"
            value={when?.has ?? ''}
            onChange={(e) => set('has', e.target.value.trim() || undefined)}
          />
        </KitField>
        <KitField label="The record lacks" help="a field address">
          <Input
            className="mono"
            placeholder="856$u"
            value={when?.lacks ?? ''}
            onChange={(e) => set('lacks', e.target.value.trim() || undefined)}
          />
        </KitField>
        <KitField label="Languages" help="of 008/35–37">
          <PickMany
            list={codeOptions('languages')}
            value={when?.languages ?? []}
            onChange={(v) => set('languages', v)}
          />
        </KitField>
        <KitField label="Types of record" help="letters of leader/06">
          <PickMany list={null} placeholder="a" value={when?.types ?? []} onChange={(v) => set('types', v)} />
        </KitField>
        <KitField label="Suppliers" help="names of their sheets" width="wide">
          <PickMany
            list={[...new Set([...sheets.map((s) => s.sheet.name), ...(when?.suppliers ?? [])])].map((n) => ({
              code: n,
              name: '',
            }))}
            value={when?.suppliers ?? []}
            onChange={(v) => set('suppliers', v)}
          />
        </KitField>
      </KitGrid>
    </details>
  );
}
