import { Alert, Button, Form, Input } from 'antd';
import { useState } from 'react';
import type { AnyObjectSchema } from 'yup';
import { rulesOf, showRefusal } from './schema-rules';

/** A field of a form: the name of its part of the schema, and how it is called. */
export interface TextField {
  readonly name: string;
  readonly label: string;
  readonly type?: 'text' | 'password';
}

/**
 * A form whose fields are parts of a schema of the contract. It checks as the server does, shows what the server refuses beside its
 * field, and keeps what was typed.
 */
export function SchemaForm({
  schema,
  fields,
  verb,
  intro,
  onSend,
}: {
  schema: AnyObjectSchema;
  fields: readonly TextField[];
  verb: string;
  intro?: string;
  /** Sends what was typed, checked by the schema. */
  onSend: (typed: Record<string, string>) => Promise<unknown>;
}) {
  const [form] = Form.useForm<Record<string, string>>();
  const [refused, setRefused] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const send = async (typed: Record<string, string>) => {
    setRefused(null);
    setSending(true);
    try {
      await onSend(typed);
    } catch (error) {
      setRefused(showRefusal(form, error));
    } finally {
      setSending(false);
    }
  };
  const empty = Object.fromEntries(fields.map((f) => [f.name, '']));
  return (
    <Form
      form={form}
      layout="vertical"
      requiredMark={false}
      validateTrigger="onBlur"
      initialValues={empty}
      onFinish={(typed) => void send(typed)}
      noValidate
    >
      {intro ? <p>{intro}</p> : null}
      {fields.map(({ name, label, type }) => (
        <Form.Item key={name} name={name} label={label} rules={rulesOf(schema, name)} validateFirst>
          <Input
            type={type ?? 'text'}
            name={name}
            autoComplete={type === 'password' ? 'current-password' : 'off'}
          />
        </Form.Item>
      ))}
      {refused ? <Alert type="error" title={refused} role="alert" style={{ marginBottom: 12 }} /> : null}
      <Button type="primary" htmlType="submit" block loading={isSending}>
        {verb}
      </Button>
    </Form>
  );
}
