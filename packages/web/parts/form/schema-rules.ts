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

/**
 * Shows what the server refused beside the fields that it concerns. Gives the sentence that belongs to no field of the form, or
 * null; what was typed stays.
 */
export function showRefusal(form: FormInstance, error: unknown): string | null {
  if (!(error instanceof RequestProblem) || !error.problem.fields?.length) return problemText(error);
  const names = new Set(Object.keys(form.getFieldsValue(true) as object));
  const [known, others] = [[], []] as [string[][], string[]];
  for (const { field, message } of error.problem.fields)
    if (names.has(field)) known.push([field, message]);
    else others.push(message);
  form.setFields(known.map(([name, message]) => ({ name, errors: [message ?? ''] })));
  const [first] = known;
  if (first?.[0]) form.scrollToField(first[0], { block: 'nearest', focus: true });
  return others.length ? others.join(' ') : null;
}
