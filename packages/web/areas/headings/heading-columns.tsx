import type { HeadingRow } from '@osier/contract';
import type { ListColumn, ListView } from '../../parts/list-view';
import { kindName, vocabularyName } from './heading-names';
import { headingsWords as wording } from './words';

/** What the list of headings can show of each beside its form. */
export const COLUMNS: readonly ListColumn<HeadingRow>[] = [
  {
    key: 'kind',
    name: wording.kind,
    of: (h) => <span className="faded">{kindName(h.kind)}</span>,
    width: 96,
  },
  {
    key: 'vocabulary',
    name: wording.vocabulary,
    of: (h) => <span className="faded">{vocabularyName(h.vocabulary)}</span>,
    width: 110,
  },
  {
    key: 'number',
    name: wording.number,
    of: (h) => <span className="faded">{`h${h.id}`}</span>,
    width: 60,
    isNumber: true,
  },
  {
    key: 'records',
    name: wording.recordsWithIt,
    of: (h) => h.records.toLocaleString('en-GB'),
    width: 44,
    isNumber: true,
  },
];
export const FIRST_VIEW: ListView = { isDense: true, columns: ['kind', 'records'] };

/** The form of a heading, with what it leads to or is known as where the list says that. */
export const HeadingTitle = ({ row }: { row: HeadingRow }) => (
  <span style={{ fontWeight: 400 }}>
    <bdi>{row.text}</bdi>
    {row.leadsTo ? <bdi className="faded">{wording.seesTo(row.leadsTo.text)}</bdi> : null}
    {row.knownAs ? <bdi className="faded">{wording.knownAs(row.knownAs)}</bdi> : null}
  </span>
);
