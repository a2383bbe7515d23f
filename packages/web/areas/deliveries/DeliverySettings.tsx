import { api, type DeliverySummary } from '@osier/contract';
import { call } from '../../api/call';
import { settingsOf, type DeliverySettings } from '@osier/core/deliveries';
import { Drawer, Select } from 'antd';
import { useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { useTyped } from '../../parts/form/use-typed';
import { KitBar } from '../../parts/form/KitBar';
import { KitField } from '../../parts/form/KitField';
import { SettingsForm } from '../../parts/settings/SettingsForm';
import { deliveriesWords as wording } from './words';

/** The settings of one delivery: those of its supplier's sheet, changed for this time. Keeping them matches it anew. */
export function DeliverySettingsSheet({
  name,
  summary,
  mayChange,
  onClose,
}: {
  name: string;
  summary: DeliverySummary;
  mayChange: boolean;
  onClose: () => void;
}) {
  const { data: sheets = [] } = useApi(api.suppliers.sheets);
  const [times, setTimes] = useState(0);
  const typed = useTyped<{ sheet: number | null; settings: DeliverySettings }>({
    initial: { sheet: summary.sheet?.id ?? null, settings: summary.settings },
    draft: {
      key: `delivery settings ${summary.id}`,
      title: wording.settingsOf(name),
      path: `/deliveries/${summary.id}`,
      isOfKept: true,
    },
  });
  const { sheet, settings } = typed.value;
  const take = (id: number | null) => {
    const row = sheets.find((s) => s.id === id);
    typed.set({ sheet: id, ...(row && { settings: settingsOf(row.sheet) }) });
    setTimes(times + 1);
  };
  const save = async () => {
    const isSaved = await typed.send((body) =>
      call(api.deliveries.saveSettings, {
        params: { id: summary.id },
        body: { version: summary.version, ...body },
      }),
    );
    if (!isSaved) return;
    onClose();
    await refresh();
  };
  return (
    <Drawer
      open
      onClose={onClose}
      title={wording.settingsOf(name)}
      size="min(880px, 96vw)"
      footer={
        mayChange ? (
          <KitBar
            typed={typed}
            verb={wording.saveForThisDeliveryAnd}
            onSend={() => void save()}
            onCancel={onClose}
          />
        ) : null
      }
    >
      <div className="stack">
        <p>
          {summary.sheet
            ? wording.fromTheSupplierSheetBecause(summary.sheet.name, summary.sheet.why)
            : wording.noSupplierSheetAppliesTo}
        </p>
        <KitField label={wording.supplierSheet} problem={typed.problem('sheet')}>
          <Select
            value={sheet}
            disabled={!mayChange}
            style={{ maxWidth: 360 }}
            onChange={take}
            options={[
              { value: null, label: wording.noSupplierSheet2 },
              ...sheets.map((s) => ({ value: s.id, label: s.sheet.name })),
            ]}
          />
        </KitField>
        <SettingsForm
          key={times}
          value={settings}
          onChange={(next) => typed.set({ settings: next })}
          problem={typed.problem}
          disabled={!mayChange}
        />
      </div>
    </Drawer>
  );
}
