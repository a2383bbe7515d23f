import { Button, Radio } from 'antd';
import { api } from '@osier/contract';
import { call } from '../../api/call';
import type { ProposedCopy } from '@osier/core/holdings';
import { needsTarget, OUTCOME_NAMES, OUTCOMES, type Outcome } from '@osier/core/matching';
import { differs, compareRecords, type MarcRecord } from '@osier/core/marc';
import type { KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { useAddress } from '../../parts/use-address';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Compare } from '../../parts/Compare';
import { SideBySide } from '../../parts/SideBySide';
import { PageButtons } from '../../parts/PageButtons';
import { FieldView } from '../../parts/field-editor/FieldView';
import { Mark } from '../../parts/Mark';
import { DraftNote } from '../../parts/record-draft/DraftNote';
import { FieldsHead } from '../../parts/record-draft/FieldsHead';
import { useHistories } from '../../parts/record-draft/edit-histories';
import { draftNow, useRecordDraft } from '../../parts/record-draft/use-record-draft';
import { useSaveKey } from '../../parts/record-draft/use-save-key';
import { IncomingNote } from './IncomingNote';
import { KeepRecipe } from './KeepRecipe';
import { Matches } from './Matches';
import { ProposedCopies } from './ProposedCopies';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { deliveriesWords as wording } from './words';

/** Bytes that were kept apart, controls as dots. */
const printable = (base64: string) =>
  atob(base64)
    .replace(/[^ -~]/g, '·')
    .slice(0, 400);

/** Arrow keys go from one choice to the next and choose nothing: Space does, so that passing by writes no entry. */
function moveAmongChoices(event: KeyboardEvent<HTMLFieldSetElement>) {
  const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
  if (step === undefined) return;
  event.preventDefault();
  const all = [...event.currentTarget.querySelectorAll<HTMLInputElement>('input:not(:disabled)')];
  const at = all.findIndex((i) => i === document.activeElement);
  all[(at + step + all.length) % all.length]?.focus();
}

const VIEWS = ['fields', 'beside', 'becomes', 'cleaned'] as const;
type View = (typeof VIEWS)[number];

/** One incoming record: what is done with it, what is held, its findings and repairs, its fields. */
export function IncomingPiece({
  delivery,
  id,
  onBack,
}: {
  delivery: number;
  id: number;
  onBack: () => void;
}) {
  const { data: r, error } = useApi(api.deliveries.readIncoming, { params: { id: delivery, incoming: id } });
  const key = `incoming ${id}`;
  const edit = useRecordDraft(key, r ? { ...r, path: `/deliveries/${delivery}?record=${id}` } : null);
  const done = useHistories((s) => s.saved[key]);
  const [query, changeAddress] = useAddress();
  const view = VIEWS.find((v) => v === query.get('view')) ?? 'fields';
  const setView = (next: View) => changeAddress({ view: next });
  const { say, complain } = useShell();
  const mayTake = useMay('take in deliveries');
  const change = async (
    part: { marc?: MarcRecord; copies?: ProposedCopy[]; note?: string },
    version = r?.version ?? 0,
  ) => {
    try {
      const done = await call(api.deliveries.saveIncoming, {
        params: { id: delivery, incoming: id },
        body: { version, ...part },
      });
      say(done.sentence, done.entry);
      if (part.marc) {
        const kept = draftNow(key);
        if (kept) useHistories.getState().save(key, kept.base);
        edit.set(null);
      }
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const save = () => {
    const now = draftNow(key);
    if (now) void change({ marc: now.marc }, now.version);
    else say(wording.thereIsNothingToSave);
  };
  useSaveKey(save);
  if (error) return <p role="alert">{error.message}</p>;
  if (!r) return null;
  const decide = async (
    decision: Outcome,
    target: number | null = r.target ?? r.matches[0]?.record ?? null,
  ) => {
    try {
      const done = await call(api.deliveries.decide, {
        params: { id: delivery },
        body: {
          incoming: [id],
          decision,
          target,
        },
      });
      say(`${r.title}: ${OUTCOME_NAMES[decision]}`, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const mayChange = mayTake && r.state === 'waiting';
  const held = r.held.find((h) => h.id === r.target) ?? r.held[0];
  const cleaned = r.recipe !== null && differs(compareRecords(r.original, r.marc));
  const possible: Record<View, boolean> = {
    fields: true,
    beside: held !== undefined || cleaned,
    becomes: r.becomes !== null,
    cleaned,
  };
  const shown = possible[view] ? view : 'fields';
  const columns = [
    { name: cleaned ? wording.asInTheFile : 'incoming', record: r.original },
    ...(cleaned ? [{ name: 'cleaned', record: r.marc }] : []),
    ...(held ? [{ name: wording.recordHeld(held.id), record: held.marc }] : []),
  ];
  return (
    <div className="stack">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <div className="piece-head">
        <div>
          <h2>{r.title}</h2>
          <p className="faded">
            {wording.noInTheFile(
              [r.author, r.year, r.isbn && wording.isbn(r.isbn)].filter(Boolean).join(' · '),
              r.seq,
            )}
          </p>
        </div>
        {r.state === 'waiting' && mayTake ? (
          <fieldset
            className="decisions"
            style={{ border: 0, padding: 0, margin: 0 }}
            onKeyDown={moveAmongChoices}
          >
            <legend className="unseen">{wording.decision}</legend>
            {OUTCOMES.filter((o) => o !== 'ask' || !r.chosen || r.decision === 'ask').map((value) => (
              <Radio
                key={value}
                name="decision"
                checked={r.decision === value}
                disabled={
                  (needsTarget(value) && r.target === null && r.matches.length === 0) ||
                  (value === 'copies' && r.proposedCopies.length === 0)
                }
                onChange={() => void decide(value)}
              >
                {value === 'ask' ? wording.decideLater : OUTCOME_NAMES[value]}
                {value === 'replace' && r.target ? ` ${r.target}` : ''}
              </Radio>
            ))}
          </fieldset>
        ) : (
          <span className="said-decision">
            {r.state === 'accepted' ? (
              <Link to={`/catalogue/${r.record}`}>
                {wording.record4} {r.record} {wording.inTheCatalogue2}
              </Link>
            ) : (
              r.state
            )}
          </span>
        )}
      </div>
      <Matches
        incoming={r}
        onPair={
          mayChange
            ? (record) => void decide(needsTarget(r.decision) ? r.decision : 'ask', record)
            : undefined
        }
      />
      {r.repeats ? (
        <p className="note caution">
          <Mark kind="caution" /> {wording.duplicateInThisDeliveryNo(r.repeats)}
        </p>
      ) : null}
      <ProposedCopies incoming={r} onChange={mayChange ? (copies) => void change({ copies }) : undefined} />
      <IncomingNote note={r.note} onKeep={mayChange ? (note) => void change({ note }) : undefined} />
      {r.repairList.length ? (
        <details className="note caution" open>
          <summary>
            <Mark kind="caution" /> {wording.repairedInReading4(r.repairList.length)}
          </summary>
          <ul className="repairs">
            {r.repairList.map((x, i) => (
              <li key={i}>
                {x.message} <span className="faded">{wording.atByte(x.offset.toLocaleString('en-GB'))}</span>
                {x.bytes ? <code className="kept-bytes">{printable(x.bytes)}</code> : null}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      <PageButtons
        label={wording.show}
        pages={[
          ['fields', wording.fields],
          ...(possible.beside ? ([['beside', wording.sideBySide]] as const) : []),
          ...(r.becomes && held ? ([['becomes', wording.whatRecordBecomes(held.id)]] as const) : []),
          ...(cleaned ? ([['cleaned', wording.whatCleaningChanged]] as const) : []),
        ]}
        chosen={shown}
        onChoose={setView}
      />
      {shown === 'beside' ? (
        <SideBySide columns={columns} />
      ) : shown === 'becomes' && held && r.becomes ? (
        <Compare before={held.marc} after={r.becomes} showSame />
      ) : shown === 'cleaned' ? (
        <>
          {mayChange ? (
            <KeepRecipe delivery={delivery} incoming={r.id} original={r.original} marc={r.marc} done={done} />
          ) : null}
          <Compare before={r.original} after={r.marc} showSame />
        </>
      ) : (
        <>
          <FieldsHead edit={edit} mayEdit={mayChange} />
          {edit.draft ? (
            <DraftNote draft={edit.draft} onSave={save} onDiscard={() => edit.set(null)} />
          ) : null}
          <FieldView record={edit.marc} findings={edit.findings} edit={mayChange ? edit : undefined} />
        </>
      )}
    </div>
  );
}
