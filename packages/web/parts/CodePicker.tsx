import { Select } from 'antd';
import type { CodeOption } from './form/field-kinds';
import { partWords as wording } from './words';

/** Picks a code from one of the library's lists, by code or name. It has its name from the label around it, or from `label`. */
export function CodePicker({
  id,
  list,
  value,
  onChange,
  label,
  status,
  placeholder,
  optional = false,
  isShort = false,
  disabled = false,
  ...told
}: {
  id?: string;
  list: readonly CodeOption[];
  value: string;
  onChange: (value: string) => void;
  label?: string;
  status?: 'error' | '';
  placeholder?: string;
  /** What was chosen is shown by its code alone. */
  isShort?: boolean;
  /** It may be left empty. */
  optional?: boolean;
  disabled?: boolean;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}) {
  return (
    <Select<string>
      {...told}
      id={id}
      aria-label={id ? undefined : label}
      showSearch={{ optionFilterProp: 'label' }}
      style={{ width: '100%' }}
      status={status}
      allowClear={optional}
      disabled={disabled}
      placeholder={placeholder ?? wording.choose}
      popupMatchSelectWidth={false}
      {...(value && { value })}
      {...(isShort && { labelRender: ({ value: code }: { value: string | number }) => code })}
      onChange={(next: string | undefined) => onChange(next ?? '')}
      options={list.map((e) => ({ value: e.code, label: `${e.code}  ${e.name}` }))}
    />
  );
}
