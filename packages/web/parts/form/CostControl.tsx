import { Form } from 'antd';
import { CostInput } from '../CostInput';

/** The price of a form, whose currency is kept in another part of it. */
export function CostControl({
  part,
  price,
  onPrice,
  ...told
}: {
  /** The part of the form that keeps the currency. */
  part: string;
  price: number | null;
  onPrice: (price: number | null) => void;
  id?: string;
  onBlur?: () => void;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}) {
  const form = Form.useFormInstance();
  const kept: unknown = Form.useWatch(part, { form, preserve: true });
  const currency = typeof kept === 'string' ? kept : '';
  return (
    <CostInput
      {...told}
      cost={{ price, ...(currency && { currency }) }}
      onChange={(cost) => {
        // Before the price, with which the form is told that it has changed.
        form.setFieldValue(part, cost.currency ?? '');
        onPrice(cost.price);
      }}
    />
  );
}
