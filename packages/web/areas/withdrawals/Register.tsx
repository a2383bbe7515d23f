import { api, type EndpointAnswer, type RegisterRow } from '@osier/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Table, type TableColumnsType } from 'antd';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { Barcode } from '../../parts/Barcode';
import { Mark } from '../../parts/Mark';
import './register.css';
import { withdrawalsWords as wording } from './words';

type Page = EndpointAnswer<typeof api.withdrawals.register>;

const COLUMNS: TableColumnsType<RegisterRow> = [
  {
    key: 'on',
    title: wording.withdrawn,
    width: 110,
    sorter: (a, b) => a.withdrawn.withdrawnOn.localeCompare(b.withdrawn.withdrawnOn),
    render: (_, r) => r.withdrawn.withdrawnOn,
  },
  {
    key: 'barcode',
    title: wording.barcode,
    width: 170,
    render: (_, r) => <Barcode code={r.withdrawn.copy.barcode} />,
  },
  {
    key: 'title',
    title: wording.title,
    sorter: (a, b) => a.withdrawn.title.localeCompare(b.withdrawn.title),
    render: (_, { withdrawn: w }) => (
      <>
        <bdi>{w.title}</bdi>
        {w.lastCopy ? <small className="faded"> {wording.lastCopyRecordDeletedToo(w.record)}</small> : null}
      </>
    ),
  },
  {
    key: 'stood',
    title: wording.stoodAt,
    width: 190,
    render: (_, { withdrawn: w }) => `${w.callNumber}, ${w.location}`,
  },
  { key: 'reason', title: wording.reason, width: 180, render: (_, r) => r.withdrawn.reason || '–' },
  { key: 'by', title: wording.by, width: 130, render: (_, r) => r.withdrawn.by },
  {
    key: 'entry',
    title: wording.entry,
    width: 120,
    render: (_, { entry, restored }) => (
      <>
        <Link to={`/daybook/${entry}`}>{entry}</Link>
        {restored ? (
          <>
            {' '}
            <Mark kind="information" name={wording.undone} /> {wording.undone}
          </>
        ) : null}
      </>
    ),
  },
];

/** The register of withdrawn copies, kept for ever. */
export function Register() {
  const { data, error, hasNextPage, isFetchingNextPage, fetchNextPage } = useInfiniteQuery({
    queryKey: ['/register', 'pages'],
    initialPageParam: 0,
    getNextPageParam: (last: Page) => last.next ?? undefined,
    queryFn: ({ pageParam }) => call(api.withdrawals.register, { query: { before: pageParam || undefined } }),
  });
  if (error)
    return (
      <p role="alert" className="note stop register">
        {error.message}
      </p>
    );
  if (!data) return null;
  const rows = data.pages.flatMap((p) => p.rows);
  if (rows.length === 0) return <p className="faded register">{wording.nothingHasBeenWithdrawnYet}</p>;
  return (
    <div className="register">
      <Table
        size="small"
        rowKey="id"
        columns={COLUMNS}
        dataSource={rows}
        pagination={false}
        scroll={{ x: 'max-content' }}
        sticky
      />
      {hasNextPage ? (
        <Button loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          {wording.showEarlierOnes}
        </Button>
      ) : null}
    </div>
  );
}
