import { api, firstHeadBody, signInBody, type Welcome } from '@osier/contract';
import { Button } from 'antd';
import { call } from '../api/call';
import { refresh } from '../api/queries';
import type { FormField } from '../parts/form/field-kinds';
import { SchemaForm } from '../parts/form/SchemaForm';
import { tellSession } from './session';
import { SIGN_IN } from './sign-in-fields';
import './sign-in.css';
import { shellWords as wording } from './words';

const FIRST: readonly FormField[] = [
  { name: 'code', label: wording.codeFromTheConsole },
  { name: 'name', label: wording.yourName },
  { name: 'login', label: wording.signInName },
  { name: 'password', label: wording.password12CharactersOrMore, kind: 'password' },
];

/** Sign-in: with a password; in the demo as one of three people; at the very first start with the code from the console. */
export default function SignIn({ welcome }: { welcome: Welcome }) {
  return (
    <main className="sign-in">
      <div className="sign-in-sheet">
        <h1>
          <img src="/weave.svg" alt="" width="34" height="34" /> {wording.osier2}
        </h1>
        <p className="faded">{wording.technicalServicesDesk}</p>
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
            verb={wording.makeTheFirstAccount}
            intro={wording.nobodyHasAnAccountYet}
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
            verb={wording.signIn}
            intro={welcome.demo ? wording.orWithANameAnd : ''}
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
      <p>{wording.thisIsTheDemoLibrary}</p>
      {people.map((p) => (
        <Button key={p.id} block className="demo-person" onClick={() => void choose(p.id)}>
          <b>{p.name}</b> <span>{p.role}</span>
        </Button>
      ))}
    </div>
  );
}
