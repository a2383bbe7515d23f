import type { RollRow } from '@osier/contract';
import type { CodeLists, CopyDefaults, CopyMapping, CopyPart } from '@osier/core/holdings';
import { Input, InputNumber, Select } from 'antd';
import { CodePicker } from '../CodePicker';
import { KitField, KitGrid, KitSection } from '../form/KitField';
import { PriceInput } from '../PriceInput';
import { CodeTable } from './CodeTable';
import type { Editing } from './editing';

const PARTS: readonly (readonly [CopyPart, string])[] = [
  ['branch', 'Branch'],
  ['location', 'Location'],
  ['type', 'Type'],
  ['class', 'Class'],
  ['item', 'Author mark'],
  ['barcode', 'Barcode'],
  ['part', 'Part or volume'],
  ['number', 'Copy number'],
  ['price', 'Price'],
  ['fund', 'Fund'],
  ['note', 'Note'],
  ['copies', 'Number of copies'],
];
const TABLES = [
  ['branch', 'branches', 'Their branches in our codes'],
  ['location', 'locations', 'Their locations in our codes'],
  ['type', 'types', 'Their types in our codes'],
  ['fund', 'funds', 'Their funds in our codes'],
] as const;
const DEFAULTS = [
  ['branch', 'branches', 'Branch'],
  ['location', 'locations', 'Location'],
  ['type', 'types', 'Type'],
  ['fund', 'funds', 'Fund'],
  ['supplier', 'suppliers', 'Supplier'],
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
    <KitSection title="Copies">
      <KitGrid isDense>
        <KitField label="Field with the copies" width="short" problem={problem('mapping.tag')}>
          <Input
            className="mono"
            maxLength={3}
            value={mapping.tag}
            placeholder="none"
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
            A letter is a subfield of that field. A field address such as <code>020$c</code> is read from
            anywhere in the record.
            {mapping.tag === '852'
              ? ' Where a record has 876, each 876 is one copy at its 852, with barcode $p, part or volume $3, price $c, number $t.'
              : ''}
          </p>
          <KitGrid>
            {TABLES.map(([part, list, label]) => (
              <KitField
                key={part}
                label={label}
                help="a line each"
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
      <h3>Where the records say nothing</h3>
      <KitGrid isDense>
        {DEFAULTS.map(([part, list, label]) => (
          <KitField key={part} label={label} problem={problem(`defaults.${part}`)}>
            <CodePicker
              list={part === 'location' ? locations : lists[list]}
              optional={isOptional(part)}
              placeholder={isOptional(part) ? 'none' : undefined}
              disabled={disabled}
              value={defaults[part]}
              onChange={(v) => give({ [part]: v })}
            />
          </KitField>
        ))}
        <KitField label="Status" problem={problem('defaults.status')}>
          <Select
            value={defaults.status}
            disabled={disabled}
            onChange={(s) => give({ status: s })}
            options={STATUSES.map((s) => ({ value: s, label: s }))}
          />
        </KitField>
        <KitField label="Price" problem={problem('defaults.price')}>
          <PriceInput
            placeholder="as the type"
            value={defaults.price}
            disabled={disabled}
            onChange={(price) => give({ price })}
          />
        </KitField>
        <KitField
          label="Copies"
          help="where the record has none"
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
        <KitField label="Label roll" problem={problem('roll')}>
          <Select
            value={value.roll}
            disabled={disabled}
            popupMatchSelectWidth={false}
            onChange={(roll: number | null) => onChange({ ...value, roll })}
            options={[
              { value: null, label: 'none' },
              ...rolls.map((r) => ({
                value: r.id,
                label: `${r.roll.name} (${r.left.toLocaleString('en-GB')} left)`,
              })),
            ]}
          />
        </KitField>
      </KitGrid>
    </KitSection>
  );
}
