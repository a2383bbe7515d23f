import { api, starterBody, type Done, type StarterRow } from '@osier/contract';
import { starterLine } from '@osier/core/editing';
import { Button, Table, type TableColumnsType } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { SchemaForm } from '../../parts/form/SchemaForm';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { setUpWords as wording } from './words';

/** A starter of the library that is begun: the leader of a book, and its title. */
const EMPTY = {
  name: '',
  of: '',
  leader: '00000nam a2200000 i 4500',
  fixed: '',
  physical: [] as string[],
  lines: '245 10 $a $b $c !\n264 #1 $a $b $c !\n300 ## $a $b $c !',
};

const asTyped = ({ of, starter }: StarterRow) => ({
  name: starter.name,
  of,
  leader: starter.leader,
  fixed: starter.fixed,
  physical: [...starter.physical],
  lines: starter.fields.map(starterLine).join('\n'),
});

/** Prepared beginnings of records: those that come with Osier, the library's own forms of them, and its own ones. */
export function Starters() {
  const { data: starters = [] } = useApi(api.starters.list);
  const [editing, setEditing] = useState<string | null>(null);
  const mayChange = useMay('set up');
  const chosen = starters.find((s) => s.key === editing);
  const columns: TableColumnsType<StarterRow> = [
    { key: 'name', title: wording.starter, render: (_, s) => <b>{s.starter.name}</b> },
    {
      key: 'fields',
      title: wording.fieldsAsked,
      align: 'right',
      render: (_, s) => s.starter.fields.filter((f) => f.wanted !== 'given').length,
    },
    {
      key: 'origin',
      title: wording.whose,
      render: (_, s) =>
        s.version === null ? wording.comesWithOsier : s.of ? wording.ourFormOfIt : wording.ourOwn,
    },
    {
      key: 'change',
      title: <span className="unseen">{wording.change}</span>,
      hidden: !mayChange,
      render: (_, s) => (
        <Button size="small" onClick={() => setEditing(s.key)}>
          {wording.change}
        </Button>
      ),
    },
  ];
  return (
    <section className="stack" aria-label={wording.starters}>
      <div className="row spread">
        <h2>{wording.starters}</h2>
        {mayChange ? (
          <Button data-key="n" onClick={() => setEditing('new')}>
            {wording.newStarter}
          </Button>
        ) : null}
      </div>
      <p className="faded">{wording.whatAStarterIs}</p>
      <Table<StarterRow>
        size="small"
        rowKey="key"
        columns={columns}
        dataSource={starters}
        pagination={false}
        scroll={{ x: 'max-content' }}
      />
      {editing === 'new' || chosen ? (
        <StarterForm key={editing} row={chosen ?? null} onClose={() => setEditing(null)} />
      ) : null}
    </section>
  );
}

function StarterForm({ row, onClose }: { row: StarterRow | null; onClose: () => void }) {
  const { say, complain } = useShell();
  const own = row && row.version !== null ? { id: Number(row.key), version: row.version } : null;
  const done = async ({ sentence, entry }: Pick<Done, 'sentence' | 'entry'>) => {
    say(sentence, entry);
    await refresh();
    onClose();
  };
  const remove = async () => {
    if (!own) return;
    try {
      await done(await call(api.starters.remove, { params: { id: own.id }, body: { version: own.version } }));
    } catch (e) {
      complain(problemText(e));
    }
  };
  return (
    <SchemaForm
      schema={starterBody}
      takesFocus
      title={row ? row.starter.name : wording.newStarter}
      intro={wording.howAFieldIsWritten}
      verb={own ? wording.saveStarter : row ? wording.saveAsOurForm : wording.addStarter}
      initial={row ? asTyped(row) : EMPTY}
      fields={[
        { name: 'name', label: wording.name },
        { name: 'leader', label: wording.leader, isMono: true },
        { name: 'fixed', label: wording.fixed008, isMono: true, help: wording.fixed008Help },
        { name: 'physical', label: wording.fixed007, kind: 'tags' },
        { name: 'lines', label: wording.fieldsALineEach, kind: 'lines', rows: 16, width: 'wide' },
      ]}
      draft={{
        key: `starter ${row?.key ?? 'new'}`,
        title: row?.starter.name ?? wording.newStarter,
        path: '/set-up?show=starters',
      }}
      onCancel={onClose}
      more={
        own ? (
          <Button danger onClick={() => void remove()}>
            {wording.deleteStarter}
          </Button>
        ) : null
      }
      onSend={async (body) =>
        done(
          own
            ? await call(api.starters.change, {
                params: { id: own.id },
                body: { ...body, version: own.version },
              })
            : await call(api.starters.keep, { body }),
        )
      }
    />
  );
}
