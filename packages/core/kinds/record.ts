import { briefOf, type RecordBrief } from '../access';
import type { MarcRecord } from '../marc';
import { describe } from '../matching';
import { fold } from '../text';
import { describeKind } from './kind';

/** A bibliographic record of the catalogue. */
export const record = describeKind<MarcRecord>()({
  kind: 'record',
  noun: ['record', 'records'],
  label: (marc) => briefOf(marc).title,
  table: 'records',
  columns: {
    title: 'text',
    author: 'text',
    year: 'text',
    isbn: 'text',
    publisher: 'text',
    edition: 'text',
    language: 'text',
    material: 'text',
    sort: 'text',
    matching: 'text',
  },
  compute: (marc) => {
    const { title, author, year, isbn, publisher, edition, language, material } = briefOf(marc);
    return {
      ...{ title, author, year, isbn, publisher, edition, language, material },
      sort: titleSortKey(marc, title),
      matching: JSON.stringify(describe(marc)),
    };
  },
  parents: [],
});

/** The title folded, without its initial article (245, second indicator: nonfiling characters). */
function titleSortKey(marc: MarcRecord, title: RecordBrief['title']): string {
  const field = marc.fields.find((f) => f.tag === '245');
  const nonfiling = field && 'ind2' in field ? Number(field.ind2) || 0 : 0;
  return fold(title.slice(nonfiling));
}
