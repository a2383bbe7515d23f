import { offerCallNumbers } from '../../callnumbers';
import type { Subfield } from '../../marc';
import { mapData } from '../select';
import type { StepKind } from '../step-kind';

/** Builds the call number of holdings that have none. */
export interface CallNumberStep {
  readonly step: 'call-number';
  readonly scheme: 'dewey' | 'lc' | 'nlm';
}

const NAMES = { dewey: 'Dewey', lc: 'LC', nlm: 'NLM' };
/** First indicator of 852 by scheme (MARC 21 Format for Holdings Data, 852). */
const SCHEMES = { lc: '0', dewey: '1', nlm: '2' };

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
    (record) => {
      const offer = offerCallNumbers(record, house).find((o) => o.scheme === scheme);
      if (!offer) return record;
      const built = [
        { code: 'h', value: offer.class },
        ...(offer.item ? [{ code: 'i', value: offer.item }] : []),
      ];
      return mapData(record, '852', (f) =>
        f.subfields.some((s) => s.code === 'h')
          ? f
          : { ...f, ind1: SCHEMES[scheme], subfields: withCallNumber(f.subfields, built) },
      );
    },
  sentence: ({ scheme }) =>
    `In every 852 without one, build the call number from the ${NAMES[scheme]} class in house style`,
};

/** Class and item stand behind the location codes and before the rest of 852. */
function withCallNumber(subfields: readonly Subfield[], built: readonly Subfield[]): Subfield[] {
  let at = 0;
  subfields.forEach((s, i) => {
    if ('3abc'.includes(s.code)) at = i + 1;
  });
  return [...subfields.slice(0, at), ...built, ...subfields.slice(at)];
}
