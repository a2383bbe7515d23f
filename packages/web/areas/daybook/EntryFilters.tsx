import { ACT_AREAS, ACT_KINDS, ACT_NAMES } from '@osier/core/acts';
import { DatePicker, Input, Select } from 'antd';
import dayjs from 'dayjs';
import { useSetUp } from '../setup/use-set-up';
import { daybookWords as wording } from './words';

/** What narrows the daybook, as it stands in the address. */
export const FILTERS = ['person', 'area', 'act', 'from', 'to', 'object'] as const;
export type Filters = Readonly<Partial<Record<(typeof FILTERS)[number], string>>>;

const DAY = 'YYYY-MM-DD';
const kinds = ACT_NAMES.filter((act) => ACT_KINDS[act].area !== null);

/** Narrows the daybook by person, area, kind of act, days, and what was touched. */
export function EntryFilters({
  filters,
  problem,
  onChange,
}: {
  filters: Filters;
  /** What is wrong with the object that is looked for. */
  problem: string | null;
  onChange: (changes: Filters) => void;
}) {
  const people = useSetUp()?.people ?? [];
  const acts = kinds.filter((act) => !filters.area || ACT_KINDS[act].area === filters.area);
  return (
    <div className="facets entry-filters">
      <Select
        aria-label={wording.person}
        allowClear
        placeholder={wording.anybody}
        value={filters.person ?? null}
        popupMatchSelectWidth={false}
        onChange={(person: string | undefined) => onChange({ person })}
        options={people.map((p) => ({ value: String(p.id), label: p.name }))}
      />
      <Select
        aria-label={wording.area}
        allowClear
        placeholder={wording.allAreas}
        value={filters.area ?? null}
        popupMatchSelectWidth={false}
        onChange={(area: string | undefined) => onChange({ area, act: undefined })}
        options={ACT_AREAS.map((area) => ({ value: area, label: area }))}
      />
      <Select
        aria-label={wording.kindOfAct}
        allowClear
        showSearch={{ optionFilterProp: 'label' }}
        placeholder={wording.allActs}
        value={filters.act ?? null}
        popupMatchSelectWidth={false}
        onChange={(act: string | undefined) => onChange({ act })}
        options={acts.map((act) => ({ value: act, label: ACT_KINDS[act].name }))}
      />
      <DatePicker.RangePicker
        aria-label={wording.days}
        format={DAY}
        allowEmpty={[true, true]}
        placeholder={[wording.fromDay, wording.toDay]}
        value={[filters.from ? dayjs(filters.from) : null, filters.to ? dayjs(filters.to) : null]}
        onChange={(days) => onChange({ from: days?.[0]?.format(DAY), to: days?.[1]?.format(DAY) })}
      />
      <Input.Search
        key={filters.object}
        aria-label={wording.recordHeadingOrBarcode}
        placeholder={wording.r12H3OrABarcode}
        data-takes-codes="text"
        allowClear
        defaultValue={filters.object}
        status={problem ? 'error' : ''}
        onSearch={(object) => onChange({ object: object.trim() || undefined })}
      />
      {problem ? (
        <p className="field-problem" role="alert">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
