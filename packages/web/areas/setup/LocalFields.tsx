import { api, localFieldSchema, type Done, type LocalFieldRow } from '@osier/contract';
import { LOCAL_FORMS } from '@osier/core/holdings';
import { Button, Popconfirm, Table, type TableColumnsType } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { inWords } from '../../parts/format';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { useSetUp } from './use-set-up';
import { localFieldWords as wording } from './local-field-words';

const EMPTY: LocalFieldRow['field'] = { name: '', form: 'text', choices: [], types: [] };

/** The fields that the library has added to its copies, each with how many copies have something in it. */
export function LocalFields() {
  const { data: rows = [] } = useApi(api.localFields.list, { query: { counted: 'yes' } });
  const types = useSetUp()?.lists.value.types ?? [];
  const [editing, setEditing] = useState<number | 'new' | null>(null);
  const mayChange = useMay('set up');
  const called = (code: string) => types.find((t) => t.code === code)?.name ?? code;
  const columns: TableColumnsType<LocalFieldRow> = [
    { key: 'name', title: wording.localField, render: (_, f) => <b>{f.field.name}</b> },
    {
      key: 'form',
      title: wording.whatItHolds,
      render: (_, { field }) =>
        field.form === 'choice' ? wording.oneOf(field.choices.join(', ')) : wording.localForms[field.form],
    },
    {
      key: 'types',
      title: wording.copiesOfType,
      render: (_, { field }) => field.types.map(called).join(', ') || wording.allTypes,
    },
    {
      key: 'values',
      title: wording.copiesWithAValue,
      align: 'right',
      render: (_, f) => inWords(f.values ?? 0),
    },
    {
      key: 'change',
      title: <span className="unseen">{wording.change}</span>,
      hidden: !mayChange,
      render: (_, f) => (
        <Button size="small" onClick={() => setEditing(f.id)}>
          {wording.change}
        </Button>
      ),
    },
  ];
  return (
    <section className="stack" aria-label={wording.localFields}>
      <div className="row spread">
        <h2>{wording.localFields}</h2>
        {mayChange ? (
          <Button data-key="n" onClick={() => setEditing('new')}>
            {wording.newLocalField}
          </Button>
        ) : null}
      </div>
      <p className="faded">{wording.whatALocalFieldIs}</p>
      <Table<LocalFieldRow>
        size="small"
        rowKey="id"
        columns={columns}
        dataSource={[...rows]}
        pagination={false}
        scroll={{ x: 'max-content' }}
        locale={{ emptyText: wording.noLocalFields }}
      />
      {editing !== null ? (
        <LocalFieldForm
          key={editing}
          row={rows.find((r) => r.id === editing) ?? null}
          onDone={() => setEditing(null)}
        />
      ) : null}
    </section>
  );
}

function LocalFieldForm({ row, onDone }: { row: LocalFieldRow | null; onDone: () => void }) {
  const { say, complain } = useShell();
  const types = useSetUp()?.lists.value.types ?? [];
  const done = async ({ sentence, entry }: Done) => {
    say(sentence, entry);
    onDone();
    await refresh();
  };
  const remove = async ({ id, version }: LocalFieldRow) => {
    try {
      await done(await call(api.localFields.remove, { params: { id }, body: { version } }));
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <div className="shelf-form">
      <SchemaForm
        takesFocus
        title={row ? row.field.name : wording.newLocalField}
        schema={localFieldSchema}
        initial={{ ...(row?.field ?? EMPTY) }}
        fields={({ form }) => [
          { name: 'name', label: wording.name },
          {
            name: 'form',
            label: wording.whatItHolds,
            kind: 'choice',
            options: LOCAL_FORMS.map((value) => ({ value, label: wording.localForms[value] })),
            ...(row && (row.values ?? 0) > 0 && { help: wording.staysWhileUsed(inWords(row.values ?? 0)) }),
          },
          ...(form === 'choice'
            ? [
                {
                  name: 'choices',
                  label: wording.choices,
                  kind: 'tags' as const,
                  help: wording.enterAfterEach,
                  width: 'wide' as const,
                },
              ]
            : []),
          {
            name: 'types',
            label: wording.copiesOfType,
            kind: 'codes',
            list: types,
            placeholder: wording.allTypes,
            width: 'wide',
          },
        ]}
        follow={({ form }) => (form !== undefined && form !== 'choice' ? { choices: [] } : {})}
        verb={row ? wording.saveLocalField : wording.addLocalField}
        onCancel={onDone}
        onSend={async (field) =>
          done(
            row
              ? await call(api.localFields.change, {
                  params: { id: row.id },
                  body: { version: row.version, field },
                })
              : await call(api.localFields.keep, { body: { field } }),
          )
        }
        more={
          row ? (
            <Popconfirm
              title={wording.deleteTheField(row.field.name)}
              description={wording.valuesGo(row.values ?? 0)}
              okText={wording.deleteLocalField}
              cancelText={wording.cancel}
              onConfirm={() => void remove(row)}
            >
              <Button>{wording.deleteLocalField}</Button>
            </Popconfirm>
          ) : null
        }
      />
    </div>
  );
}
