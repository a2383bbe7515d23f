import { api, type StocktakeReport } from '@osier/contract';
import type { StockFindingKind } from '@osier/core/stocktake';
import { groupedBarcode } from '@osier/core/barcodes';
import { DownloadOutlined, PrinterOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';
import { useApi } from '../../api/queries';
import { LazyBars } from '../../parts/charts/LazyBars';
import '../../parts/report.css';
import { CompareReports } from './CompareReports';
import { useFindings } from './use-findings';
import { stocktakeWords as wording } from './words';
import { inWords } from '../../parts/format';

const SHOWN = ['stood', 'missing', 'skipped', 'on loan', 'seen since', 'other'] as const;
/** What a stocktake found, to be read and printed: as it stands, or as it was kept when it was closed. */
export default function Report() {
  const id = Number(useParams().id);
  const { data: s } = useApi(api.stocktakes.read, { params: { id } });
  const { data: report } = useApi(api.stocktakes.report, { params: { id } });
  if (!s || !report) return null;
  const { name, closedOn } = s.stocktake;
  return (
    <div className="report">
      <div className="piece-head">
        <div>
          <h1>{wording.reportOf(name)}</h1>
          <p className="faded">
            {s.placeName} · {closedOn ? wording.closedReport(closedOn) : wording.openReport}
          </p>
        </div>
        <span className="row no-print">
          <Link to={`/stocktake/${id}`}>{wording.backToTheStocktake}</Link>
          <Button icon={<PrinterOutlined />} onClick={() => window.print()}>
            {wording.print}
          </Button>
          <Button icon={<DownloadOutlined />} href={`/api/stocktakes/${id}/export?of=copies`}>
            {wording.allCopiesAsCsv}
          </Button>
          <Button icon={<DownloadOutlined />} href={`/api/stocktakes/${id}/export?of=findings`}>
            {wording.findingsAsCsv}
          </Button>
        </span>
      </div>
      <p>
        {wording.missingOfHundred(String(report.lossRate))}{' '}
        {report.lastTime
          ? wording.lastTime(report.lastTime.name, report.lastTime.closedOn, String(report.lastTime.lossRate))
          : ''}
      </p>
      <Coverage report={report} />
      <OutcomeTable caption={wording.byLocation} of={wording.location} rows={report.locations} />
      <OutcomeTable caption={wording.byClass} of={wording.class_} rows={report.classes} />
      <People report={report} />
      <CompareReports id={id} report={report} />
      <FindingList id={id} kind="missing" title={wording.slipList} />
      <FindingList id={id} kind="misplaced" title={wording.kinds.misplaced} />
      <FindingList id={id} kind="elsewhere" title={wording.carryList} />
    </div>
  );
}

function Coverage({ report: { classes } }: { report: StocktakeReport }) {
  if (classes.length < 2) return null;
  const of = (names: readonly string[]) =>
    classes.map((c) => names.reduce((n, name) => n + (c.outcomes[name] ?? 0), 0));
  return (
    <LazyBars
      caption={wording.coverage}
      of={wording.class_}
      names={classes.map((c) => c.name)}
      series={[
        { name: wording.outcomes.stood, values: of(['stood']), colour: '--willow' },
        { name: wording.outcomes.missing, values: of(['missing']), colour: '--ochre' },
        { name: wording.outcomes.skipped, values: of(['skipped']), colour: '--woad' },
      ]}
      isUpright
    />
  );
}

function OutcomeTable({
  caption,
  of,
  rows,
}: {
  caption: string;
  of: string;
  rows: StocktakeReport['classes'];
}) {
  if (rows.length === 0) return null;
  const sum = (name: string) => rows.reduce((n, r) => n + (r.outcomes[name] ?? 0), 0);
  return (
    <section>
      <h2>{caption}</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>{of}</th>
            {SHOWN.map((name) => (
              <th key={name} className="num">
                {wording.outcomes[name]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.name}>
              <td>{r.name}</td>
              {SHOWN.map((name) => (
                <td key={name} className="num">
                  {inWords(r.outcomes[name] ?? 0)}
                </td>
              ))}
            </tr>
          ))}
          <tr className="total">
            <th scope="row">{wording.total}</th>
            {SHOWN.map((name) => (
              <td key={name} className="num">
                {inWords(sum(name))}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </section>
  );
}

function People({ report: { people } }: { report: StocktakeReport }) {
  if (people.length === 0) return null;
  return (
    <section>
      <h2>{wording.byWhoScanned}</h2>
      <table className="plain narrow">
        <thead>
          <tr>
            <th>{wording.who}</th>
            <th className="num">{wording.scansHead}</th>
          </tr>
        </thead>
        <tbody>
          {people.map((p) => (
            <tr key={p.name}>
              <td>{p.name}</td>
              <td className="num">{inWords(p.scans)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** So many findings of a kind are shown to be printed. */
const PRINTED = 3000;

/** Findings of one kind in shelf order, to be taken along to the shelf: page by page until all are there. */
function FindingList({ id, kind, title }: { id: number; kind: StockFindingKind; title: string }) {
  const { data, hasNextPage, isFetching, fetchNextPage } = useFindings(id, kind);
  const rows = data?.pages.flatMap((p) => p.rows) ?? [];
  const isMore = hasNextPage && rows.length < PRINTED;
  useEffect(() => {
    if (isMore && !isFetching) void fetchNextPage();
  }, [isMore, isFetching, fetchNextPage]);
  if (rows.length === 0) return null;
  return (
    <section>
      <h2>{title}</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.callNumber}</th>
            <th>{wording.title}</th>
            <th>{wording.barcode}</th>
            <th>{wording.findingsHead}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((f) => (
            <tr key={f.code}>
              <td className="mono">{f.callNumber}</td>
              <td>{f.title}</td>
              <td className="mono">{groupedBarcode(f.code)}</td>
              <td>
                {f.settled
                  ? wording.settledBy(wording.settledAs[f.settled.how], f.settled.on, f.settled.by)
                  : f.message}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {hasNextPage ? (
        <p className="faded" role="status">
          {(isMore ? wording.readingOn : wording.upToRows)(inWords(rows.length))}
        </p>
      ) : null}
    </section>
  );
}
