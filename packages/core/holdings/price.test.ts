import * as fc from 'fast-check';
import { costIn, costText, readPrice, sumText, typedPrice } from './price';

test.each<[string, number, string]>([
  ['12', 1200, ''],
  ['12.5', 1250, ''],
  ['£ 12,50', 1250, 'GBP'],
  ['eur 12.50', 1250, 'EUR'],
  ['12,50 €', 1250, 'EUR'],
  ['1,250', 125000, ''],
  ['1,250.00 USD', 125000, 'USD'],
  ['1.250,50', 125050, ''],
  ['1 250', 125000, ''],
  ['  7 ', 700, ''],
  ['39.90 zł', 3990, 'PLN'],
])('“%s” is typed for %p %s', (text, amount, currency) =>
  expect(typedPrice(text)).toEqual({ amount, currency }),
);

test.each([
  ...['', '-3', '12.345', 'dear', 'XQX 12', 'EUR 12 USD', '12.50.1', '1e3', '٣', 'EUR', '1234567890'],
  '1,25,000',
])('“%s” is no price', (text) => expect(typedPrice(text)).toBeNull());

const cost = fc.tuple(fc.integer({ min: 0, max: 9_999_999 }), fc.constantFrom('GBP', 'EUR', 'JPY', 'CHF'));
test('what is shown of a cost is read as the same, typed or from a record', () => {
  fc.assert(
    fc.property(cost, ([amount, currency]) => {
      const kept = costIn('GBP', amount, currency);
      expect(typedPrice(costText(kept))).toEqual({ amount, currency: kept.currency ?? '' });
      expect(readPrice(costText(kept), 'GBP')).toEqual({ amount, currency });
      expect(kept.currency === undefined).toBe(currency === 'GBP');
    }),
  );
});

test('costs are added up by currency, the library’s own first; what has no price adds nothing', () => {
  expect(
    sumText(
      [
        { price: 100, currency: 'EUR' },
        { price: 250 },
        { price: null },
        { price: 50, currency: 'AUD' },
        { price: 300, currency: 'EUR' },
        { price: 1, currency: 'GBP' },
      ],
      'GBP',
    ),
  ).toBe('GBP 2.51 and AUD 0.50 and EUR 4.00');
  expect(sumText([{ price: null }], 'GBP')).toBe('');
  expect(costIn('GBP', null, 'EUR')).toEqual({ price: null });
});
