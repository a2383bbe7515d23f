import { api, firstHeadBody, signInBody, type Welcome } from '@osier/contract';
import { Button } from 'antd';
import { call } from '../api/call';
import { refresh } from '../api/queries';
import type { FormField } from '../parts/form/field-kinds';
import { SchemaForm } from '../parts/form/SchemaForm';
import { tellSession } from './session';
import { SIGN_IN } from './sign-in-fields';
import './sign-in.css';

const FIRST: readonly FormField[] = [
  { name: 'code', label: 'Code from the console' },
  { name: 'name', label: 'Your name' },
  { name: 'login', label: 'Sign-in name' },
  { name: 'password', label: 'Password (12 characters or more)', kind: 'password' },
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
          <SchemaForm
            schema={firstHeadBody}
            fields={FIRST}
            onSend={async (typed) => {
              tellSession((await call(api.people.firstHead, { body: typed })).id);
              await refresh();
            }}
            isBlock
            verb="Make the first account"
            intro="Nobody has an account yet. The server printed a code when it started."
          />
        ) : (
          <SchemaForm
            schema={signInBody}
            fields={SIGN_IN}
            onSend={async (typed) => {
              tellSession((await call(api.people.signIn, { body: typed })).id);
              await refresh();
            }}
            isBlock
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
    tellSession((await call(api.people.signInAsDemo, { body: { person: id } })).id);
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
