import { DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { api, listsSchema, type ListsBody, type SetUp } from '@osier/contract';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { KitBar } from '../../parts/form/KitBar';
import { KitSection } from '../../parts/form/KitField';
import { useTyped, type Typed } from '../../parts/form/use-typed';
import { PriceInput } from '../../parts/PriceInput';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { draftOf } from './draft-of';
import { setUpWords as wording } from './words';

type Lists = Omit<ListsBody, 'version'>;
type ListName = keyof Lists;
interface Entry {
  readonly code: string;
  readonly name: string;
  readonly branch?: string;
  readonly price?: number | null;
}
const LISTS: readonly (readonly [ListName, string, string])[] = [
  ['branches', wording.branches, 'branch'],
  ['locations', wording.locations, 'location'],
  ['types', wording.typesOfCopy, 'type'],
  ['funds', wording.funds, 'fund'],
  ['suppliers', wording.suppliers, 'supplier'],
];

/** The code lists, each a small table that is typed in. */
export function CodeListsForm({ data }: { data: SetUp }) {
  const mayChange = useMay('set up');
  const say = useShell((s) => s.say);
  const typed = useTyped<Lists>({
    initial: listsSchema.cast(data.lists.value),
    schema: listsSchema,
    draft: draftOf('lists', 'Code lists'),
  });
  const save = () =>
    typed.send(async (lists) => {
      const done = await call(api.setup.saveLists, { body: { version: data.lists.version, ...lists } });
      say(done.sentence, done.entry);
      await refresh();
    });
  return (
    <div className="kit-page">
      <div className="kit-scroll setup-lists" role="group" aria-label={wording.codeLists} tabIndex={0}>
        {LISTS.map(([list, title, noun]) => (
          <CodeList key={list} {...{ list, title, noun, typed, mayChange }} />
        ))}
      </div>
      {mayChange ? (
        <KitBar typed={typed} verb={wording.saveCodeLists} onSend={() => void save()} />
      ) : (
        <p className="faded">{wording.onlyTheHeadChangesThese}</p>
      )}
    </div>
  );
}

function CodeList({
  list,
  title,
  noun,
  typed,
  mayChange,
}: {
  list: ListName;
  title: string;
  noun: string;
  typed: Typed<Lists>;
  mayChange: boolean;
}) {
  const entries: readonly Entry[] = typed.value[list];
  const change = (next: readonly Entry[]) => typed.set({ [list]: next });
  const set = (i: number, part: Partial<Entry>) =>
    change(entries.map((e, k) => (k === i ? { ...e, ...part } : e)));
  const branches = typed.value.branches;
  /** The line that was added last: it is typed in next. */
  const [added, setAdded] = useState(-1);
  const add = () => {
    setAdded(entries.length);
    change([
      ...entries,
      {
        code: '',
        name: '',
        ...(list === 'locations' && { branch: branches[0]?.code ?? '' }),
        ...(list === 'types' && { price: null }),
      },
    ]);
  };
  const wrong = (i: number, part: keyof Entry) => typed.problem(`${list}.${i}.${part}`);
  const about = entries.flatMap((_, i) =>
    (['code', 'name', 'branch', 'price'] as const).flatMap((part) => wrong(i, part) ?? []),
  );
  const told = typed.problem(list) ?? about[0];
  return (
    <KitSection title={title}>
      <table className="code-list">
        <thead>
          <tr>
            <th>{wording.code}</th>
            <th>{wording.name}</th>
            {list === 'locations' ? <th>{wording.branch}</th> : null}
            {list === 'types' ? <th>{wording.usualPrice}</th> : null}
            <td />
          </tr>
        </thead>
        <tbody>
          {entries.map((e, i) => (
            <tr key={i}>
              <td className="code-cell">
                <Input
                  className="mono"
                  autoFocus={i === added}
                  aria-label={wording.codeOf(noun, i + 1)}
                  value={e.code}
                  status={wrong(i, 'code') ? 'error' : ''}
                  disabled={!mayChange}
                  onChange={(x) => set(i, { code: x.target.value })}
                />
              </td>
              <td>
                <Input
                  aria-label={wording.nameOf(noun, i + 1)}
                  value={e.name}
                  status={wrong(i, 'name') ? 'error' : ''}
                  disabled={!mayChange}
                  onChange={(x) => set(i, { name: x.target.value })}
                />
              </td>
              {list === 'locations' ? (
                <td className="branch">
                  <Select
                    aria-label={wording.branchOf(noun, i + 1)}
                    value={e.branch || undefined}
                    status={wrong(i, 'branch') ? 'error' : ''}
                    disabled={!mayChange}
                    showSearch={{ optionFilterProp: 'label' }}
                    popupMatchSelectWidth={false}
                    optionLabelProp="value"
                    style={{ width: '100%' }}
                    options={branches.map((b) => ({ value: b.code, label: `${b.code}  ${b.name}` }))}
                    onChange={(branch) => set(i, { branch })}
                  />
                </td>
              ) : null}
              {list === 'types' ? (
                <td className="price">
                  <PriceInput
                    label={wording.usualPriceOf(noun, i + 1)}
                    placeholder={wording.none}
                    value={e.price ?? null}
                    disabled={!mayChange}
                    onChange={(price) => set(i, { price })}
                  />
                </td>
              ) : null}
              <td className="act">
                {mayChange ? (
                  <Button
                    type="text"
                    icon={<DeleteOutlined />}
                    aria-label={wording.delete(noun, e.code || i + 1)}
                    onClick={() => change(entries.filter((_, k) => k !== i))}
                  />
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {told ? (
        <p className="field-problem" role="alert">
          {told}
        </p>
      ) : null}
      {mayChange ? (
        <Button size="small" icon={<PlusOutlined />} className="add-line" onClick={add}>
          {wording.add(noun)}
        </Button>
      ) : null}
    </KitSection>
  );
}
