import type { RecipeRow } from '@osier/contract';
import { Select } from 'antd';

/** Chooses a recipe to be run; nothing stays chosen. */
export const RecipeSelect = ({
  label,
  placeholder,
  recipes,
  isSmall = false,
  actKey,
  onChoose,
}: {
  label: string;
  placeholder: string;
  isSmall?: boolean;
  /** The letter that leads here. */
  actKey?: string;
  recipes: readonly RecipeRow[];
  onChoose: (id: string) => void;
}) => (
  <Select<string | null>
    aria-label={label}
    data-key={actKey}
    size={isSmall ? 'small' : 'middle'}
    showSearch={{ optionFilterProp: 'label' }}
    value={null}
    placeholder={placeholder}
    popupMatchSelectWidth={false}
    onChange={(id) => id && onChoose(id)}
    options={recipes.map((r) => ({ value: r.id, label: r.name }))}
  />
);
