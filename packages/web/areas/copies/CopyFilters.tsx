import { SCHEMES } from '@osier/core/callnumbers';
import { COPY_STATUSES } from '@osier/core/holdings';
import { FilterOutlined } from '@ant-design/icons';
import { Button, Checkbox, Input, Popover, Select } from 'antd';
import { lazy, Suspense } from 'react';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { useLocalFields } from '../../parts/local-fields';
import { useSetUp } from '../setup/use-set-up';
import { copiesWords as wording } from './words';

const DateField = lazy(() => import('../../parts/form/DateField'));

/** The parts of a search for copies, as they stand in the address. */
export const COPY_FILTERS = [
  ...(['q', 'barcode', 'branch', 'location', 'type', 'status', 'fund', 'supplier'] as const),
  ...(['numberFrom', 'numberTo', 'scheme', 'acquiredFrom', 'acquiredTo', 'notSeenSince'] as const),
  ...(['notLentSince', 'noPrice', 'unread', 'pile', 'local', 'localValue'] as const),
];
export type CopyFilter = (typeof COPY_FILTERS)[number];
export type CopyFilterValues = Readonly<Partial<Record<CopyFilter, string>>>;
/** Those that an address has. */
export const filtersIn = (query: URLSearchParams): CopyFilterValues =>
  Object.fromEntries(
    COPY_FILTERS.flatMap((k) => {
      const value = query.get(k);
      return value ? [[k, value]] : [];
    }),
  );

/** What narrows a list of copies: place, type and status on a line, the rest below a button that says how much of it is chosen. */
export function CopyFilters({
  values,
  onChange,
}: {
  values: CopyFilterValues;
  onChange: (parts: Readonly<Partial<Record<CopyFilter, string | undefined>>>) => void;
}) {
  const lists = useSetUp()?.lists.value;
  const localFields = useLocalFields();
  const local = localFields.find((f) => String(f.id) === values.local)?.field;
  const pick = (
    key: CopyFilter,
    label: string,
    options: readonly { readonly code: string; readonly name: string }[],
    width: number,
  ) => (
    <Select<string>
      key={key}
      aria-label={label}
      placeholder={label}
      allowClear
      showSearch={{ optionFilterProp: 'label' }}
      popupMatchSelectWidth={false}
      size="small"
      style={{ width }}
      value={values[key] ?? null}
      onChange={(v: string | undefined) =>
        onChange({ [key]: v, ...(key === 'branch' && { location: undefined }) })
      }
      options={options.map((o) => ({ value: o.code, label: o.name }))}
    />
  );
  const text = (key: CopyFilter, label: string, help?: string) => (
    <KitField label={label} help={help}>
      <Input
        className="mono"
        defaultValue={values[key]}
        key={values[key] ?? ''}
        onPressEnter={(e) => onChange({ [key]: e.currentTarget.value.trim() || undefined })}
        onBlur={(e) => onChange({ [key]: e.currentTarget.value.trim() || undefined })}
      />
    </KitField>
  );
  const typed = (key: CopyFilter, label: string, width: number) => (
    <Input
      size="small"
      allowClear
      aria-label={label}
      placeholder={label}
      style={{ width }}
      defaultValue={values[key]}
      key={`${key} ${values[key] ?? ''}`}
      onPressEnter={(e) => onChange({ [key]: e.currentTarget.value.trim() || undefined })}
      onBlur={(e) => onChange({ [key]: e.currentTarget.value.trim() || undefined })}
    />
  );
  const day = (key: CopyFilter, label: string) => (
    <KitField label={label}>
      <DateField value={values[key] ?? ''} onChange={(v) => onChange({ [key]: v || undefined })} />
    </KitField>
  );
  const below: readonly CopyFilter[] = [
    ...(['numberFrom', 'numberTo', 'fund', 'supplier', 'acquiredFrom', 'acquiredTo'] as const),
    ...(['notSeenSince', 'notLentSince', 'noPrice', 'unread', 'local'] as const),
  ];
  const chosen = below.filter((k) => values[k]).length;
  const locations = (lists?.locations ?? []).filter((l) => !values.branch || l.branch === values.branch);
  const more = (
    <div className="copy-filters-more">
      <Suspense fallback={null}>
        <KitGrid isDense>
          {text('numberFrom', wording.callNumberFrom)}
          {text('numberTo', wording.callNumberTo, wording.withAllThatFollows)}
          <KitField label={wording.scheme}>
            <Select
              value={values.scheme ?? 'dewey'}
              options={SCHEMES.map((value) => ({
                value,
                label: wording.schemes[value],
              }))}
              onChange={(v: string) => onChange({ scheme: v === 'dewey' ? undefined : v })}
            />
          </KitField>
          <KitField label={wording.fund}>{pick('fund', wording.fund, lists?.funds ?? [], 180)}</KitField>
          <KitField label={wording.supplier}>
            {pick('supplier', wording.supplier, lists?.suppliers ?? [], 180)}
          </KitField>
          {day('acquiredFrom', wording.acquiredFrom)}
          {day('acquiredTo', wording.acquiredTo)}
          {day('notSeenSince', wording.notSeenSince)}
          {day('notLentSince', wording.notLentSince)}
          {localFields.length ? (
            <KitField label={wording.localField}>
              <Select<string>
                allowClear
                popupMatchSelectWidth={false}
                size="small"
                style={{ width: 180 }}
                value={values.local ?? null}
                onChange={(v: string | undefined) => onChange({ local: v, localValue: undefined })}
                options={localFields.map((f) => ({ value: String(f.id), label: f.field.name }))}
              />
            </KitField>
          ) : null}
          {local?.form === 'choice' ? (
            <KitField label={wording.whatIsInIt} help={wording.emptyForAnything}>
              {pick(
                'localValue',
                wording.whatIsInIt,
                local.choices.map((c) => ({ code: c, name: c })),
                180,
              )}
            </KitField>
          ) : local ? (
            text('localValue', wording.whatIsInIt, wording.emptyForAnything)
          ) : null}
        </KitGrid>
      </Suspense>
      {(['noPrice', 'unread'] as const).map((key) => (
        <Checkbox
          key={key}
          checked={values[key] === 'yes'}
          onChange={(e) => onChange({ [key]: e.target.checked ? 'yes' : undefined })}
        >
          {wording[key]}
        </Checkbox>
      ))}
    </div>
  );
  const isNarrowed = COPY_FILTERS.some((k) => k !== 'scheme' && values[k]);
  return (
    <>
      {typed('q', wording.titleOrQuery, 190)}
      {typed('barcode', wording.partOfABarcode, 136)}
      {pick('branch', wording.branch, lists?.branches ?? [], 110)}
      {pick('location', wording.location, locations, 110)}
      {pick('type', wording.type, lists?.types ?? [], 90)}
      {pick(
        'status',
        wording.status,
        COPY_STATUSES.map((s) => ({ code: s, name: s })),
        95,
      )}
      <Popover trigger="click" placement="bottomLeft" content={more}>
        <Button size="small" icon={<FilterOutlined />} data-key="f">
          {chosen ? wording.moreFiltersChosen(chosen) : wording.moreFilters}
        </Button>
      </Popover>
      {isNarrowed ? (
        <Button
          size="small"
          onClick={() => onChange(Object.fromEntries(COPY_FILTERS.map((k) => [k, undefined])))}
        >
          {wording.clearFilters}
        </Button>
      ) : null}
    </>
  );
}
