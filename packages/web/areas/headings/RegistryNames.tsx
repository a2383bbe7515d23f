import { api, type RegistryAnswer, type RegistryTaken } from '@osier/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { BatchSheet } from '../../parts/BatchSheet';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { registryWords as wording } from './registry-words';

type Name = RegistryAnswer['names'][number];

/** What the registry has of a name, to be looked at and taken for a heading; nothing where no registry is set up. */
export function RegistryNames({
  answer,
  heading,
}: {
  answer: RegistryAnswer | undefined;
  /** The heading that it is taken for; null where it is only shown. */
  heading: number | null;
}) {
  const [file, setFile] = useState<RegistryTaken | null>(null);
  const mayTake = useMay('merge headings');
  const { complain } = useShell();
  if (!answer) return <p className="faded">{wording.asking}</p>;
  if (answer.registry === null) return null;
  const take = async (name: Name) => {
    try {
      setFile(await call(api.registry.take, { body: { takes: [{ number: name.number, heading }] } }));
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <section className="registry-names" aria-label={answer.registry}>
      <h3>{answer.registry}</h3>
      {answer.state === 'failed' ? (
        <p className="faded">
          {wording.noAnswer(answer.message)}{' '}
          <Button size="small" type="link" onClick={() => void refresh()}>
            {wording.askAgain}
          </Button>
        </p>
      ) : answer.state === 'none' ? (
        <p className="faded">{wording.hasNone}</p>
      ) : (
        <ul>
          {answer.names.map((n) => (
            <li key={n.number}>
              <div className="row spread">
                <span>
                  <b>
                    <bdi>{n.text}</bdi>
                  </b>{' '}
                  <span className="mono faded">{n.number}</span>
                </span>
                {mayTake && heading !== null && !n.isGone ? (
                  <Button size="small" onClick={() => void take(n)}>
                    {wording.take}
                  </Button>
                ) : null}
              </div>
              <Facts name={n} heading={heading} />
            </li>
          ))}
        </ul>
      )}
      {answer.count > answer.names.length ? <p className="faded">{wording.more(answer.count)}</p> : null}
      {file ? <RegistryLoad file={file} onClose={() => setFile(null)} /> : null}
    </section>
  );
}

/** What is known of a name beside its form. */
function Facts({ name: n, heading }: { name: Name; heading: number | null }) {
  const facts = [
    n.isGone ? wording.isGone(n.replacedBy) : '',
    n.forms.length
      ? wording.members(n.forms)
      : n.seeFroms.length
        ? wording.alsoKnownAs(n.seeFroms.join('; '))
        : '',
    n.sources.join('; '),
  ].filter(Boolean);
  return (
    <div className="faded">
      {facts.map((f) => (
        <div key={f}>
          <bdi>{f}</bdi>
        </div>
      ))}
      {n.heading === null ? null : n.heading === heading ? (
        <div>{wording.isThisOne}</div>
      ) : (
        <div>
          {wording.isAnother} <Link to={`/headings/${n.heading}`}>{n.heading}</Link>
        </div>
      )}
    </div>
  );
}

/** The review of names that were got from the registry, and the job that loads them. */
export function RegistryLoad({ file, onClose }: { file: RegistryTaken; onClose: () => void }) {
  const { sha256, name, onto } = file;
  const body = { sha256, name, onto: [...onto] };
  return (
    <BatchSheet
      title={wording.takeTitle(name)}
      batch={{
        key: ['authorities', file],
        review: (from) => call(api.headings.reviewFile, { body: { ...body, from } }),
        begin: (leaveOut, token) =>
          call(api.headings.takeFile, { body: { ...body, leaveOut: [...leaveOut], token } }),
      }}
      onClose={onClose}
    />
  );
}
