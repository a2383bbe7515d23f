import { api, registerQuery, REGISTER_ORDERS, type EndpointAnswer, type RegisterRow } from '@osier/contract';
import { priceText, sumText } from '@osier/core/holdings';
import { DownloadOutlined, PrinterOutlined } from '@ant-design/icons';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Input, Select, Table, type TableColumnsType } from 'antd';
import type { SortOrder } from 'antd/es/table/interface';
import { lazy, Suspense, useState, type Key } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { useApi } from '../../api/queries';
import { Barcode } from '../../parts/Barcode';
import { KitField } from '../../parts/form/KitField';
import { Mark } from '../../parts/Mark';
import { useAddress } from '../../parts/use-address';
import { useMay } from '../../shell/person';
import { useSetUp } from '../setup/use-set-up';
import './register.css';
import { RestoreSheet } from './RestoreSheet';
import { withdrawalsWords as wording } from './words';
import { inWords } from '../../parts/format';

const DateField = lazy(() => import('../../parts/form/DateField'));
type Page = EndpointAnswer<typeof api.withdrawals.register>;
/** What of the register is shown: as the address says. */
function useAsked() {
  const [query, change] = useAddress();
  const text = (name: string) => query.get(name) ?? '';
  const asked = {
    ...{ q: text('q'), branch: text('branch'), reason: text('reason'), from: text('from'), to: text('to') },
    sort: REGISTER_ORDERS.find((o) => o === text('sort')) ?? 'on',
    down: text('down') === 'no' ? ('no' as const) : ('yes' as const),
  };
  return { asked, change };
}
type Asked = ReturnType<typeof useAsked>['asked'];

const columnsOf = (asked: Asked, currency: string): TableColumnsType<RegisterRow> => {
  const sorted = (key: Asked['sort']): { key: string; sorter: true; sortOrder: SortOrder } => ({
    ...{ key, sorter: true },
    sortOrder: asked.sort === key ? (asked.down === 'yes' ? 'descend' : 'ascend') : null,
  });
  return [
    {
      ...sorted('on'),
      title: wording.withdrawn,
      width: 120,
      render: (_, { withdrawn: w }) => (
        <>
          {w.withdrawnOn}
          <small className="faded">{w.by}</small>
        </>
      ),
    },
    {
      key: 'barcode',
      title: wording.barcode,
      width: 165,
      render: (_, r) => <Barcode code={r.withdrawn.copy.barcode} />,
    },
    {
      ...sorted('title'),
      title: wording.title,
      render: (_, { withdrawn: w }) => (
        <>
          <bdi>{w.title}</bdi>
          {w.author ? <small className="faded">{w.author}</small> : null}
          {w.lastCopy ? <small className="faded">{wording.lastCopyOf(w.record)}</small> : null}
        </>
      ),
    },
    {
      ...sorted('number'),
      title: wording.stoodAt,
      width: 130,
      render: (_, { withdrawn: w }) => (
        <>
          {w.callNumber}
          <small className="faded">
            {w.branch} {w.location}
          </small>
        </>
      ),
    },
    {
      ...sorted('price'),
      title: wording.price,
      width: 100,
      align: 'right',
      render: (_, { withdrawn: { copy } }) =>
        copy.price === null ? '' : priceText(copy.price, copy.currency ?? currency),
    },
    {
      key: 'reason',
      title: wording.reason,
      width: 200,
      render: (_, { withdrawn: w }) => (
        <>
          {w.reason}
          {w.overruled ? <small className="faded">{wording.overruledBecause(w.overruled)}</small> : null}
          {w.despite?.length ? <small className="faded">{w.despite.join(' ')}</small> : null}
        </>
      ),
    },
    {
      key: 'entry',
      title: wording.entry,
      width: 70,
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
};

/** The register of withdrawn copies, kept for ever: searched, narrowed, sorted, printed and taken along as a table. */
export function Register() {
  const { asked, change } = useAsked();
  const currency = useSetUp()?.house.value.currency ?? '';
  const { data, error, hasNextPage, isFetching, fetchNextPage } = useInfiniteQuery({
    queryKey: ['/register', asked],
    initialPageParam: '',
    getNextPageParam: (last: Page) => last.next,
    placeholderData: (before) => before,
    queryFn: ({ pageParam }) =>
      call(api.withdrawals.register, { query: { ...asked, ...(pageParam && { after: pageParam }) } }),
  });
  const first = data?.pages[0];
  const rows = data?.pages.flatMap((p) => p.rows) ?? [];
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [restoring, setRestoring] = useState(false);
  const mayRestore = useMay('confirm withdrawals');
  const isNarrowed = [asked.q, asked.branch, asked.reason, asked.from, asked.to].some(Boolean);
  return (
    <div className="register report">
      <RegisterFilters asked={asked} onChange={change} />
      {error ? (
        <p role="alert" className="note stop">
          {error.message}
        </p>
      ) : null}
      {first ? (
        <p role="status">
          {first.total
            ? wording.registerHolds(inWords(first.total), sumText(first.sums, currency))
            : isNarrowed
              ? wording.nothingFoundSo
              : wording.nothingHasBeenWithdrawnYet}
        </p>
      ) : null}
      {mayRestore && chosen.length ? (
        <div className="row no-print">
          <Button data-key="z" onClick={() => setRestoring(true)}>
            {wording.undoTheWithdrawalOf(chosen.length)}
          </Button>
        </div>
      ) : null}
      {rows.length ? (
        <Table
          size="small"
          rowKey="id"
          columns={columnsOf(asked, currency)}
          dataSource={rows}
          loading={isFetching}
          pagination={false}
          showSorterTooltip={false}
          rowSelection={
            mayRestore
              ? {
                  columnWidth: 36,
                  hideSelectAll: true,
                  selectedRowKeys: [...chosen],
                  onChange: (keys: Key[]) => setChosen(keys.map(Number)),
                  getCheckboxProps: (r: RegisterRow) => ({
                    disabled: r.restored,
                    'aria-label': wording.chooseRow(r.withdrawn.title),
                  }),
                }
              : undefined
          }
          scroll={{ x: 980 }}
          sticky
          onChange={(_, __, sorter) => {
            const one = Array.isArray(sorter) ? sorter[0] : sorter;
            const sort = REGISTER_ORDERS.find((o) => o === one?.columnKey) ?? 'on';
            change({ sort, down: one?.order === 'ascend' ? 'no' : 'yes' });
          }}
        />
      ) : null}
      {restoring ? (
        <RestoreSheet rows={chosen} onDone={() => setChosen([])} onClose={() => setRestoring(false)} />
      ) : null}
      {hasNextPage ? (
        <Button className="fix no-print" loading={isFetching} onClick={() => void fetchNextPage()}>
          {wording.showMoreRows}
        </Button>
      ) : null}
    </div>
  );
}

function RegisterFilters({
  asked,
  onChange,
}: {
  asked: Asked;
  onChange: (parts: Readonly<Record<string, string | undefined>>) => void;
}) {
  const branches = useSetUp()?.lists.value.branches ?? [];
  const { data: reasons = [] } = useApi(api.withdrawals.registerReasons);
  const query = new URLSearchParams(registerQuery.cast(asked)).toString();
  return (
    <div className="register-filters no-print">
      <KitField label={wording.searchTheRegister} width="wide">
        <Input.Search
          key={asked.q}
          defaultValue={asked.q}
          allowClear
          placeholder={wording.titleNameBarcode}
          onSearch={(q) => onChange({ q: q || undefined })}
        />
      </KitField>
      <KitField label={wording.branch}>
        <Select
          value={asked.branch}
          onChange={(branch) => onChange({ branch: branch || undefined })}
          options={[
            { value: '', label: wording.allBranches },
            ...branches.map((b) => ({ value: b.code, label: b.name })),
          ]}
        />
      </KitField>
      <KitField label={wording.reason}>
        <Select
          value={asked.reason}
          onChange={(reason) => onChange({ reason: reason || undefined })}
          options={[
            { value: '', label: wording.allReasons },
            ...reasons.map((r) => ({ value: r.reason, label: `${r.reason} (${inWords(r.n)})` })),
          ]}
        />
      </KitField>
      <KitField label={wording.withdrawnFrom}>
        <Suspense fallback={null}>
          <DateField value={asked.from} onChange={(from) => onChange({ from: from || undefined })} />
        </Suspense>
      </KitField>
      <KitField label={wording.withdrawnTo}>
        <Suspense fallback={null}>
          <DateField value={asked.to} onChange={(to) => onChange({ to: to || undefined })} />
        </Suspense>
      </KitField>
      <span className="row register-acts">
        <Button icon={<PrinterOutlined />} onClick={() => window.print()}>
          {wording.print}
        </Button>
        <Button icon={<DownloadOutlined />} href={`/api/register/export?${query}`}>
          {wording.asCsv}
        </Button>
      </span>
    </div>
  );
}
