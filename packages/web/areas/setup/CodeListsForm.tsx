import { CloseOutlined } from '@ant-design/icons';
import { api, type SetUp } from '@osier/contract';
import { call } from '../../api/call';
import type { CodeLists } from '@osier/core/holdings';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { refresh } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';

type Entry = { code: string; name: string; branch?: string; price?: number | null };
const LISTS = [
  ['branches', 'Branches'],
  ['locations', 'Locations'],
  ['types', 'Types of copy'],
  ['funds', 'Funds'],
  ['suppliers', 'Suppliers'],
] as const;

/** The code lists as three tables that can be typed in. */
export function CodeListsForm({ data }: { data: SetUp }) {
  const [lists, setLists] = useState<CodeLists>(data.lists.value);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const mayChange = useMay('set up');
  const { say, complain } = useShell();
  const save = async () => {
    try {
      const done = await call(api.setup.saveLists, { body: { version: data.lists.version, ...lists } });
      setProblem(null);
      say(done.sentence, done.entry);
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const change = (list: keyof CodeLists, next: Entry[]) => setLists({ ...lists, [list]: next });
  return (
    <div className="stack">
      <div className="setup-lists">
        {LISTS.map(([key, name]) => {
          const entries = lists[key] as readonly Entry[];
          const set = (i: number, part: Partial<Entry>) =>
            change(
              key,
              entries.map((e, k) => (k === i ? { ...e, ...part } : e)),
            );
          return (
            <section key={key} aria-label={name} className="setup-list">
              <h2>{name}</h2>
              {problem?.problem.fields
                ?.filter((f) => f.field.startsWith(key))
                .map((f, i) => (
                  <p key={i} className="field-problem" role="alert">
                    {f.message}
                  </p>
                ))}
              {entries.map((e, i) => (
                <div key={i} className="row nowrap">
                  <Input
                    className="mono"
                    style={{ width: 78, flex: 'none' }}
                    aria-label={`Code ${i + 1} of ${name}`}
                    value={e.code}
                    disabled={!mayChange}
                    onChange={(x) => set(i, { code: x.target.value })}
                  />
                  <Input
                    aria-label={`Name ${i + 1} of ${name}`}
                    value={e.name}
                    disabled={!mayChange}
                    onChange={(x) => set(i, { name: x.target.value })}
                  />
                  {key === 'locations' ? (
                    <Input
                      className="mono"
                      style={{ width: 52, flex: 'none' }}
                      aria-label={`Branch of location ${i + 1}`}
                      value={e.branch}
                      disabled={!mayChange}
                      onChange={(x) => set(i, { branch: x.target.value })}
                    />
                  ) : null}
                  {key === 'types' ? (
                    <Input
                      className="mono"
                      style={{ width: 92, flex: 'none' }}
                      aria-label={`Price of type ${i + 1}`}
                      value={e.price === null || e.price === undefined ? '' : (e.price / 100).toFixed(2)}
                      disabled={!mayChange}
                      onChange={(x) =>
                        set(i, {
                          price:
                            x.target.value === ''
                              ? null
                              : Math.round(Number(x.target.value.replace(',', '.')) * 100) || 0,
                        })
                      }
                    />
                  ) : null}
                  {mayChange ? (
                    <Button
                      size="small"
                      className="fix"
                      aria-label={`Take ${e.code} away`}
                      onClick={() =>
                        change(
                          key,
                          entries.filter((_, k) => k !== i),
                        )
                      }
                    >
                      <CloseOutlined />
                    </Button>
                  ) : null}
                </div>
              ))}
              {mayChange ? (
                <Button
                  size="small"
                  onClick={() =>
                    change(key, [
                      ...entries,
                      key === 'locations'
                        ? { code: '', name: '', branch: lists.branches[0]?.code ?? '' }
                        : key === 'types'
                          ? { code: '', name: '', price: null }
                          : { code: '', name: '' },
                    ])
                  }
                >
                  Add a line
                </Button>
              ) : null}
            </section>
          );
        })}
      </div>
      {mayChange ? (
        <div>
          <Button type="primary" onClick={() => void save()}>
            Save the lists
          </Button>
        </div>
      ) : (
        <p className="faded">Only the head changes these.</p>
      )}
    </div>
  );
}
