/** An amount in hundredths as it is written: 1250 is "12.50". */
export const amountText = (hundredths: number): string => (hundredths / 100).toFixed(2);

/** A price in hundredths with its currency before it, as MARC 21 876 $c has it: "GBP 12.50". */
export const priceText = (hundredths: number, currency: string): string =>
  `${currency} ${amountText(hundredths)}`;

/** A price as it stands in a text. */
export interface Price {
  /** In hundredths. */
  readonly amount: number;
  /** ISO 4217 code; empty when the text names no currency. */
  readonly currency: string;
}

const SIGNS: Record<string, string> = {
  '£': 'GBP',
  $: 'USD',
  '€': 'EUR',
  '¥': 'JPY',
  '₣': 'CHF',
  zł: 'PLN',
  kr: 'SEK',
};
const SIGN = /£|\$|€|¥|₣|zł|kr\b/;
/** Codes of ISO 4217 that suppliers of libraries use; any other three capitals count as a code too. */
const CODE = /\b([A-Z]{3})\b/;

/**
 * The price in 020 $c, 365 $b or 876 $c: digits with a point or comma before the last two, groups of three apart, the
 * currency as sign or ISO 4217 code before or behind. Null when there is none, or two that differ.
 */
export function readPrice(text: string, currency = ''): Price | null {
  const numbers = [
    ...text.matchAll(/(?<![\d.,])(\d{1,3}(?:[ .,'’]\d{3})+|\d+)(?:([.,])(\d{2})(?!\d)|[.,]-)?(?![\d])/g),
  ];
  const amounts = new Set(
    numbers.map(([, whole, , cents]) => Number(whole!.replace(/\D/g, '')) * 100 + Number(cents ?? 0)),
  );
  if (amounts.size !== 1) return null;
  const sign = SIGN.exec(text)?.[0];
  return { amount: [...amounts][0]!, currency: CODE.exec(text)?.[1] ?? (sign ? SIGNS[sign]! : currency) };
}
