import { Input } from 'antd';
import { useState } from 'react';
import { partWords as wording } from '../words';

/** A supplier's codes and ours, a line each: `DVD = VI`. What was typed stays as it was typed. */
export function CodeTable({
  id,
  ours,
  table,
  onChange,
  disabled,
  ...told
}: {
  id?: string;
  /** A code of ours, for the example. */
  ours: string;
  table: Readonly<Record<string, string>>;
  onChange: (table: Record<string, string>) => void;
  disabled?: boolean;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}) {
  const [text, setText] = useState(() =>
    Object.entries(table)
      .map(([theirs, code]) => `${theirs} = ${code}`)
      .join('\n'),
  );
  const change = (typed: string) => {
    setText(typed);
    const pairs = typed
      .split('\n')
      .map((line) => line.split('='))
      .filter((p) => p.length === 2 && p[0]!.trim() !== '')
      .map(([theirs, code]) => [theirs!.trim(), code!.trim()] as const);
    onChange(Object.fromEntries(pairs));
  };
  return (
    <Input.TextArea
      {...told}
      id={id}
      className="mono"
      autoSize={{ minRows: 2, maxRows: 8 }}
      placeholder={wording.theirs2(ours)}
      value={text}
      disabled={disabled}
      onChange={(e) => change(e.target.value)}
    />
  );
}
