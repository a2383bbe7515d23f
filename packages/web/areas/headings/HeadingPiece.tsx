import { api, type HeadingDetail } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { FieldView } from '../../parts/field-editor/FieldView';
import { DraftConflict } from '../../parts/record-draft/DraftConflict';
import { DraftNote } from '../../parts/record-draft/DraftNote';
import { FieldsHead } from '../../parts/record-draft/FieldsHead';
import { draftNow, useRecordDraft } from '../../parts/record-draft/use-record-draft';
import { useSaveKey } from '../../parts/record-draft/use-save-key';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { EntryLine } from '../daybook/EntryLine';
import { ChangeForm } from './ChangeForm';
import { kindName, vocabularyName } from './heading-names';
import { RegistryNames } from './RegistryNames';
import { useRegistry } from './use-registry';
import { SplitHeading } from './SplitHeading';
import { headingsWords as wording } from './words';

/** A heading: its authority record to read and edit, the records that use it, what happened to it. */
export function HeadingPiece({ id }: { id: number }) {
  const { data: h, error } = useApi(api.headings.read, { params: { id } });
  if (error) return <p role="alert">{error.message}</p>;
  return h ? <Shown key={h.id} heading={h} /> : null;
}

function Shown({ heading: h }: { heading: HeadingDetail }) {
  const [doing, setDoing] = useState<'form' | 'split' | null>(null);
  const mayMerge = useMay('merge headings');
  const { say, complain } = useShell();
  const key = `heading ${h.id}`;
  const edit = useRecordDraft(key, { ...h, title: h.text, path: `/headings/${h.id}` });
  const registry = useRegistry(h);
  const mayEdit = mayMerge && h.mergedInto === null && !h.merging;
  const save = async () => {
    // A field that was open has just been kept: what is saved is the draft as it is now.
    const now = draftNow(key);
    if (!now) return;
    try {
      const body = { version: now.version, marc: now.marc };
      const done = await call(api.headings.save, { params: { id: h.id }, body });
      edit.set(null);
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      complain(problemText(e));
      if (e instanceof RequestProblem && e.problem.status === 409) await refresh();
    }
  };
  useSaveKey(() => void save());
  return (
    <div className="stack">
      <h2>
        <bdi>{h.text}</bdi>
      </h2>
      <p className="faded">{wording.heading2(h.id, kindName(h.kind), vocabularyName(h.vocabulary))}</p>
      {h.merging ? <p className="note caution">{wording.beingMerged}</p> : null}
      {h.mergedInto ? (
        <p className="note caution">
          {wording.thisHeadingWasMergedIts}{' '}
          <Link to={`/headings/${h.mergedInto}`}>{wording.heading3(h.mergedInto)}</Link>.
        </p>
      ) : null}
      {mayEdit ? (
        <div className="row">
          <Button data-key="e" onClick={() => setDoing('form')}>
            {wording.changeForm}
          </Button>
          {h.records > 1 ? (
            <Button data-key="s" onClick={() => setDoing('split')}>
              {wording.split}
            </Button>
          ) : null}
        </div>
      ) : null}
      {doing === 'form' ? <ChangeForm heading={h} onClose={() => setDoing(null)} /> : null}
      {doing === 'split' ? <SplitHeading heading={h} onClose={() => setDoing(null)} /> : null}
      {edit.draft ? (
        <DraftNote draft={edit.draft} onSave={() => void save()} onDiscard={() => edit.set(null)} />
      ) : null}
      <DraftConflict edit={edit} now={h} />
      <FieldsHead edit={edit} mayEdit={mayEdit} hasQuickAdditions={false}>
        <h3>{wording.authorityRecord}</h3>
      </FieldsHead>
      <FieldView record={edit.marc} findings={edit.findings} edit={mayEdit ? edit : undefined} />
      {h.mergedFrom.length ? (
        <p>
          {wording.mergedFrom}{' '}
          {h.mergedFrom.map((m, i) => (
            <span key={m.id}>
              {i ? ', ' : ''}
              <Link to={`/headings/${m.id}`}>{m.id}</Link> {m.text}
            </span>
          ))}
        </p>
      ) : null}
      <h3>
        {h.records === 1 ? wording.n1RecordUsesIt : wording.recordsUseIt(h.records.toLocaleString('en-GB'))}
      </h3>
      <ul style={{ margin: 0, paddingLeft: 18 }}>
        {h.usedBy.map((r) => (
          <li key={r.id}>
            <Link to={`/catalogue/${r.id}`}>{r.title}</Link> <span className="faded">{r.year}</span>
          </li>
        ))}
      </ul>
      {registry.isAsked && h.mergedInto === null ? (
        <RegistryNames answer={registry.answer} heading={mayEdit ? h.id : null} />
      ) : null}
      {h.history.length ? (
        <>
          <h3>{wording.history}</h3>
          <div className="today-done heading-history">
            {h.history.map((e) => (
              <EntryLine key={e.id} entry={e} />
            ))}
          </div>
        </>
      ) : null}
    </div>
  );
}
