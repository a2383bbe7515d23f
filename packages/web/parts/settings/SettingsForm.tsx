import { api } from '@osier/contract';
import type { DeliverySettings } from '@osier/core/deliveries';
import { Select } from 'antd';
import { useApi } from '../../api/queries';
import { PickMany } from '../form/PickMany';
import { FieldProblem } from '../FieldProblem';
import { CopyFields } from './CopyFields';
import type { Editing } from './editing';
import { MatchFields } from './MatchFields';
import './settings.css';

/** What is done with a delivery: reading, matching, our fields, copies. For a supplier's sheet and for one delivery. */
export function SettingsForm(editing: Editing) {
  const { value, onChange, problem, disabled } = editing;
  const { data: recipes = [] } = useApi(api.recipes.list);
  const { data: rolls = [] } = useApi(api.suppliers.rolls);
  const { data: setUp } = useApi(api.setup.read);
  const set = (part: Partial<DeliverySettings>) => onChange({ ...value, ...part });
  const gone = value.recipe !== '' && recipes.length > 0 && !recipes.some((r) => r.id === value.recipe);
  return (
    <div className="settings-form">
      <fieldset disabled={disabled}>
        <legend>Reading and cleaning</legend>
        <div className="form-grid">
          <label>
            Format
            <Select
              aria-label="Format"
              value={value.format}
              disabled={disabled}
              onChange={(format) => set({ format })}
              options={[
                { value: 'found', label: 'found from the file' },
                { value: 'iso2709', label: 'ISO 2709' },
                { value: 'marcxml', label: 'MARCXML' },
                { value: 'json', label: 'MARC-in-JSON' },
                { value: 'lines', label: 'records as lines' },
                { value: 'csv', label: 'a table of field addresses (CSV)' },
              ]}
            />
            <FieldProblem of={problem} field="format" />
          </label>
          <label>
            Characters
            <Select
              aria-label="Characters"
              value={value.charset}
              disabled={disabled}
              onChange={(charset) => set({ charset })}
              options={[
                { value: 'found', label: 'as leader and bytes say' },
                { value: 'utf8', label: 'UTF-8 in every record' },
                { value: 'marc8', label: 'MARC-8 in every record' },
              ]}
            />
          </label>
          <label>
            Recipe run while reading
            <Select
              aria-label="Recipe run while reading"
              value={value.recipe}
              disabled={disabled}
              status={gone || problem?.field('recipe') ? 'error' : ''}
              onChange={(recipe) => set({ recipe })}
              options={[
                { value: '', label: 'none' },
                ...recipes.map((r) => ({ value: r.id, label: r.name })),
                ...(gone ? [{ value: value.recipe, label: 'no longer there' }] : []),
              ]}
            />
            <FieldProblem of={problem} field="recipe" />
          </label>
          <label className="wide">
            Protected local fields beside those of the house
            <PickMany
              label="Protected local fields"
              list={null}
              placeholder="three digits, a point for any digit: 59."
              value={value.protectedFields}
              disabled={disabled}
              onChange={(protectedFields) => set({ protectedFields })}
            />
            <FieldProblem of={problem} field="protectedFields" />
          </label>
        </div>
      </fieldset>
      <MatchFields {...editing} />
      {setUp ? <CopyFields {...editing} lists={setUp.lists.value} rolls={rolls} /> : null}
    </div>
  );
}
