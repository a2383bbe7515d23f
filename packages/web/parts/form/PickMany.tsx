import { Select } from 'antd';
import type { CodeOption } from './field-kinds';

/** Several codes of a list, or words that are typed; Enter takes one, Tab leaves. */
export function PickMany({
  id,
  label,
  list,
  placeholder,
  value,
  disabled,
  status,
  onChange,
  ...told
}: {
  id?: string | undefined;
  label?: string;
  /** The codes to choose from; null for words that are typed. */
  list: readonly CodeOption[] | null;
  placeholder?: string | undefined;
  value: readonly string[];
  disabled?: boolean | undefined;
  status?: 'error' | '' | undefined;
  onChange: (value: string[]) => void;
  'aria-required'?: 'true' | boolean;
  'aria-invalid'?: 'true' | boolean;
  'aria-describedby'?: string;
}) {
  return (
    // The control would take what is marked when Tab is pressed; Tab only leaves.
    <div className="pick-many" onKeyDownCapture={(e) => e.key === 'Tab' && e.stopPropagation()}>
      <Select<string[]>
        id={id}
        {...told}
        aria-label={label}
        mode={list ? 'multiple' : 'tags'}
        {...(list ? {} : { open: false, suffixIcon: null, tokenSeparators: [';'] })}
        showSearch={{ optionFilterProp: 'label' }}
        style={{ width: '100%' }}
        placeholder={placeholder}
        disabled={disabled}
        status={status}
        value={[...value]}
        options={list?.map((e) => ({ value: e.code, label: `${e.code}  ${e.name}` })) ?? []}
        onChange={(next) => onChange(next.map((t) => t.trim()).filter(Boolean))}
      />
    </div>
  );
}
