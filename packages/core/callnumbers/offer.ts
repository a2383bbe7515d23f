import type { HouseRules } from '../house';
import { dataFields, first, firstValue, type MarcRecord } from '../marc';
import { withoutMarks } from '../text';
import { cutDewey } from './dewey';
import type { CallNumber } from './shelf-key';

/** A call number made from a record, and where it comes from. */
export interface CallNumberOffer extends CallNumber {
  /** Such as "082 746.4120942, cut to 2 decimals; cutter from 100". */
  readonly from: string;
}

/** Cutter of the house: the first letters of the surname, or of the title's first filing word where nobody is named. */
export function cutterFor(record: MarcRecord, letters: number): { cutter: string; from: string } {
  if (letters <= 0) return { cutter: '', from: '' };
  const make = (text: string) =>
    withoutMarks(text)
      .toUpperCase()
      .replace(/[^\p{L}\p{N}]/gu, '')
      .slice(0, letters);
  for (const tag of ['100', '110', '111']) {
    const name = firstValue(record, tag, 'a');
    if (name) return { cutter: make(name.split(',')[0]!), from: tag };
  }
  const title = dataFields(record, '245')[0];
  const skip = Number(title?.ind2) || 0;
  return { cutter: make((first(title, 'a') ?? '').slice(skip)), from: '245' };
}

/** The call numbers a record offers, by scheme: Dewey from 082 (092), LC from 050 (090), NLM from 060. */
export function offerCallNumbers(record: MarcRecord, house: HouseRules): CallNumberOffer[] {
  const offers: CallNumberOffer[] = [];
  const { cutter, from } = cutterFor(record, house.cutterLetters);
  for (const tag of ['092', '082'])
    for (const f of dataFields(record, tag)) {
      const given = first(f, 'a') ?? '';
      const cut = cutDewey(given, house.classDecimals);
      if (!cut || offers.some((o) => o.scheme === 'dewey')) continue;
      const how = cut === given ? '' : `, cut to ${cut}`;
      offers.push({
        scheme: 'dewey',
        prefix: '',
        class: cut,
        item: cutter,
        suffix: '',
        from: `${tag} ${given}${how}${cutter ? `; cutter from ${from}` : ''}`,
      });
    }
  for (const [tag, scheme] of [
    ['090', 'lc'],
    ['050', 'lc'],
    ['060', 'nlm'],
  ] as const) {
    const f = dataFields(record, tag)[0];
    const cls = first(f, 'a');
    if (!cls || offers.some((o) => o.scheme === scheme)) continue;
    offers.push({
      scheme,
      prefix: '',
      class: cls.trim(),
      item: (first(f, 'b') ?? '').trim(),
      suffix: '',
      from: `${tag} as it stands`,
    });
  }
  return offers;
}
