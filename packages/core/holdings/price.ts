import type { CodeLists } from './objects';

/** An amount in hundredths as it is written: 1250 is "12.50". */
export const amountText = (hundredths: number): string => (hundredths / 100).toFixed(2);

/** A price in hundredths with its currency before it, as MARC 21 876 $c has it: "GBP 12.50". */
export const priceText = (hundredths: number, currency: string): string =>
  `${currency} ${amountText(hundredths)}`;

/** What something cost, as it is kept: in hundredths, null when not known; no currency stands for the library's own. */
export interface Cost {
  readonly price: number | null;
  /** ISO 4217 code; absent: the currency of the library. */
  readonly currency?: string;
}

/** A cost as it stands in a cell or field: "12.50" in the library's currency, "EUR 12.50" in another; '' when not known. */
export const costText = ({ price, currency }: Cost): string =>
  price === null ? '' : currency ? priceText(price, currency) : amountText(price);

/** A cost as it is kept in a library of a currency: that one is not written. */
export const costIn = (house: string, price: number | null, currency = ''): Cost =>
  price !== null && currency && currency !== house ? { price, currency } : { price };

/** What a copy that is made cost: what is said of it, else what its type usually does. */
export const copyCost = (
  { type, price, currency }: Cost & { readonly type: string },
  { types }: Pick<CodeLists, 'types'>,
  house: string,
): Cost =>
  price === null
    ? { price: types.find((t) => t.code === type)?.price ?? null }
    : costIn(house, price, currency);

/** Sums of costs, one for each currency, the library's own first: "GBP 12.00 and EUR 30.00"; '' where nothing has a price. */
export function sumText(sums: readonly Cost[], house: string): string {
  const of = new Map<string, number>();
  for (const { price, currency = '' } of sums)
    if (price !== null) of.set(currency || house, (of.get(currency || house) ?? 0) + price);
  return [...of]
    .sort(([a], [b]) => Number(b === house) - Number(a === house) || (a < b ? -1 : 1))
    .map(([currency, sum]) => priceText(sum, currency))
    .join(' and ');
}

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
/** Three capitals count as a code of ISO 4217; whether it is one, `isCurrency` says. */
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

const CURRENCIES: ReadonlySet<string> = new Set(Intl.supportedValuesOf('currency'));
/** Whether a code is a currency of ISO 4217, as the runtime knows them. */
export const isCurrency = (code: string): boolean => CURRENCIES.has(code);

const TYPED =
  /^(?<before>[a-z]{3}|£|\$|€|¥|₣)?\s*(?<whole>\d{1,3}(?:[ '’]\d{3})+|\d{1,3}(?:,\d{3})+(?![\d,])|\d{1,3}(?:\.\d{3})+(?=,\d)|\d{1,9})(?:[.,](?<part>\d{1,2}))?\s*(?<behind>[a-z]{3}|£|\$|€|¥|₣|zł|kr)?$/i;

/**
 * A price as somebody types it: a number with up to two decimals behind a point or comma, thousands apart or not, and a currency before or
 * behind it, as a sign or a code of ISO 4217 in either case. Null for what is none: a sign before it, two currencies, an unknown code.
 */
export function typedPrice(text: string): Price | null {
  const { before, whole, part = '', behind } = TYPED.exec(text.trim())?.groups ?? {};
  if (whole === undefined || (before && behind)) return null;
  const named = before ?? behind ?? '';
  const currency = named && (SIGNS[named.toLowerCase()] ?? named.toUpperCase());
  if (currency && !isCurrency(currency)) return null;
  return { amount: Number(whole.replace(/\D/g, '')) * 100 + Number(part.padEnd(2, '0')), currency };
}

/** What to type for a price, where what was typed is none. */
export const WHAT_A_PRICE_IS = 'A price is written 12.50, or EUR 12.50 in another currency.';
