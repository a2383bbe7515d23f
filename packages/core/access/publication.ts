import { dataFields, first, type MarcRecord } from '../marc';
import { fold } from '../text';
import { found, type AccessPoint } from './access-point';
import { withoutEndPunctuation } from './brief';

/** Texts of subfields of some fields, without the marks that belong between them. */
const texts = (record: MarcRecord, tag: RegExp, code: string) =>
  found(
    dataFields(record, tag)
      .flatMap((f) => first(f, code) ?? [])
      .map((text) => withoutEndPunctuation(text)),
  );

/** Publishers and distributors as records write them: 264 or 260 $b. */
export const PUBLISHER: AccessPoint<MarcRecord, 'publisher'> = {
  name: 'publisher',
  title: 'Publisher',
  type: 'phrase',
  version: 1,
  extract: (record) => texts(record, /^26[04]$/, 'b'),
  normalise: fold,
};

/** Places of publication: 264 or 260 $a. */
export const PLACE: AccessPoint<MarcRecord, 'place'> = {
  name: 'place',
  title: 'Place of publication',
  type: 'phrase',
  version: 1,
  extract: (record) => texts(record, /^26[04]$/, 'a'),
  normalise: fold,
};

/** Series: 490 or 830 $a. */
export const SERIES: AccessPoint<MarcRecord, 'series'> = {
  name: 'series',
  title: 'Series',
  type: 'phrase',
  version: 1,
  extract: (record) => texts(record, /^(490|830)$/, 'a'),
  normalise: fold,
};
