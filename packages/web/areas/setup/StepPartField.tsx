import { CHECKS } from '@osier/core/checks';
import { fieldName } from '@osier/core/format';
import type { Field } from '@osier/core/marc';
import type { BuiltPart, StepPart, TextMatch } from '@osier/core/recipes';
import { Checkbox, Input, InputNumber, Select } from 'antd';
import { KitField } from '../../parts/form/KitField';
import { CodeTable } from '../../parts/settings/CodeTable';
import { SubfieldLines } from './SubfieldLines';
import { setUpWords as wording } from './words';

interface Props {
  readonly part: StepPart;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}

const WHICH = [
  { value: 'all', label: wording.all },
  { value: 'first', label: wording.theFirst },
  { value: 'last', label: wording.theLast },
];
const FIXABLE = CHECKS.map((c) => ({ value: c.rule, label: c.title }));
const capital = (name: string) => name.charAt(0).toUpperCase() + name.slice(1);

/** One thing that a step asks for. */
export function StepPartField({ part, value, onChange }: Props) {
  const { kind, optional } = part;
  const name = capital(part.name);
  const text = typeof value === 'string' ? value : '';
  switch (kind) {
    case 'flag':
      return (
        <KitField label="">
          <Checkbox checked={value === true} onChange={(e) => onChange(e.target.checked)}>
            {name}
          </Checkbox>
        </KitField>
      );
    case 'match':
      return <MatchField name={name} value={value as TextMatch | undefined} {...{ optional, onChange }} />;
    case 'field':
      return <FieldInput value={value as Field} onChange={onChange} />;
    case 'built parts':
      return (
        <SubfieldLines
          label={wording.subfields}
          help={wording.aLineEachAText}
          lines={(value as readonly BuiltPart[]).map((p) => [p.code, p.template])}
          onChange={(lines) => onChange(lines.map(([code, template]) => ({ code, template })))}
        />
      );
    case 'table':
      return (
        <KitField label={wording.table} help={wording.aLineEach} width="wide">
          <CodeTable ours="ours" table={value as Record<string, string>} onChange={onChange} />
        </KitField>
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
        <KitField label={name} {...(kind === 'check' && { width: 'wide' })}>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            value={text || undefined}
            options={[...options]}
            onChange={onChange}
          />
        </KitField>
      );
    }
    case 'number':
      return (
        <KitField label={name} width="short">
          <InputNumber
            min={0}
            max={99}
            controls={false}
            style={{ width: '100%' }}
            value={typeof value === 'number' ? value : null}
            onChange={(n) => onChange(n ?? 0)}
          />
        </KitField>
      );
    case 'tags':
    case 'tag':
    case 'code':
    case 'codes':
      return (
        <KitField
          label={name}
          width="short"
          help={
            kind === 'tags' || kind === 'tag'
              ? /^\d{3}$/.test(text)
                ? fieldName(text)
                : wording.aPointStandsForAny
              : undefined
          }
        >
          <Input
            className="mono"
            prefix={kind === 'code' ? '$' : undefined}
            maxLength={kind === 'codes' ? 36 : kind === 'code' ? 1 : 3}
            placeholder={kind === 'tags' ? '6..' : undefined}
            value={text}
            onChange={(e) => onChange(e.target.value)}
          />
        </KitField>
      );
    case 'text':
      return (
        <KitField label={name}>
          <Input
            value={text}
            placeholder={optional ? wording.any : undefined}
            onChange={(e) => onChange(optional && e.target.value === '' ? undefined : e.target.value)}
          />
        </KitField>
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
    <KitField
      label={name}
      help={
        <Checkbox
          checked={value?.expression === true}
          onChange={(e) => put(e.target.checked ? { find, expression: true } : { find })}
        >
          {wording.regularExpression}
        </Checkbox>
      }
    >
      <Input
        className={value?.expression ? 'mono' : undefined}
        value={find}
        placeholder={optional ? wording.anything : undefined}
        onChange={(e) => put({ ...value, find: e.target.value })}
      />
    </KitField>
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
      <KitField
        label={wording.tag}
        width="short"
        help={/^\d{3}$/.test(value.tag) ? fieldName(value.tag) : undefined}
      >
        <Input className="mono" maxLength={3} value={value.tag} onChange={(e) => setTag(e.target.value)} />
      </KitField>
      {data ? (
        <KitField label={wording.indicators} width="short" help={wording.isBlank}>
          <Input
            className="mono"
            maxLength={2}
            value={(data.ind1 + data.ind2).replaceAll(' ', '#')}
            onChange={(e) => {
              const [ind1 = ' ', ind2 = ' '] = e.target.value.replaceAll('#', ' ');
              onChange({ ...data, ind1, ind2 });
            }}
          />
        </KitField>
      ) : null}
      {isControl || !data ? (
        <KitField label={wording.text} width="wide">
          <Input
            className="mono"
            value={'value' in value ? value.value : ''}
            onChange={(e) => onChange({ tag: value.tag, value: e.target.value })}
          />
        </KitField>
      ) : (
        <SubfieldLines
          label={wording.subfields}
          help={wording.aLineEachAText2}
          lines={data.subfields.map((s) => [s.code, s.value])}
          onChange={(lines) =>
            onChange({ ...data, subfields: lines.map(([code, text]) => ({ code, value: text })) })
          }
        />
      )}
    </>
  );
}
