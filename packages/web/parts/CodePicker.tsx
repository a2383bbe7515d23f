import { Select } from 'antd';
import { PickMany } from './form/PickMany';

/** Picks codes from one of the library's lists, by code or name. */
export function CodePicker({
  list,
  value,
  onChange,
  label,
  many = false,
  status,
  placeholder,
  optional = false,
  disabled = false,
}: {
  list: readonly { code: string; name: string }[];
  value: string | string[];
  onChange: (value: string | string[]) => void;
  label: string;
  many?: boolean;
  status?: 'error' | '';
  placeholder?: string;
  /** It may be left empty. */
  optional?: boolean;
  disabled?: boolean;
}) {
  if (many)
    return (
      <PickMany
        label={label}
        list={list}
        placeholder={placeholder}
        value={Array.isArray(value) ? value : []}
        disabled={disabled}
        status={status}
        onChange={onChange}
      />
    );
  return (
    <Select
      aria-label={label}
      showSearch={{ optionFilterProp: 'label' }}
      style={{ minWidth: 180, width: '100%' }}
      status={status}
      allowClear={optional}
      disabled={disabled}
      placeholder={placeholder ?? `Choose a ${label.toLowerCase()}`}
      value={(Array.isArray(value) ? value : value || undefined) as string}
      onChange={onChange}
      options={list.map((e) => ({ value: e.code, label: `${e.code}  ${e.name}` }))}
    />
  );
}
