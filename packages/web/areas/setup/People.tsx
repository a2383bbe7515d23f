import { api, personBody, personChangeBody, ROLES, type PersonRow, type SetUp } from '@osier/contract';
import { call } from '../../api/call';
import { Button } from 'antd';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { setUpWords as wording } from './words';

const ROLE_OPTIONS = ROLES.map((r) => ({ value: r, label: r }));

/** Who may do what. */
export function PeopleForm({ data }: { data: SetUp }) {
  const [added, setAdded] = useState(0);
  const mayChange = useMay('set up');
  const { say } = useShell();
  return (
    <div className="stack" style={{ maxWidth: 720 }}>
      <table className="plain">
        <thead>
          <tr>
            <th>{wording.name}</th>
            <th>{wording.signInName}</th>
            <th>{wording.role}</th>
            {mayChange ? <th>{wording.account}</th> : null}
          </tr>
        </thead>
        <tbody>
          {data.people.map((p) => (
            <PersonLine key={p.id} person={p} mayChange={mayChange} />
          ))}
        </tbody>
      </table>
      <p className="faded">{wording.anAssistantLooksAndScans}</p>
      {mayChange ? (
        <div className="shelf-form">
          <SchemaForm
            key={added}
            title={wording.addAPerson}
            schema={personBody}
            initial={{ role: 'cataloguer' }}
            fields={[
              { name: 'name', label: wording.name },
              { name: 'login', label: wording.signInName },
              { name: 'password', label: wording.password, kind: 'password' },
              { name: 'role', label: wording.role, kind: 'choice', options: ROLE_OPTIONS },
            ]}
            verb={wording.addPerson}
            onSend={async (body) => {
              await call(api.people.add, { body });
              say(wording.added(body.name, body.role));
              setAdded(added + 1);
              await refresh();
            }}
          />
        </div>
      ) : null}
    </div>
  );
}

function PersonLine({ person, mayChange }: { person: PersonRow; mayChange: boolean }) {
  const [editing, setEditing] = useState(false);
  const { say, complain } = useShell();
  const endSessions = async () => {
    try {
      await call(api.people.endSessions, { params: { id: person.id } });
      say(wording.signedOutEverywhere(person.name));
    } catch (e) {
      complain(problemText(e));
    }
  };
  if (editing) return <PersonForm person={person} onClose={() => setEditing(false)} />;
  return (
    <tr className={person.active ? '' : 'faded'}>
      <td>{person.name}</td>
      <td>{person.login}</td>
      <td>
        {person.role}
        {person.active ? '' : wording.deactivated}
      </td>
      {mayChange ? (
        <td>
          <span className="row">
            <Button size="small" onClick={() => setEditing(true)}>
              {wording.edit}
            </Button>
            <Button size="small" onClick={() => void endSessions()}>
              {wording.signOutEverywhere}
            </Button>
          </span>
        </td>
      ) : null}
    </tr>
  );
}

/** Name, role, a new password, and whether the account is active. */
function PersonForm({ person, onClose }: { person: PersonRow; onClose: () => void }) {
  const { say } = useShell();
  return (
    <tr>
      <td colSpan={4}>
        <SchemaForm
          schema={personChangeBody}
          initial={{ name: person.name, role: person.role, active: person.active }}
          fields={[
            { name: 'name', label: wording.name },
            { name: 'role', label: wording.role, kind: 'choice', options: ROLE_OPTIONS },
            { name: 'password', label: wording.newPassword, kind: 'password', help: wording.emptyAsItIs },
            { name: 'active', label: wording.activeMaySignIn, kind: 'flag' },
          ]}
          verb={wording.saveAccount}
          onCancel={onClose}
          onSend={async ({ password, ...rest }) => {
            await call(api.people.change, {
              params: { id: person.id },
              body: { ...rest, ...(password && { password }) },
            });
            say(wording.savedTheAccountOf(rest.name));
            onClose();
            await refresh();
          }}
        />
      </td>
    </tr>
  );
}
