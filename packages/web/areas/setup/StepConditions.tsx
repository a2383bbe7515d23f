import { api } from '@osier/contract';
import { codeOptions } from '@osier/core/format';
import type { Step } from '@osier/core/recipes';
import { Input } from 'antd';
import { useApi } from '../../api/queries';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';
import { setUpWords as wording } from './words';

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
      <summary>{wording.onlyOnSomeRecords}</summary>
      <KitGrid>
        <KitField label={wording.theRecordHas} help={wording.aFieldAddress}>
          <Input
            className="mono"
            placeholder="650{$v}"
            value={when?.has ?? ''}
            onChange={(e) => set('has', e.target.value.trim() || undefined)}
          />
        </KitField>
        <KitField label={wording.theRecordLacks} help={wording.aFieldAddress}>
          <Input
            className="mono"
            placeholder="856$u"
            value={when?.lacks ?? ''}
            onChange={(e) => set('lacks', e.target.value.trim() || undefined)}
          />
        </KitField>
        <KitField label={wording.languages} help={wording.of0083537}>
          <PickMany
            list={codeOptions('languages')}
            value={when?.languages ?? []}
            onChange={(v) => set('languages', v)}
          />
        </KitField>
        <KitField label={wording.typesOfRecord} help={wording.lettersOfLeader06}>
          <PickMany
            list={null}
            placeholder={wording.a}
            value={when?.types ?? []}
            onChange={(v) => set('types', v)}
          />
        </KitField>
        <KitField label={wording.suppliers} help={wording.namesOfTheirSheets} width="wide">
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
