import { Alert, Button, Form } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
import type { AnyObjectSchema, InferType } from 'yup';
import type { FormField } from './field-kinds';
import { useFormDraft, type DraftPlace } from './form-draft';
import { FormControl } from './FormControl';
import './form.css';
import { useFormScans, type FormScans } from './form-scans';
import { refusalOf, refusedElsewhere, rulesOf, tellAtFields, type Refusal } from './schema-rules';
import { partWords as wording } from '../words';

/**
 * A form whose fields are parts of a schema of the contract. It checks as the server does, shows what the server refuses beside its
 * field, and keeps what was typed. `fields` may follow what is chosen so far.
 */
export function SchemaForm<S extends AnyObjectSchema>({
  schema,
  fields,
  initial,
  verb,
  intro,
  title,
  disabled = false,
  isBlock = false,
  isDense = false,
  takesFocus = false,
  scans,
  more,
  below,
  follow,
  draft,
  onSend,
  onCancel,
}: {
  schema: S;
  fields: readonly FormField[] | ((typed: Readonly<Record<string, unknown>>) => readonly FormField[]);
  /** What the fields begin with; those of text are empty. */
  initial?: Readonly<Record<string, unknown>>;
  verb: string;
  intro?: string;
  title?: string;
  disabled?: boolean;
  /** The button is as wide as the form. */
  isBlock?: boolean;
  /** Fields stand close, as in a form within a piece. */
  isDense?: boolean;
  /** The first field has the focus when the form opens. */
  takesFocus?: boolean;
  /** What scans from anywhere on the page fill in. */
  scans?: FormScans;
  /** Further acts, at the end of the bar. */
  more?: ReactNode;
  /** What is told of what is typed so far, below the fields. */
  below?: (typed: Readonly<Record<string, unknown>>) => ReactNode;
  /** What becomes of other fields when some have been changed. */
  follow?: (changed: Readonly<Record<string, unknown>>) => Record<string, unknown>;
  /** Where what is typed is kept until it is sent or discarded. */
  draft?: DraftPlace;
  /** Sends what was typed, checked by the schema. It gives false when something is to be asked first: what was typed stays kept. */
  onSend: (typed: InferType<S>) => Promise<unknown>;
  onCancel?: () => void;
}) {
  const [form] = Form.useForm<Record<string, unknown>>();
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [isSending, setSending] = useState(false);
  const typed = Form.useWatch((values: Record<string, unknown>) => values, form) ?? initial ?? {};
  const shown = typeof fields === 'function' ? fields(typed) : fields;
  const empty = Object.fromEntries(shown.map((f) => [f.name, beginsWith(f)]));
  const kept = useFormDraft<Record<string, unknown>>(draft, { ...empty, ...initial });
  // A refusal may bring a field of its own, so that it is told once the form shows it.
  useEffect(() => {
    if (refusal) tellAtFields(form, refusal);
  }, [form, refusal]);
  const refused =
    refusal &&
    refusedElsewhere(
      refusal,
      shown.map((f) => f.name),
    );
  const send = async () => {
    setRefusal(null);
    setSending(true);
    try {
      const sent: InferType<S> = await schema.validate({ ...initial, ...form.getFieldsValue(true) });
      if ((await onSend(sent)) !== false) kept.drop();
    } catch (error) {
      setRefusal(refusalOf(error));
    } finally {
      setSending(false);
    }
  };
  const onChange = (changed: Record<string, unknown>) => {
    if (follow) form.setFieldsValue(follow(changed));
    const secret = shown.filter((f) => f.kind === 'password').map((f) => f.name);
    const values = form.getFieldsValue(true) as Record<string, unknown>;
    kept.keep(Object.fromEntries(Object.entries(values).filter(([name]) => !secret.includes(name))));
  };
  useFormScans(form, scans, onChange);
  const discard = () => {
    kept.drop();
    form.setFieldsValue({ ...empty, ...initial });
  };
  return (
    <Form
      form={form}
      className="kit-form"
      layout="vertical"
      requiredMark={!isBlock}
      validateTrigger="onBlur"
      initialValues={kept.begin}
      disabled={disabled}
      onValuesChange={onChange}
      onFinish={() => void send()}
      noValidate
    >
      {title ? <h2>{title}</h2> : null}
      {intro ? <p>{intro}</p> : null}
      <div className={isBlock ? 'kit-grid one' : isDense ? 'kit-grid dense' : 'kit-grid'}>
        {shown.map((field, i) => (
          <Form.Item
            key={field.name}
            name={field.name}
            className={field.width ?? (field.kind === 'number' ? 'short' : undefined)}
            label={field.kind === 'flag' ? undefined : field.label}
            extra={field.help}
            rules={rulesOf(schema, field.name)}
            validateFirst
          >
            <FormControl field={field} autoFocus={takesFocus && i === 0} />
          </Form.Item>
        ))}
      </div>
      {below?.(typed)}
      {kept.isOvertaken ? (
        <Alert type="warning" title={wording.savedOtherwise} role="status" style={{ marginBottom: 12 }} />
      ) : null}
      {refused ? <Alert type="error" title={refused} role="alert" style={{ marginBottom: 12 }} /> : null}
      {disabled ? null : (
        <div className="kit-bar">
          <Button type="primary" htmlType="submit" block={isBlock} loading={isSending}>
            {verb}
          </Button>
          {onCancel ? <Button onClick={onCancel}>{wording.cancel}</Button> : null}
          {kept.isKept ? <Button onClick={discard}>{wording.discardChanges}</Button> : null}
          {more}
        </div>
      )}
    </Form>
  );
}

function beginsWith({ kind }: FormField): unknown {
  if (kind === 'codes' || kind === 'tags') return [];
  if (kind === 'flag') return false;
  if (kind === 'price') return null;
  return kind === 'number' ? undefined : '';
}
