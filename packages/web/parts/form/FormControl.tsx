import { AutoComplete, Checkbox, Input, InputNumber, Select } from 'antd';
import { lazy, Suspense } from 'react';
import type { FormField } from './field-kinds';
import { CostControl } from './CostControl';
import { PickMany } from './PickMany';
import { partWords as wording } from '../words';

const DateField = lazy(() => import('./DateField'));

/** What the form around a control gives it: its id, what it holds, and what is told of it to those who hear it. */
interface Bound {
  readonly id?: string;
  readonly autoFocus?: boolean;
  readonly value?: unknown;
  readonly onChange?: (value: unknown) => void;
  readonly onBlur?: () => void;
  readonly 'aria-required'?: 'true' | boolean;
  readonly 'aria-invalid'?: 'true' | boolean;
  readonly 'aria-describedby'?: string;
}

/** The control of a field; value and change come from the form around it. */
export function FormControl({ field, value, onChange: tell, ...told }: { field: FormField } & Bound) {
  const onChange = (next: unknown) => tell?.(next);
  const text = typeof value === 'string' ? value : '';
  switch (field.kind) {
    case 'number':
      return (
        <InputNumber
          {...told}
          min={field.min ?? 0}
          max={field.max}
          suffix={field.unit}
          controls={false}
          style={{ width: '100%' }}
          value={typeof value === 'number' ? value : null}
          onChange={(n) => onChange(n ?? undefined)}
        />
      );
    case 'choice':
    case 'code':
      return (
        <Select
          {...told}
          showSearch={field.kind === 'code' ? { optionFilterProp: 'label' } : false}
          placeholder={field.kind === 'code' ? (field.placeholder ?? wording.choose) : undefined}
          popupMatchSelectWidth={false}
          value={text || undefined}
          options={
            field.kind === 'choice'
              ? [...field.options]
              : field.list.map((e) => ({ value: e.code, label: `${e.code}  ${e.name}` }))
          }
          onChange={onChange}
        />
      );
    case 'codes':
    case 'tags':
      return (
        <PickMany
          {...told}
          list={field.kind === 'codes' ? field.list : null}
          placeholder={field.placeholder}
          value={Array.isArray(value) ? value.map(String) : []}
          onChange={onChange}
        />
      );
    case 'date':
      return (
        <Suspense fallback={<Input disabled />}>
          <DateField {...told} value={text} onChange={onChange} />
        </Suspense>
      );
    case 'lines':
      return (
        <Input.TextArea
          {...told}
          className="mono"
          rows={field.rows}
          spellCheck={false}
          value={text}
          onChange={(e) => onChange(e.target.value)}
          // Enter begins a line here and sends nothing.
          onKeyDown={(e) => e.key === 'Enter' && e.stopPropagation()}
        />
      );
    case 'price':
      return (
        <CostControl
          id={told.id}
          onBlur={told.onBlur}
          part={field.currency}
          price={typeof value === 'number' ? value : null}
          onPrice={onChange}
          aria-invalid={told['aria-invalid'] === true || told['aria-invalid'] === 'true'}
        />
      );
    case 'flag':
      return (
        <Checkbox {...told} checked={value === true} onChange={(e) => onChange(e.target.checked)}>
          {field.label}
        </Checkbox>
      );
    case 'offered':
      return (
        <AutoComplete
          {...told}
          placeholder={field.placeholder}
          value={text}
          // What is typed stays unless one is chosen.
          defaultActiveFirstOption={false}
          options={field.offers.map((value) => ({ value }))}
          showSearch={{ filterOption: (typed, option) => (option?.value ?? '').includes(typed) }}
          onChange={onChange}
        />
      );
    case 'password':
      return (
        <Input
          {...told}
          type="password"
          name={field.name}
          autoComplete="current-password"
          value={text}
          onChange={(e) => onChange(e.target.value)}
        />
      );
    default:
      return (
        <Input
          {...told}
          name={field.name}
          className={field.isMono ? 'mono' : undefined}
          placeholder={field.placeholder}
          autoComplete="off"
          value={text}
          onChange={(e) => onChange(e.target.value)}
        />
      );
  }
}
