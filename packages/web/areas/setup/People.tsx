import {
  api,
  GRANTED,
  personBody,
  personChangeBody,
  ROLES,
  type PersonRow,
  type SetUp,
} from '@osier/contract';
import { call } from '../../api/call';
import { Button, Table, type TableColumnsType } from 'antd';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText } from '../../api/request';
import { draftOf } from './draft-of';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { setUpWords as wording } from './words';

const RIGHTS = GRANTED.map((code) => ({ code, name: wording.rights[code] }));
const ROLE_OPTIONS = ROLES.map((r) => ({ value: r, label: r }));

/** Who may do what. */
export function PeopleForm({ data }: { data: SetUp }) {
  const [added, setAdded] = useState(0);
  const [editing, setEditing] = useState<number | null>(null);
  const mayChange = useMay('set up');
  const { say, complain } = useShell();
  const endSessions = async (person: PersonRow) => {
    try {
      await call(api.people.endSessions, { params: { id: person.id } });
      say(wording.signedOutEverywhere(person.name));
    } catch (e) {
      complain(problemText(e));
    }
  };
  const columns: TableColumnsType<PersonRow> = [
    {
      key: 'name',
      title: wording.name,
      render: (_, p) => p.name,
      sorter: (p, q) => p.name.localeCompare(q.name),
    },
    { key: 'login', title: wording.signInName, render: (_, p) => p.login },
    {
      key: 'role',
      title: wording.role,
      sorter: (p, q) => p.role.localeCompare(q.role),
      render: (_, p) =>
        [p.role, ...p.rights.map((r) => wording.rights[r])].join(', ') +
        (p.active ? '' : wording.deactivated),
    },
    {
      key: 'account',
      title: wording.account,
      hidden: !mayChange,
      render: (_, p) => (
        <span className="row">
          <Button size="small" onClick={() => setEditing(editing === p.id ? null : p.id)}>
            {wording.edit}
          </Button>
          <Button size="small" onClick={() => void endSessions(p)}>
            {wording.signOutEverywhere}
          </Button>
        </span>
      ),
    },
  ];
  return (
    <div className="stack people">
      <Table
        size="small"
        rowKey="id"
        columns={columns}
        dataSource={[...data.people]}
        pagination={false}
        scroll={{ x: 'max-content' }}
        rowClassName={(p) => (p.active ? '' : 'faded')}
        expandable={{
          showExpandColumn: false,
          expandedRowKeys: editing === null ? [] : [editing],
          expandedRowRender: (p) => <PersonForm person={p} onClose={() => setEditing(null)} />,
        }}
      />
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
            draft={draftOf('people', wording.addAPerson)}
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

/** Name, role, a new password, and whether the account is active. */
function PersonForm({ person, onClose }: { person: PersonRow; onClose: () => void }) {
  const { say } = useShell();
  return (
    <SchemaForm
      schema={personChangeBody}
      initial={{ name: person.name, role: person.role, active: person.active, rights: person.rights }}
      fields={[
        { name: 'name', label: wording.name },
        { name: 'role', label: wording.role, kind: 'choice', options: ROLE_OPTIONS },
        {
          ...{ name: 'rights', label: wording.alsoMay, help: wording.alsoMayHelp },
          ...{ kind: 'codes', list: RIGHTS },
        },
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
  );
}
