import type { HouseBody } from '@osier/contract';
import { LAST_COPY, type LastCopy } from '@osier/core/house';
import { Checkbox, InputNumber, Select } from 'antd';
import { KitField, KitGrid } from '../../parts/form/KitField';
import { PickMany } from '../../parts/form/PickMany';
import { PriceInput } from '../../parts/PriceInput';
import { useSetUp } from './use-set-up';
import { setUpWords as wording } from './words';

const LAST_COPIES = LAST_COPY.map((value) => ({ value, label: wording.lastCopies[value] }));
type Limits = HouseBody['withdrawals'];

/** When a copy is looked at twice before it is withdrawn, and what becomes of records without copies. */
export function WithdrawalRules({
  limits,
  disabled,
  problem,
  onChange,
}: {
  limits: Limits;
  disabled: boolean;
  problem: (name: keyof Limits) => string | undefined;
  onChange: (next: Limits) => void;
}) {
  const { locations = [], branches = [] } = useSetUp()?.lists.value ?? {};
  const setAt = (branch: string, lastCopy: LastCopy | undefined) => {
    const others = limits.lastCopyAt.filter((a) => a.branch !== branch);
    set({ lastCopyAt: lastCopy ? [...others, { branch, lastCopy }] : others });
  };
  const set = (part: Partial<Limits>) => onChange({ ...limits, ...part });
  return (
    <KitGrid>
      <KitField
        label={wording.priceAbove}
        help={wording.priceAboveHelp}
        width="short"
        problem={problem('priceAbove')}
      >
        <PriceInput
          value={limits.priceAbove ?? null}
          disabled={disabled}
          onChange={(priceAbove) => set({ priceAbove })}
        />
      </KitField>
      <KitField
        label={wording.youngerThan}
        help={wording.youngerThanHelp}
        width="short"
        problem={problem('youngerThan')}
      >
        <InputNumber
          min={0}
          max={240}
          controls={false}
          style={{ width: '100%' }}
          value={limits.youngerThan}
          disabled={disabled}
          onChange={(v) => set({ youngerThan: v ?? 0 })}
        />
      </KitField>
      <KitField label={wording.recordsWithoutCopies} problem={problem('lastCopy')}>
        <Select
          value={limits.lastCopy}
          disabled={disabled}
          onChange={(lastCopy) => set({ lastCopy })}
          options={LAST_COPIES}
        />
      </KitField>
      {branches.map((b) => (
        <KitField key={b.code} label={wording.lastCopyAt(b.name)}>
          <Select
            allowClear
            placeholder={wording.asEverywhere}
            value={limits.lastCopyAt.find((a) => a.branch === b.code)?.lastCopy}
            disabled={disabled}
            onChange={(lastCopy?: LastCopy) => setAt(b.code, lastCopy)}
            options={LAST_COPIES}
          />
        </KitField>
      ))}
      <KitField
        label={wording.ownReasons}
        help={wording.ownReasonsHelp}
        width="wide"
        problem={problem('reasons')}
      >
        <PickMany
          list={null}
          placeholder={wording.ownReasonsExample}
          value={limits.reasons}
          disabled={disabled}
          onChange={(reasons) => set({ reasons })}
        />
      </KitField>
      <KitField
        label={wording.loansDesk}
        help={wording.tellLoansDeskHelp}
        width="wide"
        problem={problem('tellLoansDesk')}
      >
        <Checkbox
          checked={limits.tellLoansDesk}
          disabled={disabled}
          onChange={(e) => set({ tellLoansDesk: e.target.checked })}
        >
          {wording.tellLoansDesk}
        </Checkbox>
      </KitField>
      <KitField
        label={wording.keptLocations}
        help={wording.keptLocationsHelp}
        width="wide"
        problem={problem('locations')}
      >
        <PickMany
          list={locations}
          placeholder={wording.noKeptLocations}
          value={limits.locations}
          disabled={disabled}
          onChange={(value) => set({ locations: value })}
        />
      </KitField>
      <KitField
        label={wording.keptFields}
        help={wording.keptFieldsHelp}
        width="wide"
        problem={problem('fields')}
      >
        <PickMany
          list={null}
          placeholder="590"
          value={limits.fields}
          disabled={disabled}
          onChange={(value) => set({ fields: value })}
        />
      </KitField>
    </KitGrid>
  );
}
