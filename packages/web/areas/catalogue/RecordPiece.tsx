import { api, recordIn } from '@osier/contract';
import { call } from '../../api/call';
import type { Finding } from '@osier/core/checks';
import {
  applyEdits,
  compareRecords,
  differs,
  field,
  placeFor,
  reconciled,
  type Field,
  type MarcRecord,
  type Side,
} from '@osier/core/marc';
import { Button, Input } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { Collisions } from '../../parts/Collisions';
import { Compare } from '../../parts/Compare';
import { FieldView } from '../../parts/FieldView';
import { PutOnPile } from '../../parts/PutOnPile';
import { useDrafts, type Draft } from '../../shell/drafts';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { EntryLine } from '../daybook/EntryLine';
import './record.css';
import { HoldingsOfRecord } from './Shelf';

interface Both {
  readonly version: number;
  readonly value: MarcRecord;
}

/** A record: what stands on the shelf, its fields to read and correct, what happened to it. */
export function RecordPiece({ id, copy, onBack }: { id: number; copy: number | null; onBack: () => void }) {
  const { data: r, error } = useApi(api.records.read, { params: { id } });
  const draft = useDrafts((s) => s.drafts[String(id)]) ?? null;
  const keepDraft = useDrafts((s) => s.keep);
  const setDraft = (next: Draft | null) => keepDraft(id, next);
  const [theirs, setTheirs] = useState<Both | null>(null);
  const [choices, setChoices] = useState<(Side | undefined)[]>([]);
  const { say, complain } = useShell();
  const mayEdit = useMay('edit records');
  const mayPile = useMay('keep piles');
  const [piling, setPiling] = useState(false);
  const piece = useRef<HTMLDivElement>(null);
  const save = async () => {
    if (!draft) return;
    try {
      const done = await call(api.records.save, {
        params: { id },
        body: {
          version: draft.version,
          marc: draft.marc,
        },
      });
      setDraft(null);
      setTheirs(null);
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      const theirs = e instanceof RequestProblem && e.problem.status === 409 ? e.problem.current : null;
      const marc = recordIn(theirs?.value);
      if (theirs && marc) {
        setTheirs({ version: Number(theirs.version), value: marc });
        setChoices([]);
      }
      complain(problemText(e));
    }
  };
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 's' || !event.ctrlKey) return;
      event.preventDefault();
      void latest.current();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  if (error) return <p role="alert">{error.message}</p>;
  if (!r) return null;
  const marc = draft?.marc ?? r.marc;
  const begun = draft ?? { version: r.version, base: r.marc };
  const change = (next: MarcRecord) =>
    setDraft(
      differs(compareRecords(begun.base, next)) || next.leader !== begun.base.leader
        ? { version: begun.version, base: begun.base, marc: next, title: r.brief.title }
        : null,
    );
  const joined = theirs && draft ? reconciled(draft.base, draft.marc, theirs.value) : null;
  const goOn = () => {
    if (!theirs || !draft) return;
    const { record } = reconciled(
      draft.base,
      draft.marc,
      theirs.value,
      choices.map((c) => c ?? 'theirs'),
    );
    setDraft({ ...draft, version: theirs.version, base: theirs.value, marc: record });
    setTheirs(null);
    void refresh();
  };
  const changeField = (at: number, f: Field | null) =>
    change(applyEdits(marc, [f === null ? { op: 'remove', at } : { op: 'replace', at, field: f }]));
  const fix = (finding: Finding) => change(applyEdits(marc, finding.fix!.edits));
  return (
    <div className="stack record-piece" ref={piece}>
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        Back to the list
      </Button>
      <div className="piece-head">
        <div>
          <h2>
            <bdi>{r.brief.title}</bdi>
          </h2>
          <p className="faded">
            <bdi>{r.brief.author}</bdi>
            {[r.brief.publisher, r.brief.year]
              .filter(Boolean)
              .map((x) => ` · ${x}`)
              .join('')}{' '}
            · record {r.id} · {r.brief.material}
          </p>
        </div>
        <span className="row faded">
          {mayPile ? (
            <Button size="small" className="fix" onClick={() => setPiling(true)}>
              Add to pile…
            </Button>
          ) : null}
          Save as <a href={`/api/records/${id}/export?as=iso2709`}>ISO 2709</a>{' '}
          <a href={`/api/records/${id}/export?as=marcxml`}>MARCXML</a>
        </span>
      </div>
      {piling ? (
        <PutOnPile search={{ q: `record ${id}` }} count={1} onClose={() => setPiling(false)} />
      ) : null}
      <HoldingsOfRecord record={r} copy={copy} />
      <div className="row spread">
        <h3>Fields</h3>
        <NewField
          show={mayEdit}
          onAdd={(tag) =>
            change(
              applyEdits(marc, [
                {
                  op: 'insert',
                  at: placeFor(marc, tag),
                  field: /^00/.test(tag) ? { tag, value: '' } : field(tag, '  ', 'a', ''),
                },
              ]),
            )
          }
        />
      </div>
      {draft ? (
        <div className="note caution draft" role="status">
          <div className="row spread">
            <b>Not saved yet.</b>
            <span className="row">
              <Button
                onClick={() => {
                  setDraft(null);
                  setTheirs(null);
                }}
              >
                Discard my changes
              </Button>
              <Button type="primary" onClick={() => void save()}>
                Save the record <kbd>Ctrl S</kbd>
              </Button>
            </span>
          </div>
          <Compare before={draft.base} after={draft.marc} />
        </div>
      ) : null}
      {joined ? (
        <Collisions
          collisions={joined.collisions}
          choices={choices}
          onChoose={(at, side) => setChoices(joined.collisions.map((_, i) => (i === at ? side : choices[i])))}
          onDone={goOn}
          onDiscard={() => {
            setDraft(null);
            setTheirs(null);
            void refresh();
          }}
        />
      ) : null}
      <FieldView
        record={marc}
        findings={draft ? [] : r.findings}
        takenIntoHoldings={r.holdings.length > 0}
        onChange={mayEdit ? changeField : undefined}
        onFix={mayEdit ? fix : undefined}
      />
      {r.headings.length ? (
        <p className="faded">
          Headings:{' '}
          {r.headings.map((h, i) => (
            <span key={h.id}>
              {i ? ' · ' : ''}
              <Link to={`/headings/${h.id}`}>{h.text}</Link>
            </span>
          ))}
        </p>
      ) : null}
      <h3>History</h3>
      <div className="today-done" style={{ background: 'var(--sheet)', border: '1px solid var(--line)' }}>
        {r.history.map((e) => (
          <EntryLine key={e.id} entry={e} />
        ))}
      </div>
    </div>
  );
}

function NewField({ show, onAdd }: { show: boolean; onAdd: (tag: string) => void }) {
  const [tag, setTag] = useState('');
  if (!show) return null;
  const add = () => {
    if (!/^\d{3}$/.test(tag)) return;
    onAdd(tag);
    setTag('');
  };
  return (
    <span className="row">
      <Input
        size="small"
        aria-label="Tag of a new field"
        placeholder="Tag"
        maxLength={3}
        style={{ width: 60 }}
        value={tag}
        onChange={(e) => setTag(e.target.value)}
        onPressEnter={add}
      />
      <Button size="small" onClick={add} disabled={!/^\d{3}$/.test(tag)}>
        Add a field
      </Button>
    </span>
  );
}
