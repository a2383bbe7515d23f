import { api, type Welcome } from '@osier/contract';
import { call } from '../api/call';
import { firstHeadBody, signInBody } from '@osier/contract';
import { Button, Input } from 'antd';
import { useState, type FormEvent } from 'react';
import { ValidationError } from 'yup';
import { refresh } from '../api/queries';
import { problemText, RequestProblem } from '../api/request';
import './sign-in.css';

interface FieldOf {
  readonly name: string;
  readonly label: string;
  readonly type?: string;
}
const SIGN_IN: FieldOf[] = [
  { name: 'login', label: 'Sign-in name' },
  { name: 'password', label: 'Password', type: 'password' },
];
const FIRST: FieldOf[] = [
  { name: 'code', label: 'Code from the console' },
  { name: 'name', label: 'Your name' },
  { name: 'login', label: 'Sign-in name' },
  { name: 'password', label: 'Password (12 characters or more)', type: 'password' },
];

/** Sign-in: with a password; in the demo as one of three people; at the very first start with the code from the console. */
export function SignIn({ welcome }: { welcome: Welcome }) {
  return (
    <main className="sign-in">
      <div className="sign-in-sheet">
        <h1>
          <img src="/weave.svg" alt="" width="34" height="34" /> Osier
        </h1>
        <p className="faded">Technical services desk</p>
        {welcome.demo ? <DemoPeople people={welcome.demo} /> : null}
        {welcome.needsFirstHead ? (
          <SignInForm
            fields={FIRST}
            onSend={async (typed) =>
              call(api.people.firstHead, { body: await firstHeadBody.validate(typed, ALL) })
            }
            verb="Make the first account"
            intro="Nobody has an account yet. The server printed a code when it started."
          />
        ) : (
          <SignInForm
            fields={SIGN_IN}
            onSend={async (typed) => call(api.people.signIn, { body: await signInBody.validate(typed, ALL) })}
            verb="Sign in"
            intro={welcome.demo ? 'Or with a name and password of your own:' : ''}
          />
        )}
      </div>
    </main>
  );
}

function DemoPeople({ people }: { people: NonNullable<Welcome['demo']> }) {
  const choose = async (id: number) => {
    await call(api.people.signInAsDemo, { body: { person: id } });
    await refresh();
  };
  return (
    <div className="stack">
      <p>This is the demo library of the Wickmere Institute of Rural Crafts. Choose who you are:</p>
      {people.map((p) => (
        <Button key={p.id} block className="demo-person" onClick={() => void choose(p.id)}>
          <b>{p.name}</b> <span>{p.role}</span>
        </Button>
      ))}
    </div>
  );
}

/** Tells all that is wrong, not only the first. */
const ALL = { abortEarly: false } as const;

function SignInForm({
  fields,
  onSend,
  verb,
  intro,
}: {
  fields: FieldOf[];
  /** Checks what was typed and sends it. */
  onSend: (typed: Record<string, string>) => Promise<unknown>;
  verb: string;
  intro: string;
}) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problems, setProblems] = useState<Record<string, string>>({});
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setProblems({});
    try {
      await onSend(typed);
      await refresh();
    } catch (error) {
      if (error instanceof ValidationError)
        setProblems(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
      else if (error instanceof RequestProblem && error.problem.fields)
        setProblems(Object.fromEntries(error.problem.fields.map((f) => [f.field, f.message])));
      else setProblems({ '': problemText(error) });
    }
  };
  return (
    <form className="stack" onSubmit={(e) => void submit(e)} noValidate>
      {intro ? <p>{intro}</p> : null}
      {fields.map((f) => (
        <label key={f.name}>
          {f.label}
          <Input
            type={f.type ?? 'text'}
            name={f.name}
            autoComplete={f.type === 'password' ? 'current-password' : 'off'}
            value={typed[f.name] ?? ''}
            status={problems[f.name] ? 'error' : ''}
            onChange={(e) => setTyped({ ...typed, [f.name]: e.target.value })}
          />
          {problems[f.name] ? (
            <span role="alert" className="field-problem">
              {problems[f.name]}
            </span>
          ) : null}
        </label>
      ))}
      {problems[''] ? (
        <p role="alert" className="field-problem">
          {problems['']}
        </p>
      ) : null}
      <Button type="primary" htmlType="submit" block>
        {verb}
      </Button>
    </form>
  );
}
