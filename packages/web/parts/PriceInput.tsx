import { InputNumber } from 'antd';
import { useApi } from '../api/queries';
import { api } from '@osier/contract';
import { partWords as wording } from './words';

/** A price, typed in units with two decimals and kept in hundredths, in the currency of the house; null for none. */
export function PriceInput({
  id,
  value,
  onChange,
  disabled = false,
  placeholder,
  label,
  ...told
}: {
  id?: string;
  value: number | null;
  onChange: (hundredths: number | null) => void;
  disabled?: boolean;
  placeholder?: string;
  /** How it is called where no label stands by it. */
  label?: string;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}) {
  const currency = useApi(api.setup.read).data?.house.value.currency;
  return (
    <InputNumber
      {...told}
      id={id}
      aria-label={id ? undefined : (label ?? wording.price)}
      min={0}
      precision={2}
      controls={false}
      placeholder={placeholder}
      suffix={currency}
      style={{ width: '100%' }}
      disabled={disabled}
      value={value === null ? null : value / 100}
      onChange={(p) => onChange(p === null ? null : Math.round(p * 100))}
    />
  );
}
