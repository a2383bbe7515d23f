import { briefOf, isbns, issns, withoutEndPunctuation } from '../access';
import { materialOf } from '../format';
import { dataFields, runningText, values, type MarcRecord } from '../marc';

/** An element of the Dublin Core Metadata Element Set 1.1 with a value. */
export type DcElement = readonly [name: string, value: string];

/** DCMI types by the material of a record (DCMI Type Vocabulary). */
const TYPES: Readonly<Record<string, string>> = {
  Books: 'Text',
  'Continuing Resources': 'Text',
  'Computer Files': 'Software',
  Maps: 'StillImage',
  Music: 'Sound',
  'Visual Materials': 'MovingImage',
  'Mixed Materials': 'Collection',
};

/** A record in Dublin Core (MARC to Dublin Core Crosswalk, Library of Congress, unqualified). */
export function dublinCore(record: MarcRecord): DcElement[] {
  const brief = briefOf(record);
  const texts = (name: string, tags: RegExp, codes?: string): DcElement[] =>
    dataFields(record, tags).map((f) => [name, withoutEndPunctuation(runningText(f, codes))] as const);
  const type = TYPES[materialOf(record.leader)];
  const elements: DcElement[] = [
    ...texts('title', /^(245|246)$/, 'abnp'),
    ...texts('creator', /^1(00|10|11)$/, 'abcdnq'),
    ...texts('contributor', /^7(00|10|11)$/, 'abcdnq'),
    ...dataFields(record, /^6[0-5]\d$/).map(
      (f) => ['subject', withoutEndPunctuation(values(f, 'abcdtvxyz').join('--'))] as const,
    ),
    ...texts('publisher', /^26[04]$/, 'ab'),
    ['date', brief.year],
    ['type', type ?? ''],
    ...texts('format', /^300$/),
    ['language', brief.language],
    ...isbns(record).map((n): DcElement => ['identifier', `urn:isbn:${n}`]),
    ...issns(record).map((n): DcElement => ['identifier', `urn:issn:${n.slice(0, 4)}-${n.slice(4)}`]),
    ...dataFields(record, '856').flatMap((f) => values(f, 'u').map((u): DcElement => ['identifier', u])),
    ...texts('description', /^5(00|20|05)$/, 'a'),
    ...texts('relation', /^(490|830)$/, 'av'),
  ];
  return elements.filter(([, value]) => value.trim() !== '');
}
