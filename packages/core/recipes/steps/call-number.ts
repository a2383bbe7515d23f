import { INDICATOR_OF, offerCallNumbers, type CallNumberOffer } from '../../callnumbers';
import { first, type Subfield } from '../../marc';
import { mapData } from '../select';
import type { StepKind } from '../step-kind';

/** Builds the call number of holdings that have none. */
export interface CallNumberStep {
  readonly step: 'call-number';
  readonly scheme: 'dewey' | 'lc' | 'nlm';
}

const NAMES = { dewey: 'Dewey', lc: 'LC', nlm: 'NLM' };
/** Builds the call number in the style of the house, in every 852 that has none. */
export const callNumberStep: StepKind<CallNumberStep> = {
  step: 'call-number',
  name: 'build the call number in house style',
  parts: [
    {
      key: 'scheme',
      kind: 'choice',
      name: 'from',
      choices: [
        ['dewey', 'Dewey'],
        ['lc', 'LC'],
        ['nlm', 'NLM'],
      ],
    },
  ],
  first: { step: 'call-number', scheme: 'dewey' },
  prepare:
    ({ scheme }, { house }) =>
    (record) =>
      mapData(record, '852', (f) => {
        if (f.subfields.some((s) => s.code === 'h' || s.code === 'i')) return f;
        const place = { branch: first(f, 'b'), location: first(f, 'c') };
        const offer = offerCallNumbers(record, house, place).find((o) => o.scheme === scheme);
        return offer
          ? { ...f, ind1: INDICATOR_OF[scheme], subfields: withCallNumber(f.subfields, offer) }
          : f;
      }),
  sentence: ({ scheme }) =>
    `In every 852 without one, build the call number from the ${NAMES[scheme]} class in house style`,
};

/** The parts of a call number in the order of a shelf mark, behind the location codes and before the rest of 852. */
function withCallNumber(subfields: readonly Subfield[], offer: CallNumberOffer): Subfield[] {
  const has = (code: string) => subfields.some((s) => s.code === code);
  const built = [
    { code: 'k', value: has('k') ? '' : offer.prefix },
    { code: 'h', value: offer.class },
    { code: 'i', value: [offer.item, offer.year].filter(Boolean).join(' ') },
    { code: 'm', value: has('m') ? '' : offer.suffix },
  ].filter((s) => s.value !== '');
  let at = 0;
  subfields.forEach((s, i) => {
    if ('3abck'.includes(s.code)) at = i + 1;
  });
  return [...subfields.slice(0, at), ...built, ...subfields.slice(at)];
}
