import { Input } from 'antd';
import { useState } from 'react';

/** A supplier's codes and ours, a line each: `DVD = VI`. What was typed stays as it was typed. */
export function CodeTable({
  label,
  list,
  table,
  onChange,
  problem,
  disabled,
}: {
  label: string;
  list: readonly { code: string; name: string }[];
  table: Readonly<Record<string, string>>;
  onChange: (table: Record<string, string>) => void;
  problem?: string;
  disabled?: boolean;
}) {
  const [text, setText] = useState(() =>
    Object.entries(table)
      .map(([theirs, ours]) => `${theirs} = ${ours}`)
      .join('\n'),
  );
  const change = (typed: string) => {
    setText(typed);
    const pairs = typed
      .split('\n')
      .map((line) => line.split('='))
      .filter((p) => p.length === 2 && p[0]!.trim() !== '')
      .map(([theirs, ours]) => [theirs!.trim(), ours!.trim()] as const);
    onChange(Object.fromEntries(pairs));
  };
  return (
    <label>
      {label}
      <Input.TextArea
        className="mono"
        autoSize={{ minRows: 2, maxRows: 8 }}
        placeholder={`theirs = ${list[0]?.code ?? 'ours'}`}
        value={text}
        status={problem ? 'error' : ''}
        disabled={disabled}
        onChange={(e) => change(e.target.value)}
      />
      {problem ? (
        <span className="field-problem" role="alert">
          {problem}
        </span>
      ) : null}
    </label>
  );
}
