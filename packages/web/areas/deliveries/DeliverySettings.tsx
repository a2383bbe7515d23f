import { api, type DeliverySummary } from '@osier/contract';
import { call } from '../../api/call';
import { settingsOf } from '@osier/core/deliveries';
import { Button, Drawer, Select } from 'antd';
import { useState } from 'react';
import { refresh, useApi } from '../../api/queries';
import { problemText, RequestProblem } from '../../api/request';
import { SettingsForm } from '../../parts/settings/SettingsForm';

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
  const [sheet, setSheet] = useState(summary.sheet?.id ?? null);
  const [settings, setSettings] = useState(summary.settings);
  const [problem, setProblem] = useState<RequestProblem | null>(null);
  const [failed, setFailed] = useState('');
  const [times, setTimes] = useState(0);
  const take = (id: number | null) => {
    const row = sheets.find((s) => s.id === id);
    setSheet(id);
    if (row) setSettings(settingsOf(row.sheet));
    setTimes(times + 1);
  };
  const save = async () => {
    try {
      await call(api.deliveries.saveSettings, {
        params: { id: summary.id },
        body: {
          version: summary.version,
          sheet,
          settings,
        },
      });
      onClose();
      await refresh();
    } catch (e) {
      if (e instanceof RequestProblem) setProblem(e);
      setFailed(problemText(e));
    }
  };
  return (
    <Drawer
      open
      onClose={onClose}
      title={`Settings of ${name}`}
      size="min(880px, 96vw)"
      footer={
        <div className="row spread">
          <span role="alert" className="field-problem">
            {failed}
          </span>
          <span className="row">
            <Button onClick={onClose}>Cancel</Button>
            {mayChange ? (
              <Button type="primary" onClick={() => void save()}>
                Keep for this delivery and match anew
              </Button>
            ) : null}
          </span>
        </div>
      }
    >
      <div className="stack">
        <p>
          {summary.sheet
            ? `They come from the supplier sheet “${summary.sheet.name}”, because ${summary.sheet.why}. What you change here holds for this delivery alone.`
            : 'No supplier sheet fits this file. Choose one, or set here what holds for this delivery alone.'}
        </p>
        <Select
          aria-label="Supplier sheet"
          value={sheet}
          disabled={!mayChange}
          onChange={take}
          options={[
            { value: null, label: 'no supplier sheet' },
            ...sheets.map((s) => ({ value: s.id, label: s.sheet.name })),
          ]}
        />
        <SettingsForm
          key={times}
          value={settings}
          onChange={setSettings}
          problem={problem}
          disabled={!mayChange}
        />
      </div>
    </Drawer>
  );
}
