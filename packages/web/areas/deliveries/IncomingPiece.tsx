import type { Done, IncomingDetail } from '@osier/contract';
import type { Finding } from '@osier/core/checks';
import { applyEdits, differs, compareRecords, type MarcRecord } from '@osier/core/marc';
import { useState } from 'react';
import { Link } from 'react-router';
import { refresh, useApi } from '../../api/queries';
import { post, problemText, put } from '../../api/request';
import { Compare } from '../../parts/Compare';
import { FieldView } from '../../parts/FieldView';
import { Mark } from '../../parts/Mark';
import { KeepRecipe } from './KeepRecipe';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

const DECISIONS = [
  ['add', 'Add as new'],
  ['replace', 'Replace'],
  ['skip', 'Skip'],
] as const;

/** Bytes that were kept apart, controls as dots. */
const printable = (base64: string) =>
  atob(base64)
    .replace(/[^ -~]/g, '·')
    .slice(0, 400);

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
  const { data: r, error } = useApi<IncomingDetail>(`/deliveries/${delivery}/incoming/${id}`);
  const [view, setView] = useState<'fields' | 'held' | 'cleaned'>('fields');
  const { say, complain } = useShell();
  const mayTake = useMay('take in deliveries');
  if (error) return <p role="alert">{error.message}</p>;
  if (!r) return null;
  const decide = async (decision: string) => {
    try {
      const done = await post<Done>(`/deliveries/${delivery}/decisions`, {
        incoming: [id],
        decision,
        target: r.matches[0]?.record ?? null,
      });
      say(`${r.title}: ${decision}`, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const change = async (marc: MarcRecord) => {
    try {
      const done = await put<Done>(`/deliveries/${delivery}/incoming/${id}`, { version: r.version, marc });
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const mayChange = mayTake && r.state === 'waiting';
  const fix = (finding: Finding) => void change(applyEdits(r.marc, finding.fix!.edits));
  const held = r.held[0];
  const cleaned = r.recipe !== null && differs(compareRecords(r.original, r.marc));
  const shown = (view === 'held' && !held) || (view === 'cleaned' && !cleaned) ? 'fields' : view;
  return (
    <div className="stack">
      <button className="fix only-narrow" onClick={onBack}>
        Back to the list
      </button>
      <div className="piece-head">
        <div>
          <h2>{r.title}</h2>
          <p className="faded">
            {[r.author, r.year, r.isbn && `ISBN ${r.isbn}`].filter(Boolean).join(' · ')} · no. {r.seq} in the
            file
          </p>
        </div>
        {r.state === 'waiting' && mayTake ? (
          <fieldset className="decisions" style={{ border: 0, padding: 0, margin: 0 }}>
            <legend className="unseen">What is done with it</legend>
            {DECISIONS.map(([value, name]) => (
              <label key={value}>
                <input
                  type="radio"
                  name="decision"
                  checked={r.decision === value}
                  disabled={value === 'replace' && r.target === null}
                  onChange={() => void decide(value)}
                />
                {name}
                {value === 'replace' && r.target ? ` ${r.target}` : ''}
              </label>
            ))}
          </fieldset>
        ) : (
          <span className="said-decision">
            {r.state === 'accepted' ? (
              <Link to={`/catalogue/${r.record}`}>record {r.record} in the catalogue</Link>
            ) : (
              r.state
            )}
          </span>
        )}
      </div>
      {r.matches.map((m) => (
        <p key={m.record} className={m.doubt ? 'note caution' : 'note'}>
          <Mark kind={m.doubt ? 'caution' : 'information'} />{' '}
          {m.doubt ?? `The catalogue holds it: same ${m.by === 'isbn' ? 'ISBN' : 'control number'} ${m.key}.`}{' '}
          <Link to={`/catalogue/${m.record}`}>Record {m.record}</Link>
        </p>
      ))}
      {r.repeats ? (
        <p className="note caution">
          <Mark kind="caution" /> It comes twice in this delivery: no. {r.repeats} has the same ISBN.
        </p>
      ) : null}
      {r.repairList.length ? (
        <details className="note caution" open>
          <summary>
            <Mark kind="caution" /> Repaired in reading ({r.repairList.length})
          </summary>
          <ul className="repairs">
            {r.repairList.map((x, i) => (
              <li key={i}>
                {x.message} <span className="faded">At byte {x.offset.toLocaleString('en-GB')}.</span>
                {x.bytes ? <code className="kept-bytes">{printable(x.bytes)}</code> : null}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      <div className="seg" role="group" aria-label="Show">
        <button aria-pressed={shown === 'fields'} onClick={() => setView('fields')}>
          Fields
        </button>
        {held ? (
          <button aria-pressed={shown === 'held'} onClick={() => setView('held')}>
            Against record {held.id}
          </button>
        ) : null}
        {cleaned ? (
          <button aria-pressed={shown === 'cleaned'} onClick={() => setView('cleaned')}>
            What cleaning changed
          </button>
        ) : null}
      </div>
      {shown === 'held' && held ? (
        <Compare before={held.marc} after={r.marc} showSame />
      ) : shown === 'cleaned' ? (
        <>
          {mayChange ? <KeepRecipe original={r.original} marc={r.marc} /> : null}
          <Compare before={r.original} after={r.marc} showSame />
        </>
      ) : (
        <FieldView
          record={r.marc}
          findings={r.findings}
          onFix={mayChange ? fix : undefined}
          onChange={
            mayChange
              ? (at, f) =>
                  void change(
                    applyEdits(r.marc, [f === null ? { op: 'remove', at } : { op: 'replace', at, field: f }]),
                  )
              : undefined
          }
        />
      )}
    </div>
  );
}
