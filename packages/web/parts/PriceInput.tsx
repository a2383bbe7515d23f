import { InputNumber } from 'antd';

/** A price, typed in units with two decimals and kept in hundredths; null for none. */
export function PriceInput({
  value,
  onChange,
  disabled = false,
  placeholder,
}: {
  value: number | null;
  onChange: (hundredths: number | null) => void;
  disabled?: boolean;
  placeholder?: string;
}) {
  return (
    <InputNumber
      aria-label="Price"
      min={0}
      precision={2}
      placeholder={placeholder}
      style={{ width: '100%' }}
      disabled={disabled}
      value={value === null ? null : value / 100}
      onChange={(p) => onChange(p === null ? null : Math.round(p * 100))}
    />
  );
}
