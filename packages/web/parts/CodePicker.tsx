import { Select } from 'antd';

/** Picks codes from one of the library's lists, by code or name. */
export function CodePicker({
  list,
  value,
  onChange,
  label,
  many = false,
  status,
  placeholder,
}: {
  list: readonly { code: string; name: string }[];
  value: string | string[];
  onChange: (value: string | string[]) => void;
  label: string;
  many?: boolean;
  status?: 'error' | '';
  placeholder?: string;
}) {
  return (
    <Select
      aria-label={label}
      mode={many ? 'multiple' : undefined}
      showSearch={{ optionFilterProp: 'label' }}
      style={{ minWidth: 180, width: '100%' }}
      status={status}
      placeholder={placeholder ?? `Choose a ${label.toLowerCase()}`}
      value={(Array.isArray(value) ? value : value || undefined) as string}
      onChange={onChange}
      options={list.map((e) => ({ value: e.code, label: `${e.code}  ${e.name}` }))}
    />
  );
}
