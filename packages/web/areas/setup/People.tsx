import type { SetUp } from '@osier/contract';
import { ROLES } from '@osier/contract';
import { Button, Input, Select } from 'antd';
import { useState, type FormEvent } from 'react';
import { refresh } from '../../api/queries';
import { post, problemText, RequestProblem } from '../../api/request';
import { FieldProblem } from '../../parts/FieldProblem';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

const NOBODY = { name: '', login: '', role: 'cataloguer', password: '' };

/** Who may do what. */
export function People({ data }: { data: SetUp }) {
  const [form, setForm] = useState(NOBODY);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const mayChange = useMay('set up');
  const { say, complain } = useShell();
  const add = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await post('/people', form);
      say(`Added ${form.name}, ${form.role}`);
      setForm(NOBODY);
      setProblem(null);
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const line = (key: 'name' | 'login' | 'password', label: string) => (
    <label>
      {label}
      <Input
        type={key === 'password' ? 'password' : 'text'}
        autoComplete="off"
        value={form[key]}
        status={problem?.field(key) ? 'error' : ''}
        onChange={(e) => setForm({ ...form, [key]: e.target.value })}
      />
      <FieldProblem of={problem} field={key} />
    </label>
  );
  return (
    <div className="stack" style={{ maxWidth: 720 }}>
      <table className="plain">
        <thead>
          <tr>
            <th>Name</th>
            <th>Sign-in name</th>
            <th>Role</th>
          </tr>
        </thead>
        <tbody>
          {data.people.map((p) => (
            <tr key={p.id}>
              <td>{p.name}</td>
              <td>{p.login}</td>
              <td>{p.role}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="faded">
        An assistant looks and scans. A cataloguer works on records, headings, holdings and copies, and
        prepares withdrawals. The head confirms withdrawals, starts and closes stocktakes, and does the
        set-up.
      </p>
      {mayChange ? (
        <form className="shelf-form stack" onSubmit={(e) => void add(e)}>
          <h2>Add a person</h2>
          <div className="form-grid">
            {line('name', 'Name')}
            {line('login', 'Sign-in name')}
            {line('password', 'Password')}
            <label>
              Role
              <Select
                aria-label="Role"
                value={form.role}
                onChange={(role) => setForm({ ...form, role })}
                options={ROLES.map((r) => ({ value: r, label: r }))}
              />
            </label>
          </div>
          <div>
            <Button type="primary" htmlType="submit">
              Add the person
            </Button>
          </div>
        </form>
      ) : null}
    </div>
  );
}
