import { Input } from 'antd';
import { useState } from 'react';

type Line = readonly [code: string, text: string];

/** Subfields a line each: `$a Willow`. What was typed stays as it was typed; a line without a code is no subfield. */
export function SubfieldLines({
  label,
  lines,
  onChange,
}: {
  label: string;
  lines: readonly Line[];
  onChange: (lines: Line[]) => void;
}) {
  const [text, setText] = useState(() => lines.map(([code, value]) => `$${code} ${value}`).join('\n'));
  return (
    <label className="wide">
      {label}
      <Input.TextArea
        aria-label={label}
        className="mono"
        autoSize={{ minRows: 2, maxRows: 8 }}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          onChange(
            e.target.value
              .split('\n')
              .map((line) => /^\s*\$([a-z0-9]) ?(.*)$/.exec(line))
              .flatMap((m) => (m ? [[m[1]!, m[2]!] as const] : [])),
          );
        }}
      />
    </label>
  );
}
