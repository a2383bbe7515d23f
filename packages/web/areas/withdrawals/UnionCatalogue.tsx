import { api, type EndpointAnswer, type UnionItem } from '@osier/contract';
import { DownloadOutlined } from '@ant-design/icons';
import { useInfiniteQuery } from '@tanstack/react-query';
import { Button, Table, type TableColumnsType } from 'antd';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import './register.css';
import { withdrawalsWords as wording } from './words';
import { inWords } from '../../parts/format';

type Page = EndpointAnswer<typeof api.withdrawals.union>;
const COLUMNS: TableColumnsType<UnionItem> = [
  {
    key: 'what',
    title: wording.what,
    width: 170,
    render: (_, { what }) => (
      <>
        <Mark kind={what === 'back' ? 'information' : 'caution'} /> {wording.whatOf[what]}
      </>
    ),
  },
  {
    key: 'title',
    title: wording.title,
    render: (_, { title, what, record }) =>
      what === 'record' ? <bdi>{title}</bdi> : <Link to={`/catalogue/${record}`}>{title}</Link>,
  },
  {
    key: 'place',
    title: wording.stoodAt,
    width: 220,
    render: (_, r) => (
      <>
        {r.callNumber}
        <small className="faded">
          {r.branch} {r.location}
        </small>
      </>
    ),
  },
  { key: 'copies', title: wording.copies, width: 80, align: 'right', dataIndex: 'copies' },
  { key: 'on', title: wording.withdrawn, width: 120, dataIndex: 'withdrawnOn' },
];

/** What the union catalogue is to be told, the notices that were written, and their files. */
export function UnionCatalogue() {
  const { say, complain } = useShell();
  const mayTell = useMay('confirm withdrawals');
  const pages = useInfiniteQuery({
    queryKey: ['union'],
    queryFn: ({ pageParam }): Promise<Page> => call(api.withdrawals.union, { query: { after: pageParam } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next,
  });
  const { data: notices = [] } = useApi(api.withdrawals.tellings);
  const first = pages.data?.pages[0];
  if (!first) return null;
  const total = first.holdings + first.back;
  const write = async () => {
    try {
      const done = await call(api.withdrawals.tellUnion, { body: { holdings: total } });
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const { waiting, refused } = first.loansDesk;
  return (
    <div className="register stack">
      <section aria-label={wording.toBeTold} className="stack">
        <div className="piece-head">
          <div>
            <h2>{wording.toBeTold}</h2>
            <p className="faded">{wording.whatUnionIs}</p>
          </div>
          {mayTell ? (
            <Button type="primary" disabled={total === 0} onClick={() => void write()}>
              {wording.writeNotice}
            </Button>
          ) : null}
        </div>
        <p>
          {total === 0
            ? wording.nothingToTell
            : wording.unionCounts(inWords(first.holdings), inWords(first.records), inWords(first.back))}
        </p>
        {waiting + refused > 0 ? <p className="faded">{wording.loansToTell(waiting, refused)}</p> : null}
        {total > 0 ? (
          <Table
            size="small"
            pagination={false}
            rowKey={(r) => `${r.holding} ${r.what}`}
            columns={COLUMNS}
            dataSource={pages.data?.pages.flatMap((p) => p.rows) ?? []}
            scroll={{ x: 'max-content' }}
          />
        ) : null}
        {pages.hasNextPage ? (
          <Button onClick={() => void pages.fetchNextPage()}>{wording.showMoreRows}</Button>
        ) : null}
      </section>
      <section aria-label={wording.notices}>
        <h2>{wording.notices}</h2>
        {notices.length === 0 ? <p className="faded">{wording.noNotice}</p> : null}
        <ul className="notices">
          {notices.map((n) => (
            <li key={n.id} className="row">
              <span>
                {wording.noticeOf(new Date(n.at).toLocaleString('en-GB', { dateStyle: 'medium' }), n.by)}{' '}
                <span className="faded">
                  {wording.unionCounts(inWords(n.holdings), inWords(n.records), inWords(n.back))}
                </span>
              </span>
              {(['iso2709', 'marcxml'] as const).map((as) => (
                <Button
                  key={as}
                  size="small"
                  icon={<DownloadOutlined />}
                  href={`/api/union-notices/${n.id}/file?as=${as}`}
                >
                  {wording[as]}
                </Button>
              ))}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
