import type { DeliveryRow } from '@osier/contract';
import { Table, type TableColumnsType } from 'antd';
import { Link } from 'react-router';
import { Mark } from '../../parts/Mark';
import { when } from '../../parts/when';

const number = (n: number) => n.toLocaleString('en-GB');
const count = (key: 'records' | 'waiting' | 'accepted' | 'skipped', title: string) => ({
  key,
  title,
  align: 'right' as const,
  sorter: (a: DeliveryRow, b: DeliveryRow) => a[key] - b[key],
  render: (_: unknown, r: DeliveryRow) => (key === 'records' || r[key] ? number(r[key]) : ''),
});
const STATES = [
  ['waiting', 'with records waiting', (r: DeliveryRow) => r.waiting > 0],
  ['done', 'done with', (r: DeliveryRow) => r.state === 'ready' && r.waiting === 0],
  ['trouble', 'not read to the end', (r: DeliveryRow) => r.state === 'failed' || r.state === 'cancelled'],
] as const;

const COLUMNS: TableColumnsType<DeliveryRow> = [
  {
    key: 'name',
    title: 'Delivery',
    sorter: (a, b) => a.name.localeCompare(b.name),
    render: (_, r) => (
      <>
        <Link to={`/deliveries/${r.id}`}>
          <b>{r.name}</b>
        </Link>
        {r.sameAs ? (
          <span className="faded">
            {' '}
            · the same file as delivery {r.sameAs.id} of {when(r.sameAs.arrived)}
          </span>
        ) : null}
      </>
    ),
  },
  {
    key: 'arrived',
    title: 'Arrived',
    sorter: (a, b) => a.id - b.id,
    defaultSortOrder: 'descend',
    render: (_, r) => when(r.arrived),
  },
  count('records', 'Records'),
  {
    ...count('waiting', 'Waiting'),
    filters: STATES.map(([value, text]) => ({ value, text })),
    onFilter: (value, r) => STATES.some(([state, , is]) => state === value && is(r)),
  },
  count('accepted', 'Accepted'),
  count('skipped', 'Skipped'),
  { key: 'reading', title: 'Reading', render: (_, r) => <Reading row={r} /> },
];

/** The deliveries: sorted by any column, those that wait or went wrong picked out. */
export const DeliveryTable = ({ rows }: { rows: readonly DeliveryRow[] }) => (
  <Table
    size="small"
    rowKey="id"
    columns={COLUMNS}
    dataSource={[...rows]}
    pagination={rows.length > 100 ? { pageSize: 100 } : false}
    scroll={{ x: 'max-content' }}
  />
);

function Reading({ row: r }: { row: DeliveryRow }) {
  if (r.state === 'reading') return <span>being read…</span>;
  if (r.state === 'failed' || r.state === 'cancelled')
    return (
      <>
        <Mark kind="stop" /> {r.problem}
      </>
    );
  return r.repaired || r.unreadable ? (
    <>
      <Mark kind="caution" /> {r.repaired} repaired{r.unreadable ? `, ${r.unreadable} unreadable` : ''}
    </>
  ) : (
    <>
      <Mark kind="clear" /> clean
    </>
  );
}
