import { DatePicker } from 'antd';
import dayjs, { type Dayjs } from 'dayjs';
import { partWords as wording } from '../words';

/** A day, as `YYYY-MM-DD`; empty for none. Loaded when a form has one. */
export default function DateField({
  value,
  onChange,
  ...told
}: {
  id?: string;
  autoFocus?: boolean;
  value: string;
  onChange: (day: string) => void;
}) {
  return (
    <DatePicker
      {...told}
      format="YYYY-MM-DD"
      placeholder={wording.yearMonthDay}
      style={{ width: '100%' }}
      value={value ? dayjs(value) : null}
      onChange={(day: Dayjs | null) => onChange(day ? day.format('YYYY-MM-DD') : '')}
    />
  );
}
