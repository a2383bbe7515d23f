import { codeOptions, type PositionDefinition } from '@osier/core/format';
import { Input, Select } from 'antd';
import { useId } from 'react';
import { PickMany } from '../form/PickMany';
import { fieldWords as wording } from './words';

/** Codes of a position as they are chosen; those that the format gives as a range are typed. */
function optionsOf({ name, codes }: PositionDefinition) {
  if (Object.keys(codes).length === 0) {
    if (name === 'Language') return codeOptions('languages');
    return name.startsWith('Place of publication') ? codeOptions('countries') : null;
  }
  if (Object.keys(codes).some((c) => /^\d+-\d+$/.test(c))) return null;
  return Object.entries(codes).map(([code, meaning]) => ({ code, name: meaning }));
}

const BLANK = '#';
const shown = (code: string) => code.replaceAll(' ', BLANK);

/** One position of a fixed field: its values with their meanings, several where several codes stand side by side. */
export function PositionInput({
  position,
  value,
  onChange,
}: {
  position: PositionDefinition;
  value: string;
  onChange: (code: string) => void;
}) {
  const id = useId();
  const { name, from, to, unit } = position;
  const length = to - from;
  const options = optionsOf(position);
  const size = unit ?? length;
  const codesIn = () => {
    const found: string[] = [];
    for (let i = 0; i < value.length; i += size)
      if (value.slice(i, i + size).trim()) found.push(value.slice(i, i + size));
    return found;
  };
  return (
    <label className="position-input" htmlFor={id}>
      <span>
        {name} <span className="faded">{wording.positions(from, to)}</span>
      </span>
      {options === null ? (
        <Input
          id={id}
          size="small"
          className="mono"
          maxLength={length}
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
      ) : unit && length > unit ? (
        <PickMany
          id={id}
          list={options.filter((o) => o.code.trim() !== '' && o.code.length === unit)}
          value={codesIn()}
          onChange={(codes) => onChange(codes.slice(0, length / unit).join(''))}
        />
      ) : (
        <Select<string>
          id={id}
          size="small"
          style={{ width: '100%' }}
          popupMatchSelectWidth={false}
          showSearch={{ optionFilterProp: 'label' }}
          value={value}
          options={[
            ...options.map((o) => ({
              value: o.code.padEnd(length),
              label: `${shown(o.code.padEnd(length))}  ${o.name}`,
            })),
            // A code that the format does not define is shown as it stands.
            ...(options.some((o) => o.code.padEnd(length) === value) ? [] : [{ value, label: shown(value) }]),
          ]}
          onChange={onChange}
        />
      )}
    </label>
  );
}
