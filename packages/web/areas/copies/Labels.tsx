import { api, copySearchBody, LAST_PRINT, type LabelsBody, type LabelsPreview } from '@osier/contract';
import {
  LABEL_CODES,
  LABEL_KINDS,
  LABEL_SHEETS,
  labelSheetProblems,
  type LabelSheet,
} from '@osier/core/labels';
import { useQuery } from '@tanstack/react-query';
import { Button, Input, InputNumber, Select } from 'antd';
import dayjs from 'dayjs';
import { lazy, Suspense, useDeferredValue, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { call } from '../../api/call';
import { download } from '../../api/download';
import { problemText } from '../../api/request';
import { AreaHead } from '../../parts/AreaHead';
import { KitField, KitGrid, KitSection } from '../../parts/form/KitField';
import { when } from '../../parts/when';
import { Mark } from '../../parts/Mark';
import { useShell } from '../../shell/shell-store';
import { filtersIn } from './CopyFilters';
import { SHEET_LENGTHS, SheetChoice } from './SheetChoice';
import './labels.css';
import { copiesWords as wording } from './words';

const DateField = lazy(() => import('../../parts/form/DateField'));

const KEPT = 'osier-label-sheet';
/** Kinds of labels for copies that are there. */
const OF_COPIES = LABEL_KINDS.filter((kind) => kind !== 'withdrawn');
const partsOf = (kept: unknown): Readonly<Record<string, unknown>> =>
  typeof kept === 'object' && kept !== null ? { ...kept } : {};
function isSheet(kept: unknown): kept is LabelSheet {
  const parts = partsOf(kept);
  return typeof parts.name === 'string' && SHEET_LENGTHS.every((l) => typeof parts[l] === 'number');
}

/** What was chosen last in this browser: the sheet, the kind and the code. */
function lastChosen(): Pick<LabelsBody, 'sheet' | 'kind' | 'code'> {
  const begin = { sheet: LABEL_SHEETS[0]!, kind: 'spine' as const, code: 'code128' as const };
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? 'null');
    const { sheet, kind, code } = { sheet: null, kind: null, code: null, ...partsOf(kept) };
    return {
      sheet: isSheet(sheet) ? sheet : begin.sheet,
      kind: OF_COPIES.find((k) => k === kind) ?? begin.kind,
      code: LABEL_CODES.find((c) => c === code) ?? begin.code,
    };
  } catch {
    return begin;
  }
}

/** Where the labels were asked for. */
function backTo({
  list,
  record,
  pile,
  delivery,
  since,
}: Pick<LabelsBody, 'list' | 'record' | 'pile' | 'delivery' | 'since'>): string {
  if (since) return '/copies/all';
  if (list) return `/withdrawals/${list}`;
  if (record) return `/catalogue/${record}`;
  if (delivery) return `/deliveries/${delivery}`;
  return pile ? `/copies/${pile}` : '/copies';
}

/** Prints labels of the copies of a record, of a pile, of a delivery, of a search or of some copies, or of what a list has withdrawn: kind and sheet are chosen, the page is seen as it will come. */
export default function Labels() {
  const [query] = useSearchParams();
  const [record, pile, list, delivery] = ['record', 'pile', 'list', 'delivery'].map(
    (name) => Number(query.get(name)) || undefined,
  );
  const copies = query.get('copies')?.split(',').map(Number).filter(Boolean);
  const found = query.get('found') === 'yes' ? copySearchBody.cast(filtersIn(query)) : undefined;
  const [day, setDay] = useState('');
  const since = query.get('since') === null ? undefined : day ? dayjs(day).toISOString() : LAST_PRINT;
  const [chosen, setChosen] = useState(lastChosen);
  const [startAt, setStartAt] = useState(1);
  const { say, complain } = useShell();
  const { sheet, code } = chosen;
  const kind = list ? ('withdrawn' as const) : chosen.kind;
  const wrong = labelSheetProblems(sheet);
  const of = { record, pile, delivery, found, copies, list, since };
  const body = useDeferredValue({ kind, code, sheet, startAt, ...of });
  const preview = useQuery({
    queryKey: ['review', 'labels', body],
    queryFn: () => call(api.labels.preview, { body }),
    enabled: wrong.length === 0,
    placeholderData: (before) => before,
    retry: false,
  });
  const choose = (part: Partial<typeof chosen>) => {
    const next = { ...chosen, ...part };
    setChosen(next);
    localStorage.setItem(KEPT, JSON.stringify(next));
  };
  const data = preview.data;
  const problem = wrong[0]?.message ?? (preview.error ? problemText(preview.error) : null);
  const print = async () => {
    try {
      await download(api.labels.print.path, body, 'labels.pdf');
      // What was printed is not shown as still to be printed, unless the day is given again.
      if (since) say(wording.printedUpToNow);
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <>
      <AreaHead
        name={wording.copies}
        state={data ? wording.labelsOnPages(data.count, data.pages) : (problem ?? '…')}
      >
        <Link to={backTo(of)}>{wording.backFromLabels}</Link>
        <Button
          type="primary"
          data-key="p"
          disabled={problem !== null || !data?.count}
          onClick={() => void print()}
        >
          {wording.saveLabelsAsPdf}
        </Button>
      </AreaHead>
      <div className="labels-page">
        <div className="stack labels-form" role="group" aria-label={wording.labels}>
          <KitSection
            title={wording.labels}
            intro={
              list
                ? wording.labelsOfWithdrawn
                : since && data?.since
                  ? wording.madeSince(when(data.since))
                  : undefined
            }
          >
            <KitGrid isDense>
              {since ? (
                <KitField label={wording.copiesMadeFrom} help={wording.emptyForLastPrint}>
                  <Suspense fallback={<Input disabled />}>
                    <DateField value={day} onChange={setDay} />
                  </Suspense>
                </KitField>
              ) : null}
              {list ? null : (
                <KitField label={wording.labelKind}>
                  <Select
                    value={kind}
                    options={OF_COPIES.map((value) => ({ value, label: wording.labelKinds[value] }))}
                    onChange={(value) => choose({ kind: value })}
                  />
                </KitField>
              )}
              {kind === 'spine' || kind === 'withdrawn' ? null : (
                <KitField label={wording.barcodeIsPrintedAs}>
                  <Select
                    value={code}
                    options={LABEL_CODES.map((value) => ({ value, label: wording.labelCodes[value] }))}
                    onChange={(value) => choose({ code: value })}
                  />
                </KitField>
              )}
              <KitField label={wording.beginAtLabel} help={wording.labelsUsedAlready}>
                <InputNumber
                  min={1}
                  max={sheet.columns * sheet.rows}
                  controls={false}
                  style={{ width: '100%' }}
                  value={startAt}
                  onChange={(n) => setStartAt(n ?? 1)}
                />
              </KitField>
            </KitGrid>
          </KitSection>
          <SheetChoice sheet={sheet} onSheet={(next) => choose({ sheet: next })} />
          {data?.problems.length ? (
            <div className="note caution" role="alert">
              <b>
                <Mark kind="caution" /> {wording.labelsDoNotFit(data.problems.length)}
              </b>
              <ul>
                {data.problems.slice(0, 20).map((p) => (
                  <li key={p.copy}>
                    <Link to={`/catalogue/${p.record ?? ''}?copy=${p.copy}`}>{p.barcode}</Link> {p.message}
                  </li>
                ))}
              </ul>
            </div>
          ) : null}
          {problem ? (
            <p className="field-problem" role="alert">
              {problem}
            </p>
          ) : null}
        </div>
        {data ? <Page sheet={sheet} labels={data.labels} /> : null}
      </div>
    </>
  );
}

const POINT = 25.4 / 72;

/** The first page as it will be printed. */
function Page({ sheet, labels }: { sheet: LabelSheet; labels: LabelsPreview['labels'] }) {
  const places = Array.from({ length: sheet.columns * sheet.rows }, (_, i) => ({
    x: sheet.left + (i % sheet.columns) * (sheet.width + sheet.gapX),
    y: sheet.top + Math.floor(i / sheet.columns) * (sheet.height + sheet.gapY),
  }));
  return (
    <svg
      className="label-page"
      role="img"
      aria-label={wording.firstPage}
      viewBox={`0 0 ${sheet.pageWidth} ${sheet.pageHeight}`}
    >
      {places.map((p) => (
        <rect
          key={`${p.x} ${p.y}`}
          className="label-place"
          {...p}
          width={sheet.width}
          height={sheet.height}
          rx={1}
        />
      ))}
      {labels.map((l) => (
        <g key={`${l.x} ${l.y}`}>
          {l.bars.map((b) => (
            <rect key={b.x} {...b} />
          ))}
          {l.texts.map((t, i) => (
            <text key={i} x={t.x} y={t.y} fontSize={t.size * POINT}>
              {t.text}
            </text>
          ))}
        </g>
      ))}
    </svg>
  );
}
