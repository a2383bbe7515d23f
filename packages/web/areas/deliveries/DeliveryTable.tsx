import type { DeliveryRow } from '@osier/contract';
import { Button, DatePicker, Table, type TableColumnsType } from 'antd';
import dayjs from 'dayjs';
import { Link } from 'react-router';
import { useAddress } from '../../parts/use-address';
import { Mark } from '../../parts/Mark';
import { when } from '../../parts/when';
import { deliveriesWords as wording } from './words';

const number = (n: number) => n.toLocaleString('en-GB');
const count = (key: 'records' | 'waiting' | 'accepted' | 'skipped', title: string) => ({
  key,
  title,
  align: 'right' as const,
  sorter: (a: DeliveryRow, b: DeliveryRow) => a[key] - b[key],
  render: (_: unknown, r: DeliveryRow) => (key === 'records' || r[key] ? number(r[key]) : ''),
});
const STATES = [
  ['waiting', wording.withRecordsWaiting, (r: DeliveryRow) => r.waiting > 0],
  ['done', 'finished', (r: DeliveryRow) => r.state === 'ready' && r.waiting === 0],
  ['trouble', wording.notReadToTheEnd, (r: DeliveryRow) => r.state === 'failed' || r.state === 'cancelled'],
] as const;
const NO_SHEET = wording.noSupplierSheet2;
const supplierOf = (r: DeliveryRow) => r.supplier ?? NO_SHEET;
/** The day of this place on which a delivery arrived: 2026-11-28. */
const dayOf = (iso: string) => dayjs(iso).format('YYYY-MM-DD');

/** What of the table stands in the address, so that it comes back. */
const KEPT = ['supplier', 'state', 'from', 'to', 'sort'] as const;
type Kept = Readonly<Partial<Record<(typeof KEPT)[number], string>>>;

/** The deliveries: sorted by any column, narrowed by supplier, days and state. */
export function DeliveryTable({ rows }: { rows: readonly DeliveryRow[] }) {
  const [query, keep] = useAddress();
  const kept: Kept = Object.fromEntries(KEPT.map((key) => [key, query.get(key) ?? undefined]));
  return (
    <Table
      size="small"
      rowKey="id"
      columns={columnsOf(rows, kept, (from, to) => keep({ from, to }))}
      dataSource={[...rows]}
      pagination={rows.length > 100 ? { pageSize: 100 } : false}
      scroll={{ x: 'max-content' }}
      locale={{ emptyText: wording.noDeliveriesMatchRemoveA }}
      onChange={(_, filters, sorted) => {
        const by = Array.isArray(sorted) ? sorted[0] : sorted;
        keep({
          supplier: filters.supplier?.join('|'),
          state: filters.waiting?.join('|'),
          sort: by?.order ? `${String(by.columnKey)} ${by.order}` : undefined,
        });
      }}
    />
  );
}

function columnsOf(
  rows: readonly DeliveryRow[],
  kept: Kept,
  onDays: (from: string | undefined, to: string | undefined) => void,
): TableColumnsType<DeliveryRow> {
  const [sorted, direction] = (kept.sort ?? 'arrived descend').split(' ');
  const columns: TableColumnsType<DeliveryRow> = [
    {
      key: 'name',
      title: wording.delivery2,
      sorter: (a, b) => a.name.localeCompare(b.name),
      render: (_, r) => (
        <>
          <Link to={`/deliveries/${r.id}`}>
            <b>{r.name}</b>
          </Link>
          {r.sameAs ? (
            <span className="faded">
              {' '}
              {wording.theSameFileAsDelivery(r.sameAs.id, when(r.sameAs.arrived))}
            </span>
          ) : null}
        </>
      ),
    },
    {
      key: 'supplier',
      title: wording.supplier,
      sorter: (a, b) => supplierOf(a).localeCompare(supplierOf(b)),
      filters: [...new Set(rows.map(supplierOf))].sort().map((value) => ({ value, text: value })),
      filteredValue: kept.supplier?.split('|') ?? null,
      filterSearch: rows.length > 20,
      onFilter: (value, r) => supplierOf(r) === value,
      render: (_, r) => r.supplier ?? <span className="faded">{wording.none}</span>,
    },
    {
      key: 'arrived',
      title: wording.arrived,
      sorter: (a, b) => a.id - b.id,
      filteredValue: kept.from || kept.to ? [`${kept.from ?? ''}|${kept.to ?? ''}`] : null,
      onFilter: (_, r) =>
        dayOf(r.arrived) >= (kept.from ?? '') && dayOf(r.arrived) <= (kept.to ?? '9999-12-31'),
      filterDropdown: ({ close }) => (
        <div className="row" style={{ padding: 8 }}>
          <DatePicker.RangePicker
            aria-label={wording.arrivedBetween}
            format="YYYY-MM-DD"
            allowEmpty={[true, true]}
            value={[kept.from ? dayjs(kept.from) : null, kept.to ? dayjs(kept.to) : null]}
            onChange={(days) => onDays(days?.[0]?.format('YYYY-MM-DD'), days?.[1]?.format('YYYY-MM-DD'))}
          />
          <Button onClick={() => close()}>{wording.close}</Button>
        </div>
      ),
      render: (_, r) => when(r.arrived),
    },
    count('records', 'Records'),
    {
      ...count('waiting', 'Waiting'),
      filters: STATES.map(([value, text]) => ({ value, text })),
      filteredValue: kept.state?.split('|') ?? null,
      onFilter: (value, r) => STATES.some(([state, , is]) => state === value && is(r)),
    },
    count('accepted', 'Accepted'),
    count('skipped', 'Skipped'),
    { key: 'reading', title: wording.reading, render: (_, r) => <Reading row={r} /> },
  ];
  return columns.map((c) =>
    'sorter' in c ? { ...c, sortOrder: c.key === sorted ? (direction as 'ascend' | 'descend') : null } : c,
  );
}

function Reading({ row: r }: { row: DeliveryRow }) {
  if (r.state === 'reading') return <span>{wording.reading2}</span>;
  if (r.state === 'failed' || r.state === 'cancelled')
    return (
      <>
        <Mark kind="stop" /> {r.problem}
      </>
    );
  return r.repaired || r.unreadable ? (
    <>
      <Mark kind="caution" />{' '}
      {wording.repaired(r.repaired, r.unreadable ? wording.unreadable(r.unreadable) : '')}
    </>
  ) : (
    <>
      <Mark kind="clear" /> {wording.clean}
    </>
  );
}
