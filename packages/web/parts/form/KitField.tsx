import { Form } from 'antd';
import { cloneElement, useId, type ReactElement, type ReactNode } from 'react';

/** What a control is given by the field around it. */
interface Told {
  readonly id?: string;
  readonly 'aria-invalid'?: boolean;
  readonly 'aria-describedby'?: string;
}

/**
 * A control of a form of parts with its label above, help below, and what is wrong with it: the same look as the fields of
 * `SchemaForm`. The control takes `id`.
 */
export function KitField({
  label,
  help,
  problem,
  width,
  isRequired = false,
  children,
}: {
  label: ReactNode;
  help?: ReactNode;
  problem?: string | undefined;
  width?: 'short' | 'wide';
  isRequired?: boolean;
  children: ReactElement<Told>;
}) {
  const id = useId();
  return (
    <Form.Item
      label={label}
      htmlFor={id}
      extra={help}
      required={isRequired}
      className={width}
      layout="vertical"
      validateStatus={problem ? 'error' : ''}
      help={
        problem ? (
          <span id={`${id}-problem`} role="alert">
            {problem}
          </span>
        ) : undefined
      }
    >
      {cloneElement(children, {
        id,
        ...(problem && { 'aria-invalid': true, 'aria-describedby': `${id}-problem` }),
      })}
    </Form.Item>
  );
}

/** Fields side by side, each as wide as what goes in it. */
export const KitGrid = ({ children, isDense = false }: { children: ReactNode; isDense?: boolean }) => (
  <div className={isDense ? 'kit-grid dense' : 'kit-grid'}>{children}</div>
);

/** A part of a long form: its heading, what it is for, its fields. */
export function KitSection({
  title,
  intro,
  children,
}: {
  title: string;
  intro?: ReactNode;
  children: ReactNode;
}) {
  return (
    <fieldset className="kit-section">
      <legend>{title}</legend>
      {intro ? <p className="faded">{intro}</p> : null}
      {children}
    </fieldset>
  );
}
