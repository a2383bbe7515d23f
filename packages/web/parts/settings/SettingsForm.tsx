import { api } from '@osier/contract';
import type { DeliverySettings } from '@osier/core/deliveries';
import { Select } from 'antd';
import { useApi } from '../../api/queries';
import { KitField, KitGrid, KitSection } from '../form/KitField';
import { PickMany } from '../form/PickMany';
import { CopyFields } from './CopyFields';
import type { Editing } from './editing';
import { MatchFields } from './MatchFields';
import './settings.css';

const FORMATS = [
  { value: 'found', label: 'found from the file' },
  { value: 'iso2709', label: 'ISO 2709' },
  { value: 'marcxml', label: 'MARCXML' },
  { value: 'json', label: 'MARC-in-JSON' },
  { value: 'lines', label: 'records as lines' },
  { value: 'csv', label: 'a table of field addresses (CSV)' },
] as const;
const CHARSETS = [
  { value: 'found', label: 'as leader and bytes say' },
  { value: 'utf8', label: 'UTF-8 in every record' },
  { value: 'marc8', label: 'MARC-8 in every record' },
] as const;

/** What is done with a delivery: reading, matching, our fields, copies. For a supplier's sheet and for one delivery. */
export function SettingsForm(editing: Editing) {
  const { value, onChange, problem, disabled } = editing;
  const { data: recipes = [] } = useApi(api.recipes.list);
  const { data: rolls = [] } = useApi(api.suppliers.rolls);
  const { data: setUp } = useApi(api.setup.read);
  const set = (part: Partial<DeliverySettings>) => onChange({ ...value, ...part });
  const gone = value.recipe !== '' && recipes.length > 0 && !recipes.some((r) => r.id === value.recipe);
  const wrongTag =
    problem('protectedFields') ??
    value.protectedFields.map((_, i) => problem(`protectedFields.${i}`)).find(Boolean);
  return (
    <div className="settings-form">
      <KitSection title="Reading and cleaning">
        <KitGrid>
          <KitField label="Format" problem={problem('format')}>
            <Select
              value={value.format}
              disabled={disabled}
              onChange={(format) => set({ format })}
              options={[...FORMATS]}
            />
          </KitField>
          <KitField label="Characters" problem={problem('charset')}>
            <Select
              value={value.charset}
              disabled={disabled}
              onChange={(charset) => set({ charset })}
              options={[...CHARSETS]}
            />
          </KitField>
          <KitField
            label="Recipe run while reading"
            problem={problem('recipe') ?? (gone ? 'The recipe was deleted. Choose another.' : undefined)}
          >
            <Select
              showSearch={{ optionFilterProp: 'label' }}
              popupMatchSelectWidth={false}
              value={value.recipe}
              disabled={disabled}
              onChange={(recipe) => set({ recipe })}
              options={[
                { value: '', label: 'none' },
                ...recipes.map((r) => ({ value: r.id, label: r.name })),
                ...(gone ? [{ value: value.recipe, label: 'deleted' }] : []),
              ]}
            />
          </KitField>
          <KitField
            label="Protected local fields beside those of the house"
            width="wide"
            help="Three digits each; a point stands for any digit."
            problem={wrongTag}
          >
            <PickMany
              list={null}
              placeholder="59."
              value={value.protectedFields}
              disabled={disabled}
              status={wrongTag ? 'error' : ''}
              onChange={(protectedFields) => set({ protectedFields })}
            />
          </KitField>
        </KitGrid>
      </KitSection>
      <MatchFields {...editing} />
      {setUp ? <CopyFields {...editing} lists={setUp.lists.value} rolls={rolls} /> : null}
    </div>
  );
}
