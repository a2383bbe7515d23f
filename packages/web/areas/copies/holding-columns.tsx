import type { HoldingListRow } from '@osier/contract';
import { counted } from '@osier/core/changes';
import type { CodeLists } from '@osier/core/holdings';
import type { ListColumn, ListView } from '../../parts/list-view';
import { Mark } from '../../parts/Mark';
import { nameInList } from './copy-columns';
import { copiesWords as wording } from './words';

/** What the list of holdings can show of each beside its call number. */
export const holdingColumns = (lists: CodeLists | undefined): readonly ListColumn<HoldingListRow>[] => [
  { key: 'title', name: wording.title, of: (r) => <bdi>{r.title}</bdi>, width: 260 },
  { key: 'author', name: wording.author, of: (r) => <bdi>{r.author}</bdi>, width: 150 },
  {
    key: 'branch',
    name: wording.branch,
    of: (r) => nameInList(lists?.branches, r.branch),
    width: 100,
    endOf: 'first',
  },
  {
    key: 'location',
    name: wording.location,
    of: (r) => nameInList(lists?.locations, r.location),
    width: 110,
    endOf: 'first',
  },
  {
    key: 'copies',
    name: wording.copies,
    of: (r) => counted(r.copies, 'copy', 'copies'),
    width: 64,
    isNumber: true,
  },
];
export const FIRST_HOLDINGS_VIEW: ListView = {
  isDense: false,
  columns: ['title', 'author', 'branch', 'location', 'copies'],
};

/** What a holding is called in a list: its call number, marked where its scheme cannot read it. */
export const HoldingTitle = ({ row }: { row: HoldingListRow }) => (
  <span className="mono">
    {row.isUnread ? (
      <span title={wording.unread}>
        <Mark kind="caution" />{' '}
      </span>
    ) : null}
    {row.callNumber}
  </span>
);
