import { api, personBody, type PersonRow, type SetUp } from '@osier/contract';
import { call } from '../../api/call';
import { ROLES } from '@osier/contract';
import { Button, Checkbox, Input, Select } from 'antd';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { FieldProblem } from '../../parts/FieldProblem';
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
            verb="Add the person"
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
  const [form, setForm] = useState({
    name: person.name,
    role: person.role,
    active: person.active,
    password: '',
  });
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  const save = async () => {
    try {
      const { password, ...rest } = form;
      await call(api.people.change, {
        params: { id: person.id },
        body: { ...rest, ...(password && { password }) },
      });
      say(`Saved the account of ${form.name}`);
      onClose();
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  return (
    <tr>
      <td colSpan={4}>
        <div className="form-grid">
          <label>
            Name
            <Input value={form.name} onChange={(e) => setForm({ ...form, name: e.target.value })} />
            <FieldProblem of={problem} field="name" />
          </label>
          <label>
            Role
            <Select
              aria-label={`Role of ${person.name}`}
              value={form.role}
              onChange={(role) => setForm({ ...form, role })}
              options={ROLES.map((r) => ({ value: r, label: r }))}
            />
            <FieldProblem of={problem} field="role" />
          </label>
          <label>
            New password (empty: as it is)
            <Input
              type="password"
              autoComplete="new-password"
              value={form.password}
              onChange={(e) => setForm({ ...form, password: e.target.value })}
            />
            <FieldProblem of={problem} field="password" />
          </label>
        </div>
        <div className="row">
          <Button type="primary" onClick={() => void save()}>
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <Checkbox checked={form.active} onChange={(e) => setForm({ ...form, active: e.target.checked })}>
            Active
          </Checkbox>
        </div>
      </td>
    </tr>
  );
}
