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
import { partWords as wording } from '../words';

const FORMATS = [
  { value: 'found', label: wording.foundFromTheFile },
  { value: 'iso2709', label: wording.iso2709 },
  { value: 'marcxml', label: wording.marcxml },
  { value: 'json', label: wording.marcInJson },
  { value: 'lines', label: wording.recordsAsLines },
  { value: 'csv', label: wording.aTableOfFieldAddresses },
] as const;
const CHARSETS = [
  { value: 'found', label: wording.byLeaderAndContent },
  { value: 'utf8', label: wording.utf8InEveryRecord },
  { value: 'marc8', label: wording.marc8InEveryRecord },
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
      <KitSection title={wording.readingAndCleaning}>
        <KitGrid>
          <KitField label={wording.format} problem={problem('format')}>
            <Select
              value={value.format}
              disabled={disabled}
              onChange={(format) => set({ format })}
              options={[...FORMATS]}
            />
          </KitField>
          <KitField label={wording.characters} problem={problem('charset')}>
            <Select
              value={value.charset}
              disabled={disabled}
              onChange={(charset) => set({ charset })}
              options={[...CHARSETS]}
            />
          </KitField>
          <KitField
            label={wording.recipeRunWhileReading}
            problem={problem('recipe') ?? (gone ? wording.theRecipeWasDeletedChoose : undefined)}
          >
            <Select
              showSearch={{ optionFilterProp: 'label' }}
              popupMatchSelectWidth={false}
              value={value.recipe}
              disabled={disabled}
              onChange={(recipe) => set({ recipe })}
              options={[
                { value: '', label: wording.none },
                ...recipes.map((r) => ({ value: r.id, label: r.name })),
                ...(gone ? [{ value: value.recipe, label: wording.deleted }] : []),
              ]}
            />
          </KitField>
          <KitField
            label={wording.protectedLocalFieldsBesideThose}
            width="wide"
            help={wording.threeDigitsEachAPoint}
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
