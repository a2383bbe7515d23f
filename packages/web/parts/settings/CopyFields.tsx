import type { RollRow } from '@osier/contract';
import type { CodeLists, CopyDefaults, CopyMapping, CopyPart } from '@osier/core/holdings';
import { Input, InputNumber, Select } from 'antd';
import { CodePicker } from '../CodePicker';
import { KitField, KitGrid, KitSection } from '../form/KitField';
import { PriceInput } from '../PriceInput';
import { CodeTable } from './CodeTable';
import type { Editing } from './editing';
import { partWords as wording } from '../words';

const PARTS: readonly (readonly [CopyPart, string])[] = [
  ['branch', wording.branch],
  ['location', wording.location],
  ['type', wording.type],
  ['class', wording.class],
  ['item', wording.authorMark],
  ['barcode', wording.barcode],
  ['part', wording.partOrVolume],
  ['number', wording.copyNumber],
  ['price', wording.price],
  ['fund', wording.fund],
  ['note', wording.note],
  ['staffNote', wording.staffNote],
  ['supplier', wording.supplier],
  ['acquired', wording.acquired],
  ['condition', wording.condition],
  ['loanRule', wording.loanRule],
  ['status', wording.status],
  ['copies', wording.numberOfCopies],
];
const TABLES = [
  ['branch', 'branches', wording.theirBranchesInOurCodes],
  ['location', 'locations', wording.theirLocationsInOurCodes],
  ['type', 'types', wording.theirTypesInOurCodes],
  ['fund', 'funds', wording.theirFundsInOurCodes],
] as const;
const DEFAULTS = [
  ['branch', 'branches', wording.branch],
  ['location', 'locations', wording.location],
  ['type', 'types', wording.type],
  ['fund', 'funds', wording.fund],
  ['supplier', 'suppliers', wording.supplier],
] as const;
const STATUSES: readonly CopyDefaults['status'][] = ['available', 'in transit', 'in repair', 'reserved'];

/** Where copies stand in the records, what they get that the records do not say, and where barcodes come from. */
export function CopyFields({
  value,
  onChange,
  problem,
  disabled = false,
  lists,
  rolls,
}: Editing & { lists: CodeLists; rolls: readonly RollRow[] }) {
  const { mapping, defaults } = value;
  const map = (part: Partial<CopyMapping>) => onChange({ ...value, mapping: { ...mapping, ...part } });
  const give = (part: Partial<CopyDefaults>) => onChange({ ...value, defaults: { ...defaults, ...part } });
  const locations = lists.locations.filter((l) => l.branch === defaults.branch || defaults.branch === '');
  const isOptional = (part: string) => part === 'fund' || part === 'supplier';
  return (
    <KitSection title={wording.copies}>
      <KitGrid isDense>
        <KitField label={wording.fieldWithTheCopies} width="short" problem={problem('mapping.tag')}>
          <Input
            className="mono"
            maxLength={3}
            value={mapping.tag}
            placeholder={wording.none}
            disabled={disabled}
            onChange={(e) => map({ tag: e.target.value.trim() })}
          />
        </KitField>
        {mapping.tag === ''
          ? null
          : PARTS.map(([part, name]) => (
              <KitField
                key={part}
                label={name}
                width="short"
                problem={problem(`mapping.${part}`) ?? problem(`mapping.subfields.${part}`)}
              >
                <Input
                  className="mono"
                  prefix={(mapping.subfields[part] ?? '').length > 1 ? undefined : '$'}
                  maxLength={80}
                  value={mapping.subfields[part] ?? ''}
                  disabled={disabled}
                  onChange={(e) => map({ subfields: { ...mapping.subfields, [part]: e.target.value } })}
                />
              </KitField>
            ))}
      </KitGrid>
      {mapping.tag === '' ? null : (
        <>
          <p className="faded">
            {wording.aLetterIsASubfield} <code>020$c</code>{' '}
            {wording.isReadFromAnywhereIn(mapping.tag === '852' ? wording.whereARecordHas876 : '')}
          </p>
          <KitGrid>
            {TABLES.map(([part, list, label]) => (
              <KitField
                key={part}
                label={label}
                help={wording.aLineEach}
                problem={problem(`mapping.tables.${part}`)}
              >
                <CodeTable
                  ours={lists[list][0]?.code ?? 'ours'}
                  table={mapping.tables[part] ?? {}}
                  disabled={disabled}
                  onChange={(table) => map({ tables: { ...mapping.tables, [part]: table } })}
                />
              </KitField>
            ))}
          </KitGrid>
        </>
      )}
      <h3>{wording.whereTheRecordsSayNothing}</h3>
      <KitGrid isDense>
        {DEFAULTS.map(([part, list, label]) => (
          <KitField key={part} label={label} problem={problem(`defaults.${part}`)}>
            <CodePicker
              list={part === 'location' ? locations : lists[list]}
              optional={isOptional(part)}
              placeholder={isOptional(part) ? wording.none : undefined}
              disabled={disabled}
              value={defaults[part]}
              onChange={(v) => give({ [part]: v })}
            />
          </KitField>
        ))}
        <KitField label={wording.status} problem={problem('defaults.status')}>
          <Select
            value={defaults.status}
            disabled={disabled}
            onChange={(s) => give({ status: s })}
            options={STATUSES.map((s) => ({ value: s, label: s }))}
          />
        </KitField>
        <KitField label={wording.price} problem={problem('defaults.price')}>
          <PriceInput
            placeholder={wording.asTheType}
            value={defaults.price}
            disabled={disabled}
            onChange={(price) => give({ price })}
          />
        </KitField>
        <KitField
          label={wording.copies}
          help={wording.whereTheRecordHasNone}
          width="short"
          problem={problem('defaults.copies')}
        >
          <InputNumber
            min={0}
            max={99}
            controls={false}
            style={{ width: '100%' }}
            value={defaults.copies}
            disabled={disabled}
            onChange={(n) => give({ copies: n ?? 0 })}
          />
        </KitField>
        <KitField label={wording.labelRoll} problem={problem('roll')}>
          <Select
            value={value.roll}
            disabled={disabled}
            popupMatchSelectWidth={false}
            onChange={(roll: number | null) => onChange({ ...value, roll })}
            options={[
              { value: null, label: wording.none },
              ...rolls
                .filter((r) => !r.roll.isClosed || r.id === value.roll)
                .map((r) => ({
                  value: r.id,
                  label: wording.left(r.roll.name, r.counts.left.toLocaleString('en-GB')),
                })),
            ]}
          />
        </KitField>
      </KitGrid>
    </KitSection>
  );
}
