import { api, neighbourSchema, type NeighbourRow } from '@osier/contract';
import {
  LOOKED_BY,
  NEW_NEIGHBOUR,
  PROTOCOLS,
  SRU_VERSIONS,
  USUAL_ATTRIBUTES,
  USUAL_INDEXES,
  type Neighbour,
} from '@osier/core/neighbours';
import { Button, Checkbox, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitBar } from '../../parts/form/KitBar';
import { KitField, KitGrid, KitSection } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';
import { useTyped } from '../../parts/form/use-typed';
import { PageButtons } from '../../parts/PageButtons';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { draftOf } from './draft-of';
import { TryNeighbour } from './TryNeighbour';
import { neighbourWords as wording } from './neighbour-words';

type Typed = Omit<Neighbour, 'secret'>;
const { secret: _, ...EMPTY } = NEW_NEIGHBOUR;
/** Types of record as the format’s 008 tells them apart. */
const MATERIALS = [
  'Books',
  'Continuing Resources',
  'Computer Files',
  'Maps',
  'Music',
  'Visual Materials',
  'Mixed Materials',
];

/** The libraries whose records may be copied, one open at a time. */
export function NeighbourSheets() {
  const { data: rows } = useApi(api.neighbours.list);
  const [query, setQuery] = useSearchParams();
  const asked = query.get('open');
  const mayChange = useMay('set up');
  if (!rows) return null;
  const isNew = asked === 'new';
  const open = isNew ? null : (rows.find((n) => n.id === Number(asked)) ?? rows[0] ?? null);
  const choose = (id: number | 'new' | null) =>
    setQuery({ show: 'neighbours', ...(id !== null && { open: String(id) }) });
  return (
    <div className="stack">
      <PageButtons
        label={wording.neighbours}
        pages={[
          ...rows.map((n) => [String(n.id), n.neighbour.name] as const),
          ...(mayChange ? [['new', wording.newNeighbour] as const] : []),
        ]}
        chosen={isNew ? 'new' : String(open?.id ?? '')}
        onChoose={(id) => choose(id === 'new' ? 'new' : Number(id))}
      />
      {rows.length === 0 && !isNew ? <p className="note">{wording.aNeighbourIs}</p> : null}
      {open || isNew ? (
        <NeighbourForm
          key={open ? `${open.id} ${open.version}` : 'new'}
          row={open}
          order={Math.max(0, ...rows.map((n) => n.neighbour.order)) + 1}
          mayChange={mayChange}
          onKept={choose}
        />
      ) : null}
    </div>
  );
}

function NeighbourForm({
  row,
  order,
  mayChange,
  onKept,
}: {
  row: NeighbourRow | null;
  /** Where a new one comes. */
  order: number;
  mayChange: boolean;
  onKept: (id: number | null) => void;
}) {
  const { say, complain } = useShell();
  const { data: recipes = [] } = useApi(api.recipes.list);
  // A password is never kept in the browser.
  const [password, setPassword] = useState<string | null>(null);
  const typed = useTyped<Typed>({
    initial: row?.neighbour ?? { ...EMPTY, order },
    schema: neighbourSchema,
    draft: draftOf('neighbours', wording.neighbour(row?.neighbour.name ?? '').trim(), row?.id ?? 'new'),
  });
  const { value: n, set, problem } = typed;
  const disabled = !mayChange;
  const body = (sent: Typed) => ({ neighbour: { ...sent, materials: [...sent.materials] }, password });
  const save = () =>
    typed.send(async (sent) => {
      const done = await (row
        ? call(api.neighbours.change, {
            params: { id: row.id },
            body: { version: row.version, ...body(sent) },
          })
        : call(api.neighbours.keep, { body: body(sent) }));
      say(done.sentence, done.entry);
      onKept(done.id);
      await refresh();
    });
  const remove = async (of: NeighbourRow) => {
    try {
      const done = await call(api.neighbours.remove, {
        params: { id: of.id },
        body: { version: of.version },
      });
      typed.discard();
      say(done.sentence, done.entry);
      onKept(null);
      await refresh();
    } catch (e) {
      complain(problemText(e));
    }
  };
  const line = (key: 'name' | 'address' | 'database' | 'schema' | 'user', label: string, help?: string) => (
    <KitField
      label={label}
      help={help}
      isRequired={key === 'name' || key === 'address'}
      width={key === 'address' ? 'wide' : undefined}
      problem={problem(key)}
    >
      <Input
        value={n[key]}
        disabled={disabled}
        className={key === 'address' ? 'mono' : undefined}
        autoComplete="off"
        onChange={(e) => set({ [key]: e.target.value })}
      />
    </KitField>
  );
  const number = (
    key: 'order' | 'seconds' | 'most',
    label: string,
    most: number,
    more: { help?: string; unit?: string } = {},
  ) => (
    <KitField label={label} help={more.help} width="short" problem={problem(key)}>
      <InputNumber
        min={1}
        max={most}
        controls={false}
        suffix={more.unit}
        style={{ width: '100%' }}
        value={n[key]}
        disabled={disabled}
        onChange={(v) => set({ [key]: v ?? 1 })}
      />
    </KitField>
  );
  const isSru = n.protocol === 'sru';
  return (
    <section className="stack" aria-label={row?.neighbour.name ?? wording.newNeighbour}>
      <KitGrid>
        {line('name', wording.name)}
        <KitField label={wording.protocol} width="short">
          <Select
            value={n.protocol}
            disabled={disabled}
            options={PROTOCOLS.map((value) => ({ value, label: value === 'sru' ? 'SRU' : 'Z39.50' }))}
            onChange={(protocol) =>
              set({ protocol, indexes: protocol === 'sru' ? USUAL_INDEXES : USUAL_ATTRIBUTES })
            }
          />
        </KitField>
        {line('address', wording.address, isSru ? wording.addressOfSru : wording.addressOfZ3950)}
        {isSru ? (
          <KitField label={wording.sruVersion} width="short">
            <Select
              value={n.version}
              disabled={disabled}
              options={SRU_VERSIONS.map((value) => ({ value, label: value }))}
              onChange={(version) => set({ version })}
            />
          </KitField>
        ) : (
          line('database', wording.database)
        )}
        {isSru ? line('schema', wording.recordSchema) : null}
        {number('order', wording.placeAmongThem, 999, { help: wording.theLowestIsAskedFirst })}
        {number('seconds', wording.timeLimit, 60, { unit: wording.secondsUnit })}
        {number('most', wording.recordsAtOnce, 50)}
        <KitField label={wording.trust} width="short" problem={problem('trust')}>
          <Select
            value={n.trust}
            disabled={disabled}
            options={wording.trusts.map((label, i) => ({ value: i + 1, label }))}
            onChange={(trust) => set({ trust })}
          />
        </KitField>
        <KitField label={wording.goodFor} problem={problem('materials')}>
          <PickMany
            list={MATERIALS.map((name) => ({ code: name, name }))}
            placeholder={wording.allMaterials}
            value={[...n.materials]}
            disabled={disabled}
            onChange={(materials) => set({ materials })}
          />
        </KitField>
        <KitField label={wording.recipeForIt} problem={problem('recipe')}>
          <Select
            value={n.recipe}
            disabled={disabled}
            popupMatchSelectWidth={false}
            options={[
              { value: '', label: wording.noRecipe },
              ...recipes.map((r) => ({ value: r.id, label: r.name })),
            ]}
            onChange={(recipe) => set({ recipe })}
          />
        </KitField>
        {line('user', wording.signOnName)}
        <KitField
          label={wording.password}
          help={row?.hasPassword ? wording.aPasswordIsKept : undefined}
          problem={problem('password')}
        >
          <Input.Password
            value={password ?? ''}
            disabled={disabled}
            autoComplete="new-password"
            onChange={(e) => setPassword(e.target.value)}
          />
        </KitField>
      </KitGrid>
      <Checkbox checked={n.isUsed} disabled={disabled} onChange={(e) => set({ isUsed: e.target.checked })}>
        {wording.isAsked}
      </Checkbox>
      <KitSection title={wording.indexes}>
        <p className="faded">{isSru ? wording.indexesOfSru : wording.indexesOfZ3950}</p>
        <KitGrid>
          {LOOKED_BY.map((by) => (
            <KitField key={by} label={wording.indexNames[by]} problem={problem(`indexes.${by}`)}>
              <Input
                className="mono"
                value={n.indexes[by]}
                disabled={disabled}
                onChange={(e) => set({ indexes: { ...n.indexes, [by]: e.target.value } })}
              />
            </KitField>
          ))}
        </KitGrid>
      </KitSection>
      {mayChange ? (
        <>
          <TryNeighbour
            body={{ ...body(n), of: row?.id ?? null }}
            onIndexes={(indexes) => set({ indexes })}
          />
          <KitBar
            typed={typed}
            verb={row ? wording.saveNeighbour : wording.addNeighbour}
            onSend={() => void save()}
            more={
              row ? (
                <Button danger className="kit-far" onClick={() => void remove(row)}>
                  {wording.deleteNeighbour}
                </Button>
              ) : null
            }
          />
        </>
      ) : (
        <p className="faded">{wording.onlyTheHeadChangesThese}</p>
      )}
    </section>
  );
}
