import type { Step } from '@osier/core/recipes';
import { Input } from 'antd';
import { useState } from 'react';

type When = NonNullable<Step['when']>;

const LISTS = [
  ['languages', 'Languages (codes of 008/35–37)', 'eng, wel'],
  ['types', 'Types of record (letters of leader/06)', 'a, t'],
  ['suppliers', 'Suppliers (names of their sheets)', 'Tallow & Pike'],
] as const;

/** On which records a step runs; on all when nothing is filled in. */
export function StepConditions({
  when,
  onChange,
}: {
  when: When | undefined;
  onChange: (when: When | undefined) => void;
}) {
  const set = (key: keyof When, value: string | string[] | undefined) => {
    const next: Record<string, unknown> = { ...when, [key]: value };
    if (value === undefined || value.length === 0) delete next[key];
    onChange(Object.keys(next).length ? next : undefined);
  };
  return (
    <details open={when !== undefined}>
      <summary>Only on some records</summary>
      <div className="form-grid">
        {(['has', 'lacks'] as const).map((key) => (
          <label key={key}>
            {key === 'has' ? 'It has (field address)' : 'It lacks (field address)'}
            <Input
              className="mono"
              placeholder={key === 'has' ? '650{$v}' : '856$u'}
              value={when?.[key] ?? ''}
              onChange={(e) => set(key, e.target.value.trim() || undefined)}
            />
          </label>
        ))}
        {LISTS.map(([key, name, example]) => (
          <ListInput
            key={key}
            name={name}
            example={example}
            list={when?.[key] ?? []}
            onChange={(v) => set(key, v)}
          />
        ))}
      </div>
    </details>
  );
}

/** Texts with commas between them; what was typed stays as it was typed. */
function ListInput({
  name,
  example,
  list,
  onChange,
}: {
  name: string;
  example: string;
  list: readonly string[];
  onChange: (list: string[]) => void;
}) {
  const [text, setText] = useState(list.join(', '));
  return (
    <label>
      {name}
      <Input
        placeholder={example}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          onChange(
            e.target.value
              .split(',')
              .map((t) => t.trim())
              .filter(Boolean),
          );
        }}
      />
    </label>
  );
}
