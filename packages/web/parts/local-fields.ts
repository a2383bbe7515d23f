import { api, type LocalFieldRow } from '@osier/contract';
import {
  isLocalValue,
  isOfType,
  localOf,
  readLocal,
  type LocalField,
  type LocalValue,
} from '@osier/core/holdings';
import { string, type StringSchema } from 'yup';
import { useApi } from '../api/queries';
import type { FieldKind, FormField } from './form/field-kinds';

const NONE: readonly LocalFieldRow[] = [];

/** The local fields of copies, in the order in which they were made. */
export const useLocalFields = (): readonly LocalFieldRow[] =>
  useApi(api.localFields.list, { query: {} }).data ?? NONE;

/** Those that copies of a type have, and those in which a copy has something all the same. */
export const fieldsOfCopy = (
  rows: readonly LocalFieldRow[],
  type: string,
  copy: { readonly local?: readonly LocalValue[] },
): readonly LocalFieldRow[] => rows.filter((r) => isOfType(r.field, type) || localOf(copy, r.id) !== '');

/** How a local field is filled in; `none` is what choosing nothing is called. */
export function localControl({ form, choices }: LocalField, none: string): FieldKind {
  if (form === 'date') return { kind: 'date' };
  if (form === 'choice')
    return {
      kind: 'choice',
      options: [{ value: '', label: none }, ...choices.map((value) => ({ value, label: value }))],
    };
  return { kind: 'text', isMono: form !== 'text' };
}

const NAME = 'local-';
/** The name of a local field in a form. */
const nameIn = (id: number): string => `${NAME}${id}`;

/** Local fields as fields of a form. */
export const localFormFields = (rows: readonly LocalFieldRow[], none: string): FormField[] =>
  rows.map(({ id, field }) => ({
    name: nameIn(id),
    label: field.name,
    ...localControl(field, none),
    ...(field.form === 'link' && { width: 'wide' as const }),
  }));

/** What they begin with. */
export const localInitial = (
  rows: readonly LocalFieldRow[],
  copy: { readonly local?: readonly LocalValue[] },
): Record<string, string> => Object.fromEntries(rows.map((r) => [nameIn(r.id), localOf(copy, r.id)]));

/** Their schemas: what is wrong is told with the sentence that the server would say; what stays may be older than the field. */
export const localSchemas = (
  rows: readonly LocalFieldRow[],
  copy: { readonly local?: readonly LocalValue[] },
): Record<string, StringSchema> =>
  Object.fromEntries(
    rows.map(({ id, field }) => [
      nameIn(id),
      string().test('local field', function (value = '') {
        const read = value === localOf(copy, id) ? { value } : readLocal(field, value);
        return isLocalValue(read) ? true : this.createError({ message: read.problem });
      }),
    ]),
  );

/** What was typed into them, as it is sent; the rest of what was typed. */
export function localsTyped(typed: Readonly<Record<string, unknown>>): LocalValue[] {
  return Object.entries(typed).flatMap(([name, value]) =>
    name.startsWith(NAME)
      ? [{ field: Number(name.slice(NAME.length)), value: typeof value === 'string' ? value : '' }]
      : [],
  );
}
