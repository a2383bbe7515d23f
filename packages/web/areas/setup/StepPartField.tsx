import { CHECKS } from '@osier/core/checks';
import { fieldName } from '@osier/core/format';
import type { Field } from '@osier/core/marc';
import type { BuiltPart, StepPart, TextMatch } from '@osier/core/recipes';
import { Checkbox, Input, InputNumber, Select } from 'antd';
import { CodeTable } from '../../parts/settings/CodeTable';
import { SubfieldLines } from './SubfieldLines';

interface Props {
  readonly part: StepPart;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}

const WHICH = [
  { value: 'all', label: 'all' },
  { value: 'first', label: 'the first' },
  { value: 'last', label: 'the last' },
];
const FIXABLE = CHECKS.map((c) => ({ value: c.rule, label: c.title }));

/** One thing that a step asks for. */
export function StepPartField({ part, value, onChange }: Props) {
  const { kind, name, optional } = part;
  const text = typeof value === 'string' ? value : '';
  switch (kind) {
    case 'flag':
      return (
        <Checkbox checked={value === true} onChange={(e) => onChange(e.target.checked)}>
          {name}
        </Checkbox>
      );
    case 'match':
      return <MatchField name={name} value={value as TextMatch | undefined} {...{ optional, onChange }} />;
    case 'field':
      return <FieldInput value={value as Field} onChange={onChange} />;
    case 'built parts':
      return (
        <SubfieldLines
          label="Subfields; {245$a} stands for what is there"
          lines={(value as readonly BuiltPart[]).map((p) => [p.code, p.template])}
          onChange={(lines) => onChange(lines.map(([code, template]) => ({ code, template })))}
        />
      );
    case 'table':
      return (
        <CodeTable
          label="Table, a line each"
          list={[]}
          table={value as Record<string, string>}
          onChange={onChange}
        />
      );
    case 'which':
    case 'choice':
    case 'check': {
      const options =
        kind === 'which'
          ? WHICH
          : kind === 'check'
            ? FIXABLE
            : (part.choices ?? []).map(([v, label]) => ({ value: v, label }));
      return (
        <label className={kind === 'check' ? 'wide' : undefined}>
          {name}
          <Select
            aria-label={name}
            showSearch={{ optionFilterProp: 'label' }}
            value={(value as string) || undefined}
            options={options as { value: string; label: string }[]}
            onChange={onChange}
          />
        </label>
      );
    }
    case 'number':
      return (
        <label>
          {name}
          <InputNumber
            aria-label={name}
            min={0}
            max={99}
            value={value as number}
            onChange={(n) => onChange(n ?? 0)}
          />
        </label>
      );
    case 'tags':
    case 'tag':
    case 'code':
    case 'codes':
      return (
        <label>
          {name}
          <Input
            className="mono"
            prefix={kind === 'code' ? '$' : undefined}
            maxLength={kind === 'codes' ? 36 : kind === 'code' ? 1 : 3}
            placeholder={kind === 'tags' ? '6..' : undefined}
            value={text}
            onChange={(e) => onChange(e.target.value)}
          />
          {kind === 'tags' || kind === 'tag' ? (
            <span className="faded">{/^\d{3}$/.test(text) ? fieldName(text) : '. is any digit'}</span>
          ) : null}
        </label>
      );
    case 'text':
      return (
        <label>
          {name}
          <Input
            value={text}
            placeholder={optional ? 'any' : undefined}
            onChange={(e) => onChange(optional && e.target.value === '' ? undefined : e.target.value)}
          />
        </label>
      );
  }
}

function MatchField({
  name,
  value,
  optional,
  onChange,
}: {
  name: string;
  value: TextMatch | undefined;
  optional?: boolean;
  onChange: (value: TextMatch | undefined) => void;
}) {
  const find = value?.find ?? '';
  const put = (next: TextMatch) =>
    onChange(optional && next.find === '' && !next.expression ? undefined : next);
  return (
    <div className="match-field">
      <label className="block">
        {name}
        <Input
          className={value?.expression ? 'mono' : undefined}
          value={find}
          placeholder={optional ? 'anything' : undefined}
          onChange={(e) => put({ ...value, find: e.target.value })}
        />
      </label>
      <Checkbox
        checked={value?.expression === true}
        onChange={(e) => put(e.target.checked ? { find, expression: true } : { find })}
      >
        a regular expression
      </Checkbox>
    </div>
  );
}

/** A field that is added: tag, indicators, and its subfields a line each. */
function FieldInput({ value, onChange }: { value: Field; onChange: (field: Field) => void }) {
  const isControl = value.tag.startsWith('00');
  const data = 'subfields' in value ? value : null;
  const setTag = (tag: string) => {
    if (tag.startsWith('00')) onChange({ tag, value: 'value' in value ? value.value : '' });
    else
      onChange({
        tag,
        ind1: data?.ind1 ?? ' ',
        ind2: data?.ind2 ?? ' ',
        subfields: data?.subfields ?? [{ code: 'a', value: '' }],
      });
  };
  return (
    <>
      <label>
        tag
        <Input className="mono" maxLength={3} value={value.tag} onChange={(e) => setTag(e.target.value)} />
        <span className="faded">{/^\d{3}$/.test(value.tag) ? fieldName(value.tag) : ''}</span>
      </label>
      {data ? (
        <label>
          indicators
          <Input
            className="mono"
            maxLength={2}
            value={(data.ind1 + data.ind2).replaceAll(' ', '#')}
            onChange={(e) => {
              const [ind1 = ' ', ind2 = ' '] = e.target.value.replaceAll('#', ' ');
              onChange({ ...data, ind1, ind2 });
            }}
          />
          <span className="faded"># is blank</span>
        </label>
      ) : null}
      {isControl || !data ? (
        <label className="wide">
          text
          <Input
            className="mono"
            value={'value' in value ? value.value : ''}
            onChange={(e) => onChange({ tag: value.tag, value: e.target.value })}
          />
        </label>
      ) : (
        <SubfieldLines
          label="Subfields"
          lines={data.subfields.map((s) => [s.code, s.value])}
          onChange={(lines) =>
            onChange({ ...data, subfields: lines.map(([code, text]) => ({ code, value: text })) })
          }
        />
      )}
    </>
  );
}
