import { api, type AlikeRow } from '@osier/contract';
import { readIsbn } from '@osier/core/access';
import { isTakenField } from '@osier/core/holdings';
import type { MarcRecord } from '@osier/core/marc';
import { withoutCover } from '@osier/core/neighbours';
import { Button, Select } from 'antd';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { FieldView } from '../../parts/field-editor/FieldView';
import { FieldsHead } from '../../parts/record-draft/FieldsHead';
import { useLiveFindings } from '../../parts/record-draft/live-findings';
import { draftNow, useRecordDraft } from '../../parts/record-draft/use-record-draft';
import { useSaveKey } from '../../parts/record-draft/use-save-key';
import { useHouse } from '../../parts/use-house';
import { useMyBranch } from '../../shell/my-branch';
import { useTakesScans } from '../../shell/scan-target';
import { useShell } from '../../shell/shell-store';
import { SaveCheck } from '../catalogue/SaveCheck';
import { CopyGrid } from '../catalogue/shelf/CopyGrid';
import {
  bodyOf,
  cellProblems,
  rowLike,
  withScan,
  type GridColumn,
  type GridRow,
} from '../catalogue/shelf/copy-grid';
import { KeepBarcodes } from '../catalogue/shelf/KeepBarcodes';
import { RollChoice } from '../catalogue/shelf/RollChoice';
import { TakeFields } from '../catalogue/TakeFields';
import { useSetUp } from '../setup/use-set-up';
import { useAsking } from './asking-store';
import type { BookCandidate } from './candidates';
import { firstCopy, followedOffers, keepCommon } from './copy-rows';
import { neighboursWords as wording } from './words';

const SHOWN: readonly GridColumn[] = ['branch', 'location', 'class', 'item', 'type', 'price', 'barcode'];

/** What the server made of a record before it is saved. */
interface Prepared {
  readonly marc: MarcRecord;
  readonly notes: readonly string[];
  readonly alike: readonly AlikeRow[];
}

/** A record that is copied: what it becomes here, its copies, and saving both as one. */
export function CopyPiece(props: {
  candidate: BookCandidate;
  others: readonly BookCandidate[];
  /** Where this piece is found again. */
  path: string;
  onBack: () => void;
  onCopied: () => void;
}) {
  const { candidate } = props;
  const [prepared, setPrepared] = useState<Prepared | null>(null);
  const complain = useShell((s) => s.complain);
  const house = useHouse();
  const hasLists = useSetUp() !== undefined;
  const isCoverWrong = useAsking((s) => s.wrongCovers.includes(candidate.key));
  const { record } = candidate;
  const marc = useMemo(
    () => (isCoverWrong ? withoutCover(record.marc) : record.marc),
    [record, isCoverWrong],
  );
  useEffect(() => {
    let isLeft = false;
    call(api.neighbours.prepare, { body: { marc } })
      .then((answer) => !isLeft && setPrepared(answer))
      .catch((e: unknown) => !isLeft && complain(problemText(e)));
    return () => {
      isLeft = true;
    };
  }, [marc, complain]);
  if (!prepared || !house || !hasLists) return null;
  return <Copying {...props} prepared={prepared} />;
}

function Copying({
  candidate,
  others,
  path,
  onBack,
  onCopied,
  prepared,
}: Parameters<typeof CopyPiece>[0] & { prepared: Prepared }) {
  const { neighbour, facts } = candidate;
  const lists = useSetUp()!.lists.value;
  const house = useHouse()!;
  const [mine] = useMyBranch();
  const { say, complain } = useShell();
  const key = `copy of ${neighbour.id} ${facts.isbns[0] ?? facts.title}`;
  const live = useLiveFindings({ marc: prepared.marc, findings: [] }, prepared.marc);
  const edit = useRecordDraft(key, {
    version: 0,
    marc: prepared.marc,
    findings: live.findings,
    title: facts.title,
    path,
  });
  // The control number is given when it is saved.
  const findings = edit.findings.filter((f) => f.rule !== 'control-number');
  const branch = mine || (lists.branches[0]?.code ?? '');
  const [rows, setRows] = useState<readonly GridRow[]>(() => [
    firstCopy(prepared.marc, house, {
      branch,
      location: lists.locations.find((l) => l.branch === branch)?.code ?? '',
      type: lists.types[0]?.code ?? '',
    }),
  ]);
  const [roll, setRoll] = useState<number | null>(null);
  const [keep, setKeep] = useState<boolean | null>(null);
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const [asking, setAsking] = useState<{
    readonly with: readonly GridRow[];
    readonly problems: readonly string[];
  } | null>(null);
  const [from, setFrom] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const grid = useRef<HTMLTableElement>(null);
  const latest = useRef(rows);
  const put = useCallback((next: readonly GridRow[]) => {
    latest.current = next;
    setRows(next);
    setProblems({});
    setKeep(null);
  }, []);
  const focus = useCallback((row: number, column: GridColumn) => {
    setTimeout(() =>
      grid.current?.querySelector<HTMLInputElement>(`[data-cell="${row} ${column}"] input`)?.select(),
    );
  }, []);
  useEffect(() => focus(0, 'barcode'), [focus]);
  const send = async (copies: readonly GridRow[], isMeant: boolean) => {
    if (isSending) return;
    const marc = draftNow(key)?.marc ?? prepared.marc;
    const { noNumberTyped: noNumber } = wording;
    const { body, problems: own } = bodyOf(1, copies, { roll, keepBarcodes: keep === true }, { noNumber });
    setProblems(own);
    if (Object.keys(own).length) return;
    const errors = findings.filter((f) => f.severity === 'error').map((f) => f.message);
    if (!isMeant && (prepared.alike.length || errors.length))
      return setAsking({ with: copies, problems: errors });
    setSending(true);
    try {
      const done = await call(api.neighbours.copy, {
        body: {
          neighbour: neighbour.id,
          marc,
          withErrors: isMeant,
          despite: isMeant ? prepared.alike.map((a) => a.record) : [],
          ...{ rows: body.rows, roll, keepBarcodes: body.keepBarcodes },
        },
      });
      const last = copies.at(-1);
      if (last) keepCommon(last);
      edit.set(null);
      say(done.sentence, done.entry);
      onCopied();
      await refresh();
    } catch (e) {
      const cells = e instanceof RequestProblem ? cellProblems(e.problem.fields ?? []) : {};
      setProblems(cells);
      setKeep(e instanceof RequestProblem && e.isOverrulable ? keep === true : null);
      const [first] = Object.keys(cells);
      if (first) {
        setAsking(null);
        focus(Number(first.split('.')[0]), 'barcode');
      } else if (!isMeant) setAsking({ with: copies, problems: [problemText(e)] });
      else complain(problemText(e));
    } finally {
      setSending(false);
    }
  };
  const refused = useRef(problems);
  const sending = useRef(send);
  useEffect(() => {
    sending.current = send;
    refused.current = problems;
  });
  const scan = useCallback(
    (code: string) => {
      if (readIsbn(code)?.isbn13) return complain(wording.finishThisBook);
      const next = withScan(withoutRefused(latest.current, refused.current), code);
      put(next.rows);
      if (next.rows.every((r) => r.barcode !== '')) void sending.current(next.rows, false);
      else focus(next.at + 1, 'barcode');
    },
    [put, focus, complain],
  );
  useTakesScans(wording.theNewCopies, scan);
  const down = (row: number, column: GridColumn) => {
    if (row + 1 < rows.length) return focus(row + 1, column);
    if (column === 'barcode' && rows.every((r) => r.barcode !== '')) void send(rows, false);
  };
  useSaveKey(() => void send(rows, false));
  const other = others.find((o) => o.key === from);
  return (
    <div className="stack record-piece copy-piece">
      <div className="piece-head">
        <div>
          <h2>
            <bdi>{facts.title}</bdi>
          </h2>
          <p className="faded">{wording.copying(neighbour.neighbour.name)}</p>
        </div>
        <Button onClick={onBack}>{wording.backToTheBook}</Button>
      </div>
      {prepared.notes.map((note) => (
        <p key={note} className="note">
          {note}.
        </p>
      ))}
      {asking ? (
        <SaveCheck
          alike={prepared.alike}
          problems={asking.problems}
          onCancel={() => setAsking(null)}
          onSave={() => void send(asking.with, true)}
        />
      ) : null}
      <section aria-label={wording.copies} className="stack">
        <div className="row spread">
          <h3>{wording.copies}</h3>
          <span className="faded">{wording.lastScanSaves}</span>
        </div>
        <CopyGrid
          rows={rows}
          shown={SHOWN}
          lists={lists}
          problems={problems}
          hasRoll={roll !== null}
          grid={grid}
          onRows={(next) => put(followedOffers(rows, next, edit.marc, house))}
          onDown={down}
        />
        {keep === null ? null : <KeepBarcodes keep={keep} onKeep={setKeep} />}
        <div className="kit-bar">
          <Button type="primary" loading={isSending} onClick={() => void send(rows, false)}>
            {wording.saveWithCopies(rows.length)} <kbd>Ctrl S</kbd>
          </Button>
          <Button
            onClick={() => {
              put([...rows, rowLike(rows.at(-1)!)]);
              focus(rows.length, 'barcode');
            }}
          >
            {wording.addARow}
          </Button>
          <RollChoice copy={rows[0]} roll={roll} onRoll={setRoll} />
          <Button className="kit-far" onClick={() => void send([], false)}>
            {wording.saveAlone}
          </Button>
        </div>
      </section>
      <FieldsHead edit={edit} mayEdit />
      {others.length ? (
        <Select<string | null>
          aria-label={wording.takeFieldsFrom}
          placeholder={wording.takeFieldsFrom}
          popupMatchSelectWidth={false}
          value={from}
          allowClear
          onChange={(next) => setFrom(next ?? null)}
          options={others.map((o) => ({
            value: o.key,
            label: [o.neighbour.neighbour.name, o.facts.edition, o.facts.year].filter(Boolean).join(', '),
          }))}
        />
      ) : null}
      {other ? (
        <TakeFields
          from={other.record.marc}
          edit={edit}
          verb={wording.take}
          same={wording.theyAreTheSame}
          isTakeable={(pair) => !isTakenField(pair.change === 'changed' ? pair.after.tag : pair.field.tag)}
        />
      ) : null}
      <FieldView record={edit.marc} findings={findings} edit={edit} />
    </div>
  );
}

/** The rows without the barcodes that were refused, so that the next scan takes the place of one. */
const withoutRefused = (
  rows: readonly GridRow[],
  problems: Readonly<Record<string, string>>,
): readonly GridRow[] => rows.map((row, i) => (problems[`${i}.barcode`] ? { ...row, barcode: '' } : row));
