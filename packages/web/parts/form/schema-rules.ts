import type { FormInstance, FormRule } from 'antd';
import { ValidationError, type AnyObjectSchema } from 'yup';
import { problemText, RequestProblem } from '../../api/request';

/**
 * The rules of one field of an AntD form, from a schema of the contract: what the browser refuses is refused with the sentence that
 * the server would say.
 */
export const rulesOf = (schema: AnyObjectSchema, name: string): FormRule[] => [
  (form) => ({
    async validator() {
      try {
        await schema.validateAt(name, form.getFieldsValue(true));
      } catch (error) {
        throw error instanceof ValidationError ? new Error(error.message) : error;
      }
    },
  }),
  // AntD marks a field as one that must be filled by a rule that says so; the sentence comes from the schema.
  ...(isRequired(schema, name) ? [{ required: true, validator: () => Promise.resolve() }] : []),
];

function isRequired(schema: AnyObjectSchema, name: string): boolean {
  const field = schema.describe().fields[name];
  return field !== undefined && 'optional' in field && !field.optional;
}

/** What the server refused: of the whole, or of single fields. */
export interface Refusal {
  readonly whole: string | null;
  readonly fields: readonly { readonly field: string; readonly message: string }[];
}

/** What a failed request tells a form. */
export const refusalOf = (error: unknown): Refusal =>
  error instanceof RequestProblem && error.problem.fields?.length
    ? { whole: null, fields: error.problem.fields }
    : { whole: problemText(error), fields: [] };

/** What is told above the buttons: the refusal of the whole, and of fields that the form does not show. */
export function refusedElsewhere({ whole, fields }: Refusal, shown: readonly string[]): string | null {
  const others = fields.filter((f) => !shown.includes(f.field)).map((f) => f.message);
  return others.length ? others.join(' ') : whole;
}

/** Shows what was refused beside the fields that it concerns, and goes to the first; what was typed stays. */
export function tellAtFields(form: FormInstance, { fields }: Refusal): void {
  const shown = new Set(Object.keys(form.getFieldsValue() as object));
  const known = fields.filter((f) => shown.has(f.field));
  form.setFields(known.map(({ field, message }) => ({ name: [field], errors: [message] })));
  const [first] = known;
  if (first) form.scrollToField([first.field], { block: 'nearest', focus: true });
}
