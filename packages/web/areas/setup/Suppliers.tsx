import { api, type Done, type SheetRow } from '@osier/contract';
import { call } from '../../api/call';
import { DEFAULT_SETTINGS, settingsOf, type SupplierSheet } from '@osier/core/deliveries';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { FieldProblem } from '../../parts/FieldProblem';
import { SettingsForm } from '../../parts/settings/SettingsForm';
import { PickMany } from '../../parts/form/PickMany';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { LabelRolls } from './LabelRolls';

const EMPTY: SupplierSheet = { ...DEFAULT_SETTINGS, name: '', files: [], organisations: [] };

/** The suppliers' sheets, one open at a time, and the label rolls. */
export function Suppliers() {
  const { data: sheets } = useApi(api.suppliers.sheets);
  const [chosen, setChosen] = useState<number | 'new' | null>(null);
  const mayChange = useMay('set up');
  if (!sheets) return null;
  const open = chosen === 'new' ? null : (sheets.find((s) => s.id === chosen) ?? sheets[0] ?? null);
  return (
    <div className="stack">
      <div className="seg" role="group" aria-label="Supplier sheets">
        {sheets.map((s) => (
          <Button
            type="text"
            size="small"
            key={s.id}
            aria-pressed={chosen !== 'new' && s.id === open?.id}
            onClick={() => setChosen(s.id)}
          >
            {s.sheet.name}
          </Button>
        ))}
        {mayChange ? (
          <Button type="text" size="small" aria-pressed={chosen === 'new'} onClick={() => setChosen('new')}>
            New supplier sheet
          </Button>
        ) : null}
      </div>
      {sheets.length === 0 && chosen !== 'new' ? (
        <p className="note">
          A supplier sheet keeps what is the same for every delivery of one supplier: how it is read, matched
          and cleaned, and where its copies go. It is chosen by itself when a file comes.
        </p>
      ) : null}
      {open || chosen === 'new' ? (
        <SheetForm
          key={open ? `${open.id} ${open.version}` : 'new'}
          row={open}
          mayChange={mayChange}
          onKept={(id) => setChosen(id)}
        />
      ) : null}
      <LabelRolls />
    </div>
  );
}

function SheetForm({
  row,
  mayChange,
  onKept,
}: {
  row: SheetRow | null;
  mayChange: boolean;
  onKept: (id: number | null) => void;
}) {
  const [sheet, setSheet] = useState(row?.sheet ?? EMPTY);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const { say, complain } = useShell();
  const act = async (doing: () => Promise<Done & { id?: number }>, gone = false) => {
    try {
      const done = await doing();
      setProblem(null);
      say(done.sentence, done.entry);
      onKept(gone ? null : (done.id ?? null));
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      complain(problemText(e));
    }
  };
  const texts = (key: 'files' | 'organisations', label: string, example: string) => (
    <label>
      {label}
      <PickMany
        label={label}
        list={null}
        placeholder={example}
        value={sheet[key]}
        disabled={!mayChange}
        onChange={(value) => setSheet({ ...sheet, [key]: value })}
      />
      <FieldProblem of={problem} field={key} />
    </label>
  );
  return (
    <section className="stack" aria-label={row?.sheet.name ?? 'New supplier sheet'}>
      <div className="form-grid wide-columns">
        <label>
          Supplier
          <Input
            value={sheet.name}
            disabled={!mayChange}
            status={problem?.field('name') ? 'error' : ''}
            onChange={(e) => setSheet({ ...sheet, name: e.target.value })}
          />
          <FieldProblem of={problem} field="name" />
        </label>
        {texts('files', 'File names it applies to (* for anything)', 'tallow*.mrc')}
        {texts('organisations', 'Organisation codes it applies to, in 003, 040 $a or $d', 'TallowPike')}
      </div>
      <SettingsForm
        value={settingsOf(sheet)}
        onChange={(settings) => setSheet({ ...sheet, ...settings })}
        problem={problem}
        disabled={!mayChange}
      />
      {mayChange ? (
        <div className="save-bar row spread">
          <Button
            type="primary"
            onClick={() =>
              void act(() =>
                row
                  ? call(api.suppliers.changeSheet, {
                      params: { id: row.id },
                      body: { version: row.version, sheet },
                    })
                  : call(api.suppliers.keepSheet, { body: { sheet } }),
              )
            }
          >
            {row ? `Save the sheet of ${row.sheet.name}` : 'Make the supplier sheet'}
          </Button>
          {row ? (
            <Button
              size="small"
              className="fix"
              onClick={() =>
                void act(
                  () =>
                    call(api.suppliers.removeSheet, {
                      params: { id: row.id },
                      body: { version: row.version },
                    }),
                  true,
                )
              }
            >
              Delete supplier sheet
            </Button>
          ) : null}
        </div>
      ) : (
        <p className="faded">Only the head changes these.</p>
      )}
    </section>
  );
}
