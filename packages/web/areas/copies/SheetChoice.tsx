import { api, type Done } from '@osier/contract';
import { LABEL_SHEETS, labelSheetProblems, type LabelSheet } from '@osier/core/labels';
import { Button, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import { call } from '../../api/call';
import { refresh, useApi } from '../../api/queries';
import { problemText } from '../../api/request';
import { KitField, KitGrid, KitSection } from '../../parts/form/KitField';
import { useMay } from '../../shell/person';
import { useShell } from '../../shell/shell-store';
import { copiesWords as wording } from './words';

type Length = Exclude<keyof LabelSheet, 'name'>;
/** The measures of a sheet, as they are asked for. */
export const SHEET_LENGTHS: readonly Length[] = [
  ...(['columns', 'rows', 'width', 'height', 'left', 'top'] as const),
  ...(['gapX', 'gapY', 'pageWidth', 'pageHeight'] as const),
];
const isSame = (a: LabelSheet, b: LabelSheet) => SHEET_LENGTHS.every((l) => a[l] === b[l]);

/** The sheet that labels are printed on: one that comes along, one that the library keeps, or measures of one's own, which can be kept under a name. */
export function SheetChoice({ sheet, onSheet }: { sheet: LabelSheet; onSheet: (sheet: LabelSheet) => void }) {
  const { data: kept = [] } = useApi(api.labels.sheets);
  const { say, complain } = useShell();
  const mayKeep = useMay('edit copies');
  const [name, setName] = useState('');
  const wrong = labelSheetProblems(sheet);
  // One that somebody has changed since it was chosen is not that sheet any more.
  const isIt = (s: LabelSheet) => s.name === sheet.name && isSame(s, sheet);
  const own = kept.find((k) => isIt(k.sheet));
  const isKnown = LABEL_SHEETS.some(isIt) || own !== undefined;
  const named = kept.find((k) => k.sheet.name.toLowerCase() === name.trim().toLowerCase());
  const act = async (doing: Promise<Done>) => {
    try {
      const { sentence, entry } = await doing;
      say(sentence, entry);
      setName('');
      await refresh();
      return true;
    } catch (e) {
      complain(problemText(e));
      return false;
    }
  };
  const keep = async () => {
    const next = { ...sheet, name: name.trim() };
    const body = { sheet: next, ...(named && { id: named.id, version: named.version }) };
    if (await act(call(api.labels.keepSheet, { body }))) onSheet(next);
  };
  return (
    <KitSection title={wording.sheetOfLabels} intro={wording.allInMillimetres}>
      <KitGrid isDense>
        <KitField label={wording.beginFromSheet}>
          <Select
            value={isKnown ? sheet.name : undefined}
            placeholder={wording.ownSheet}
            popupMatchSelectWidth={false}
            options={[
              ...(kept.length
                ? [
                    {
                      label: wording.keptSheets,
                      options: kept.map((k) => ({ value: k.sheet.name, label: k.sheet.name })),
                    },
                  ]
                : []),
              {
                label: wording.sheetsToBeginWith,
                options: LABEL_SHEETS.map((s) => ({ value: s.name, label: s.name })),
              },
            ]}
            onChange={(chosen: string) =>
              onSheet(
                kept.find((k) => k.sheet.name === chosen)?.sheet ??
                  LABEL_SHEETS.find((s) => s.name === chosen) ??
                  sheet,
              )
            }
          />
        </KitField>
        {SHEET_LENGTHS.map((length) => (
          <KitField
            key={length}
            label={wording.sheetLengths[length]}
            width="short"
            problem={wrong.find((p) => p.field === length)?.message}
          >
            <InputNumber
              min={0}
              max={1000}
              step={length === 'columns' || length === 'rows' ? 1 : 0.1}
              controls={false}
              style={{ width: '100%' }}
              value={sheet[length]}
              onChange={(n) => {
                // A kept sheet whose measures are changed is offered to be kept under its name again.
                if (own) setName(own.sheet.name);
                onSheet({ ...sheet, name: '', [length]: n ?? 0 });
              }}
            />
          </KitField>
        ))}
      </KitGrid>
      {mayKeep && !isKnown && wrong.length === 0 ? (
        <div className="row">
          <Input
            aria-label={wording.nameOfTheSheet}
            placeholder={wording.nameOfTheSheet}
            maxLength={80}
            style={{ maxWidth: 220 }}
            value={name}
            onChange={(e) => setName(e.target.value)}
            onPressEnter={() => name.trim() && void keep()}
          />
          <Button
            disabled={name.trim() === '' || (named && isSame(named.sheet, sheet))}
            onClick={() => void keep()}
          >
            {named ? wording.changeKeptSheet : wording.keepSheet}
          </Button>
        </div>
      ) : null}
      {mayKeep && own ? (
        <Button
          onClick={() =>
            void act(call(api.labels.removeSheet, { params: { id: own.id }, body: { version: own.version } }))
          }
        >
          {wording.deleteSheet}
        </Button>
      ) : null}
    </KitSection>
  );
}
