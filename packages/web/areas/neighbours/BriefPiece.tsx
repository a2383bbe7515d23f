import { api } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refreshAll, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { Compare } from '../../parts/Compare';
import { FieldView } from '../../parts/field-editor/FieldView';
import { Mark } from '../../parts/Mark';
import { useAct } from '../../parts/use-act';
import { when } from '../../parts/when';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { neighboursWords as wording } from './words';

/** A brief record beside what it becomes by the full one that is offered, and the ways on. */
export function BriefPiece({ id, onDone, onBack }: { id: number; onDone: () => void; onBack: () => void }) {
  const { data: brief, error } = useApi(api.briefRecords.read, { params: { id } });
  const mayTake = useMay('take in deliveries');
  const { say, complain } = useShell();
  const { act, problem } = useAct();
  const [isSending, setSending] = useState(false);
  if (error) return <p role="alert">{error.message}</p>;
  if (!brief) return null;
  const { offer, version, asked, marc, state } = brief;
  const body = (withErrors: boolean) => ({ version, asked, withErrors });
  const params = { id };
  const errors = problem ? [problem.problem.detail] : (offer?.errors ?? []);
  const take = async () => {
    setSending(true);
    // With errors that were shown here it is taken all the same.
    const done = await act(() => call(api.briefRecords.take, { params, body: body(errors.length > 0) }));
    setSending(false);
    if (done) onDone();
  };
  const refuse = async () => {
    try {
      say((await call(api.briefRecords.refuse, { params, body: body(false) })).sentence);
      onDone();
      await refreshAll();
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="stack brief-piece">
      <Button size="small" className="fix only-narrow" onClick={onBack}>
        {wording.backToTheList}
      </Button>
      <div className="piece-head">
        <div>
          <h2>
            <bdi>{brief.title}</bdi>
          </h2>
          <p className="faded">
            {[brief.author, brief.year, wording.nCopies(brief.copies), wording.waitsSince(brief.since)]
              .filter(Boolean)
              .join(' · ')}
          </p>
        </div>
        <Link to={`/catalogue/${id}`}>{wording.openRecord(id)}</Link>
      </div>
      <p className={offer ? 'note' : 'faded'}>
        {offer ? <Mark kind="caution" name="" /> : null} {brief.reason || wording.neverAsked}
        {asked ? <span className="faded"> {wording.askedOn(when(asked))}</span> : null}
      </p>
      {offer ? (
        <>
          {mayTake ? (
            <div className="row">
              <Button type="primary" data-key="t" loading={isSending} onClick={() => void take()}>
                {errors.length ? wording.takeWithErrors : wording.takeIt} <kbd>t</kbd>
              </Button>
              {state === 'offered' ? (
                <Button data-key="n" onClick={() => void refuse()}>
                  {wording.notThisOne} <kbd>n</kbd>
                </Button>
              ) : null}
            </div>
          ) : null}
          {errors.map((e) => (
            <p key={e}>
              <Mark kind="stop" /> {e}
            </p>
          ))}
          {offer.notes.map((note) => (
            <p key={note} className="note">
              {note}.
            </p>
          ))}
          <section aria-label={wording.whatChanges} className="stack">
            <h3>{wording.whatChanges}</h3>
            <Compare before={marc} after={offer.marc} />
          </section>
        </>
      ) : (
        <>
          <div className="row">
            <Link to={`/neighbours?text=${encodeURIComponent(brief.lookFor)}`}>{wording.lookForIt}</Link>
          </div>
          <FieldView record={marc} findings={[]} />
        </>
      )}
    </div>
  );
}
