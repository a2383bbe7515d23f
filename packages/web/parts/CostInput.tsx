import { api } from '@osier/contract';
import { costText, typedPrice, WHAT_A_PRICE_IS, type Cost } from '@osier/core/holdings';
import { Input } from 'antd';
import { useState } from 'react';
import { useApi } from '../api/queries';
import { partWords as wording } from './words';

/** What is typed, as a cost; a price that is none is NaN, which no form sends. */
function costTyped(text: string): Cost {
  if (text.trim() === '') return { price: null };
  const typed = typedPrice(text);
  if (typed === null) return { price: NaN };
  return { price: typed.amount, ...(typed.currency && { currency: typed.currency }) };
}

const isSame = (a: Cost, b: Cost): boolean =>
  Object.is(a.price, b.price) && (a.currency ?? '') === (b.currency ?? '');

/** What is told at a price that is none; undefined for one that is. */
export const costFault = ({ price }: Cost): string | undefined =>
  Number.isNaN(price) ? WHAT_A_PRICE_IS : undefined;

/**
 * What a copy cost: "12.50" in the currency of the library, "EUR 12.50" in another. What is no price stays as it was typed and is given as NaN,
 * for the form to refuse.
 */
export function CostInput({
  id,
  cost,
  onChange,
  onBlur,
  placeholder,
  ...told
}: {
  id?: string;
  cost: Cost;
  onChange: (cost: Cost) => void;
  /** It is left. */
  onBlur?: () => void;
  placeholder?: string;
  'aria-invalid'?: boolean;
  'aria-describedby'?: string;
}) {
  const house = useApi(api.setup.read).data?.house.value.currency;
  const [text, setText] = useState(() => (Number.isNaN(cost.price) ? '' : costText(cost)));
  // What the form gives anew, a draft or what is kept, takes the place of what was typed.
  const shown = isSame(costTyped(text), cost) || Number.isNaN(cost.price) ? text : costText(cost);
  return (
    <Input
      {...told}
      id={id}
      aria-label={id ? undefined : wording.price}
      autoComplete="off"
      placeholder={placeholder ?? wording.pricesTyped}
      suffix={<span className="faded">{cost.currency ? '' : house}</span>}
      value={shown}
      onChange={(e) => {
        setText(e.target.value);
        onChange(costTyped(e.target.value));
      }}
      // How it was understood.
      onBlur={() => {
        if (!costFault(cost)) setText(costText(cost));
        onBlur?.();
      }}
    />
  );
}
