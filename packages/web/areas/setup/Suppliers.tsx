import { api, sheetSchema, type SheetRow } from '@osier/contract';
import { call } from '../../api/call';
import { DEFAULT_SETTINGS, settingsOf, type SupplierSheet } from '@osier/core/deliveries';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { PageButtons } from '../../parts/PageButtons';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitBar } from '../../parts/form/KitBar';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { useTyped } from '../../parts/form/use-typed';
import { SettingsForm } from '../../parts/settings/SettingsForm';
import { PickMany } from '../../parts/form/PickMany';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { draftOf } from './draft-of';
import { LabelRolls } from './LabelRolls';
import { setUpWords as wording } from './words';

const EMPTY: SupplierSheet = { ...DEFAULT_SETTINGS, name: '', files: [], organisations: [] };

/** The suppliers' sheets, one open at a time, and the label rolls. */
export function Suppliers() {
  const { data: sheets } = useApi(api.suppliers.sheets);
  const [query, setQuery] = useSearchParams();
  const asked = query.get('open');
  const mayChange = useMay('set up');
  if (!sheets) return null;
  const isNew = asked === 'new';
  const open = isNew ? null : (sheets.find((s) => s.id === Number(asked)) ?? sheets[0] ?? null);
  const choose = (id: number | 'new' | null) =>
    setQuery({ show: 'suppliers', ...(id !== null && { open: String(id) }) });
  return (
    <div className="stack">
      {sheets.length || isNew ? (
        <PageButtons
          label={wording.supplierSheets}
          pages={[
            ...sheets.map((s) => [String(s.id), s.sheet.name] as const),
            ...(mayChange ? [['new', wording.newSupplierSheet] as const] : []),
          ]}
          chosen={isNew ? 'new' : String(open?.id ?? '')}
          onChoose={(id) => choose(id === 'new' ? 'new' : Number(id))}
        />
      ) : null}
      {sheets.length === 0 && !isNew ? (
        <div className="note information">
          <p>{wording.aSupplierSheetKeepsWhat}</p>
          {mayChange ? <Button onClick={() => choose('new')}>{wording.newSupplierSheet}</Button> : null}
        </div>
      ) : null}
      {open || isNew ? (
        <SheetForm
          key={open ? `${open.id} ${open.version}` : 'new'}
          row={open}
          mayChange={mayChange}
          onKept={choose}
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
  const { say, complain } = useShell();
  const typed = useTyped<SupplierSheet>({
    initial: row?.sheet ?? EMPTY,
    schema: sheetSchema,
    draft: draftOf('suppliers', wording.supplierSheet(row?.sheet.name ?? '').trim(), row?.id ?? 'new'),
  });
  const { value: sheet, set, problem } = typed;
  const [times, setTimes] = useState(0);
  const save = () =>
    typed.send(async (sent) => {
      const done = await (row
        ? call(api.suppliers.changeSheet, {
            params: { id: row.id },
            body: { version: row.version, sheet: sent },
          })
        : call(api.suppliers.keepSheet, { body: { sheet: sent } }));
      say(done.sentence, done.entry);
      onKept(done.id);
      await refresh();
    });
  const remove = async (of: SheetRow) => {
    try {
      const done = await call(api.suppliers.removeSheet, {
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
  const texts = (key: 'files' | 'organisations', label: string, help: string, example: string) => {
    const wrong = problem(key) ?? sheet[key].map((_, i) => problem(`${key}.${i}`)).find(Boolean);
    return (
      <KitField label={label} help={help} problem={wrong}>
        <PickMany
          list={null}
          placeholder={example}
          value={sheet[key]}
          disabled={!mayChange}
          status={wrong ? 'error' : ''}
          onChange={(value) => set({ [key]: value })}
        />
      </KitField>
    );
  };
  return (
    <section className="stack" aria-label={row?.sheet.name ?? wording.newSupplierSheet}>
      <KitGrid>
        <KitField label={wording.supplier} isRequired problem={problem('name')}>
          <Input value={sheet.name} disabled={!mayChange} onChange={(e) => set({ name: e.target.value })} />
        </KitField>
        {texts('files', 'File names it applies to', '* stands for anything', 'tallow*.mrc')}
        {texts('organisations', 'Organisation codes it applies to', 'in 003, 040 $a or $d', 'TallowPike')}
      </KitGrid>
      <SettingsForm
        key={times}
        value={settingsOf(sheet)}
        onChange={(settings) => set(settings)}
        problem={problem}
        disabled={!mayChange}
      />
      {mayChange ? (
        <KitBar
          typed={{
            ...typed,
            discard: () => {
              typed.discard();
              setTimes(times + 1);
            },
          }}
          verb={row ? wording.saveSupplierSheet : wording.addSupplierSheet}
          onSend={() => void save()}
          more={
            row ? (
              <Button danger className="kit-far" onClick={() => void remove(row)}>
                {wording.deleteSupplierSheet}
              </Button>
            ) : null
          }
        />
      ) : (
        <p className="faded">{wording.onlyTheHeadChangesThese}</p>
      )}
    </section>
  );
}
