import type { RecipeRow } from '@osier/contract';
import { Select } from 'antd';
import { memo } from 'react';

/** Chooses a recipe to be run; nothing stays chosen. */
export const RecipeSelect = memo(function RecipeSelect({
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
}) {
  return (
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
});
