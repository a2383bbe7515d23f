import { Input } from 'antd';
import { useState } from 'react';
import { KitField } from '../../parts/form/KitField';

type Line = readonly [code: string, text: string];

/** Subfields a line each: `$a Willow`. What was typed stays as it was typed; a line without a code is no subfield. */
export function SubfieldLines({
  label,
  help,
  lines,
  onChange,
}: {
  label: string;
  help: string;
  lines: readonly Line[];
  onChange: (lines: Line[]) => void;
}) {
  const [text, setText] = useState(() => lines.map(([code, value]) => `$${code} ${value}`).join('\n'));
  return (
    <KitField label={label} help={help} width="wide">
      <Input.TextArea
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
    </KitField>
  );
}
