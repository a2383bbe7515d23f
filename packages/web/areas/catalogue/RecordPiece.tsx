import type { RecordDetail } from '@osier/contract';
import type { Finding } from '@osier/core/checks';
import {
  applyEdits,
  compareRecords,
  differs,
  field,
  placeFor,
  type Field,
  type MarcRecord,
} from '@osier/core/marc';
import { Button, Input } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { problemText, put, RequestProblem } from '../../api/request';
import { Compare } from '../../parts/Compare';
import { FieldView } from '../../parts/FieldView';
import { PutOnPile } from '../../parts/PutOnPile';
import { Mark } from '../../parts/Mark';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { EntryLine } from '../daybook/EntryLine';
import './record.css';
import { Shelf } from './Shelf';

interface Draft {
  readonly version: number;
  readonly marc: MarcRecord;
}
interface Both {
  readonly version: number;
  readonly value: MarcRecord;
}

/** A record: what stands on the shelf, its fields to read and correct, what happened to it. */
export function RecordPiece({ id, copy, onBack }: { id: number; copy: number | null; onBack: () => void }) {
  const { data: r, error } = useApi<RecordDetail>(`/records/${id}`);
  const [draft, setDraft] = useState<Draft | null>(null);
  const [theirs, setTheirs] = useState<Both | null>(null);
  const { say, complain } = useShell();
  const mayEdit = useMay('edit records');
  const mayPile = useMay('keep piles');
  const [piling, setPiling] = useState(false);
  const piece = useRef<HTMLDivElement>(null);
  const save = async () => {
    if (!draft) return;
    try {
      const done = await put<{ entry: number; sentence: string }>(`/records/${id}`, {
        version: draft.version,
        marc: draft.marc,
      });
      setDraft(null);
      setTheirs(null);
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem && e.problem.status === 409 && e.problem.current)
        setTheirs(e.problem.current as Both);
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
  const change = (next: MarcRecord) =>
    setDraft(
      differs(compareRecords(r.marc, next)) || next.leader !== r.marc.leader
        ? { version: draft?.version ?? r.version, marc: next }
        : null,
    );
  const changeField = (at: number, f: Field | null) =>
    change(applyEdits(marc, [f === null ? { op: 'remove', at } : { op: 'replace', at, field: f }]));
  const fix = (finding: Finding) => change(applyEdits(marc, finding.fix!.edits));
  return (
    <div className="stack record-piece" ref={piece}>
      <button className="fix only-narrow" onClick={onBack}>
        Back to the list
      </button>
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
            <button className="fix" onClick={() => setPiling(true)}>
              Put on a pile…
            </button>
          ) : null}
          Save as <a href={`/api/records/${id}/export?as=iso2709`}>ISO 2709</a>{' '}
          <a href={`/api/records/${id}/export?as=marcxml`}>MARCXML</a>
        </span>
      </div>
      {piling ? (
        <PutOnPile search={{ q: `record ${id}` }} count={1} onClose={() => setPiling(false)} />
      ) : null}
      <Shelf record={r} copy={copy} />
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
                Drop my changes
              </Button>
              <Button type="primary" onClick={() => void save()}>
                Save the record <kbd>Ctrl S</kbd>
              </Button>
            </span>
          </div>
          <Compare before={r.marc} after={draft.marc} />
        </div>
      ) : null}
      {theirs && draft ? (
        <div className="note stop" role="alert">
          <p>
            <Mark kind="stop" /> Somebody saved this record while you worked on it. Nothing of yours was lost.
            This is how your version differs from theirs:
          </p>
          <Compare before={theirs.value} after={draft.marc} />
          <div className="row">
            <Button
              onClick={() => {
                setDraft({ version: theirs.version, marc: draft.marc });
                setTheirs(null);
                void refresh();
              }}
            >
              Go on with mine
            </Button>
            <Button
              onClick={() => {
                setDraft(null);
                setTheirs(null);
                void refresh();
              }}
            >
              Take theirs
            </Button>
          </div>
        </div>
      ) : null}
      <FieldView
        record={marc}
        findings={draft ? [] : r.findings}
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
      <h3>What happened to it</h3>
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
