import { api, personBody, personChangeBody, ROLES, type PersonRow, type SetUp } from '@osier/contract';
import { call } from '../../api/call';
import { Button } from 'antd';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

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
            <th>Name</th>
            <th>Sign-in name</th>
            <th>Role</th>
            {mayChange ? <th>Account</th> : null}
          </tr>
        </thead>
        <tbody>
          {data.people.map((p) => (
            <PersonLine key={p.id} person={p} mayChange={mayChange} />
          ))}
        </tbody>
      </table>
      <p className="faded">
        An assistant looks and scans. A cataloguer works on records, headings, holdings and copies, and
        prepares withdrawals. The head confirms withdrawals, starts and closes stocktakes, and does the
        set-up.
      </p>
      {mayChange ? (
        <div className="shelf-form">
          <SchemaForm
            key={added}
            title="Add a person"
            schema={personBody}
            initial={{ role: 'cataloguer' }}
            fields={[
              { name: 'name', label: 'Name' },
              { name: 'login', label: 'Sign-in name' },
              { name: 'password', label: 'Password', kind: 'password' },
              { name: 'role', label: 'Role', kind: 'choice', options: ROLE_OPTIONS },
            ]}
            verb="Add person"
            onSend={async (body) => {
              await call(api.people.add, { body });
              say(`Added ${body.name}, ${body.role}`);
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
      say(`Signed ${person.name} out everywhere`);
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
        {person.active ? '' : ', deactivated'}
      </td>
      {mayChange ? (
        <td>
          <span className="row">
            <Button size="small" onClick={() => setEditing(true)}>
              Edit
            </Button>
            <Button size="small" onClick={() => void endSessions()}>
              Sign out everywhere
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
            { name: 'name', label: 'Name' },
            { name: 'role', label: 'Role', kind: 'choice', options: ROLE_OPTIONS },
            { name: 'password', label: 'New password', kind: 'password', help: 'empty: as it is' },
            { name: 'active', label: 'Active: may sign in', kind: 'flag' },
          ]}
          verb="Save account"
          onCancel={onClose}
          onSend={async ({ password, ...rest }) => {
            await call(api.people.change, {
              params: { id: person.id },
              body: { ...rest, ...(password && { password }) },
            });
            say(`Saved the account of ${rest.name}`);
            onClose();
            await refresh();
          }}
        />
      </td>
    </tr>
  );
}
