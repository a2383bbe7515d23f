import type { RollRow } from '@osier/contract';
import type { CodeLists, CopyDefaults, CopyMapping, CopyPart } from '@osier/core/holdings';
import { Input, InputNumber, Select } from 'antd';
import { PriceInput } from '../PriceInput';
import { CodePicker } from '../CodePicker';
import { FieldProblem } from '../FieldProblem';
import { CodeTable } from './CodeTable';
import type { Editing } from './editing';

const PARTS: readonly (readonly [CopyPart, string])[] = [
  ['branch', 'branch'],
  ['location', 'location'],
  ['type', 'type'],
  ['class', 'class'],
  ['item', 'item part'],
  ['barcode', 'barcode'],
  ['part', 'part or volume'],
  ['number', 'copy number'],
  ['price', 'price'],
  ['fund', 'fund'],
  ['note', 'note'],
  ['copies', 'how many'],
];
const STATUSES: readonly CopyDefaults['status'][] = ['available', 'in transit', 'in repair', 'reserved'];

/** Where copies stand in the records, what they get that the records do not say, and where barcodes come from. */
export function CopyFields({
  value,
  onChange,
  problem,
  disabled,
  lists,
  rolls,
}: Editing & { lists: CodeLists; rolls: readonly RollRow[] }) {
  const { mapping, defaults } = value;
  const map = (part: Partial<CopyMapping>) => onChange({ ...value, mapping: { ...mapping, ...part } });
  const give = (part: Partial<CopyDefaults>) => onChange({ ...value, defaults: { ...defaults, ...part } });
  const one = (v: string | string[]) => (Array.isArray(v) ? (v[0] ?? '') : (v ?? ''));
  const status = (field: string) => (problem?.field(field) ? 'error' : '');
  return (
    <fieldset disabled={disabled}>
      <legend>Copies</legend>
      <div className="form-grid">
        <label>
          Field with the copies
          <Input
            aria-label="Field with the copies"
            className="mono"
            maxLength={3}
            value={mapping.tag}
            placeholder="none"
            disabled={disabled}
            onChange={(e) => map({ tag: e.target.value.trim() })}
          />
          <FieldProblem of={problem} field="mapping.tag" />
        </label>
        {mapping.tag === ''
          ? null
          : PARTS.map(([part, name]) => (
              <label key={part} className="subfield-code">
                {name}
                <Input
                  aria-label={`Subfield of the ${name}`}
                  className="mono"
                  prefix={(mapping.subfields[part] ?? '').length > 1 ? undefined : '$'}
                  maxLength={80}
                  value={mapping.subfields[part] ?? ''}
                  disabled={disabled}
                  onChange={(e) => map({ subfields: { ...mapping.subfields, [part]: e.target.value } })}
                />
                <FieldProblem of={problem} field={`mapping.${part}`} />
              </label>
            ))}
      </div>
      {mapping.tag === '' ? null : (
        <p className="faded">
          A letter is a subfield of that field. A field address such as <code>020$c</code> is read from
          anywhere in the record.
        </p>
      )}
      {mapping.tag === '852' ? (
        <p className="faded">
          Where a record has 876, each 876 is one copy at its 852, with barcode $p, part or volume $3, price
          $c, number $t.
        </p>
      ) : null}
      {mapping.tag === '' ? null : (
        <div className="form-grid">
          {(
            [
              ['branch', 'Their branches in our codes', lists.branches],
              ['location', 'Their locations in our codes', lists.locations],
              ['type', 'Their types in our codes', lists.types],
              ['fund', 'Their funds in our codes', lists.funds],
            ] as const
          ).map(([part, label, list]) => (
            <CodeTable
              key={part}
              label={label}
              list={list}
              table={mapping.tables[part] ?? {}}
              disabled={disabled}
              problem={problem?.field(`mapping.tables.${part}`)}
              onChange={(table) => map({ tables: { ...mapping.tables, [part]: table } })}
            />
          ))}
        </div>
      )}
      <h3>What the records do not say</h3>
      <div className="form-grid">
        {(
          [
            ['branch', 'Branch', lists.branches],
            [
              'location',
              'Location',
              lists.locations.filter((l) => l.branch === defaults.branch || defaults.branch === ''),
            ],
            ['type', 'Type', lists.types],
            ['fund', 'Fund', lists.funds],
            ['supplier', 'Supplier', lists.suppliers],
          ] as const
        ).map(([part, label, list]) => (
          <label key={part}>
            {label}
            <CodePicker
              label={label}
              list={list}
              optional={part === 'fund' || part === 'supplier'}
              placeholder={part === 'fund' || part === 'supplier' ? 'none' : undefined}
              disabled={disabled}
              value={defaults[part]}
              status={status(`defaults.${part}`)}
              onChange={(v) => give({ [part]: one(v) })}
            />
            <FieldProblem of={problem} field={`defaults.${part}`} />
          </label>
        ))}
        <label>
          Status
          <Select
            aria-label="Status"
            value={defaults.status}
            disabled={disabled}
            onChange={(s) => give({ status: s })}
            options={STATUSES.map((s) => ({ value: s, label: s }))}
          />
        </label>
        <label>
          Price
          <PriceInput
            placeholder="as the type"
            value={defaults.price}
            disabled={disabled}
            onChange={(price) => give({ price })}
          />
        </label>
        <label>
          Copies where the record has none
          <InputNumber
            aria-label="Copies where the record has none"
            min={0}
            max={99}
            style={{ width: '100%' }}
            value={defaults.copies}
            disabled={disabled}
            onChange={(n) => give({ copies: n ?? 0 })}
          />
        </label>
        <label>
          Label roll
          <Select
            aria-label="Label roll"
            value={value.roll}
            disabled={disabled}
            status={status('roll')}
            onChange={(roll: number | null) => onChange({ ...value, roll })}
            options={[
              { value: null, label: 'none' },
              ...rolls.map((r) => ({
                value: r.id,
                label: `${r.roll.name} (${r.left.toLocaleString('en-GB')} left)`,
              })),
            ]}
          />
          <FieldProblem of={problem} field="roll" />
        </label>
      </div>
    </fieldset>
  );
}
