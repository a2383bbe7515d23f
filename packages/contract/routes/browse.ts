import { mixed, object } from 'yup';
import { eitherOf, listOf, orNull, shape, text, whole, wordOf } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { line } from '../inputs';
import { string } from '../values';

/** Lists that are browsed from anywhere, both ways. */
export const BROWSE_LISTS = [
  'title',
  'name',
  'subject',
  'genre',
  'titleheading',
  'series',
  'publisher',
  'callnumber',
  'barcode',
] as const;
export type BrowseList = (typeof BROWSE_LISTS)[number];

const browseRow = shape({
  /** Where it stands, to go on from. */
  place: text(),
  text: text(),
  /** What tells it from others: author and year, branch, kind. */
  more: text(),
  /** How many records there are under it, or copies. */
  n: whole(),
  /** The form that stands for it, where this one is a see-from. */
  see: orNull(text()),
  /** What it leads to: a record, or a heading with its records, or what a search finds. */
  to: eitherOf(
    shape({ as: wordOf(['record']), id: whole(), copy: orNull(whole()) }),
    shape({ as: wordOf(['heading']), id: whole() }),
    shape({ as: wordOf(['search']), q: text() }),
  ),
});
/** An entry of a list that is browsed. */
export type BrowseRow = ValueOf<typeof browseRow>;
const browsePage = shape({
  rows: listOf(browseRow),
  /** Where the page before it ends, and where the one behind it begins; null at the ends of the list. */
  before: orNull(text()),
  next: orNull(text()),
});
/** A page of a list that is browsed. */
export type BrowsePage = ValueOf<typeof browsePage>;

/** Lists in their order. */
export const browseApi = {
  page: endpoint({
    method: 'get',
    path: '/browse/:list',
    summary:
      'A list in its order: titles, names, subjects, series, publishers, call numbers or barcodes; `from` a text, or `behind` or `ahead` of a place',
    permission: 'look',
    params: {
      list: mixed<BrowseList>()
        .oneOf([...BROWSE_LISTS], 'There is no such list.')
        .required(),
    },
    query: object({
      from: line(200).default(''),
      behind: string().max(2000).optional(),
      ahead: string().max(2000).optional(),
    }),
    answer: browsePage,
  }),
};
