import type { FieldFault } from './code-check';
import { isDay } from './day';
import type { Coded, Copy, LocalValue } from './objects';

/** What a local field of copies holds. */
export const LOCAL_FORMS = ['text', 'number', 'date', 'choice', 'link'] as const;
export type LocalForm = (typeof LOCAL_FORMS)[number];

/** A field that the library has added to its copies. */
export interface LocalField {
  readonly name: string;
  readonly form: LocalForm;
  /** What may be chosen; empty for any form but `choice`. */
  readonly choices: readonly string[];
  /** Codes of the types of copy that have it; none means that all have. */
  readonly types: readonly string[];
}

/** A local field under its number. */
export interface KeptLocalField {
  readonly id: number;
  readonly value: LocalField;
}

/** So many local fields a type of copy has at most. */
export const MOST_LOCAL_FIELDS = 12;
/** Characters of a text, and of a link. */
const LONGEST: Readonly<Partial<Record<LocalForm, number>>> = { text: 50, link: 500 };

/** Whether copies of a type have a local field. */
export const isOfType = ({ types }: LocalField, type: string): boolean =>
  types.length === 0 || types.includes(type);

/** What a copy has in a local field; '' for nothing. */
export const localOf = (copy: Pick<Copy, 'local'>, field: number): string =>
  copy.local?.find((l) => l.field === field)?.value ?? '';

/** A copy with a value of a local field; '' takes it away. Values stand in the order of their fields. */
export function withLocal(copy: Copy, field: number, value: string): Copy {
  const { local = [], ...rest } = copy;
  const others = local.filter((l) => l.field !== field);
  if (value === '') return others.length ? { ...rest, local: others } : rest;
  return { ...rest, local: [...others, { field, value }].toSorted((a, b) => a.field - b.field) };
}

/** A copy without what it has in fields that are not there now. */
export const withKnownLocals = (copy: Copy, fields: readonly KeptLocalField[]): Copy =>
  (copy.local ?? [])
    .filter((l) => !fields.some((f) => f.id === l.field))
    .reduce((c, l) => withLocal(c, l.field, ''), copy);

/** A value as it is kept, or why it cannot be. */
export type LocalRead = { readonly value: string } | { readonly problem: string };
/** Whether what was typed can be kept. */
export const isLocalValue = (read: LocalRead): read is { readonly value: string } => 'value' in read;

/**
 * Reads what is typed into a local field: blanks at its ends go; numbers have a point (or a comma, where that cannot be a thousand) and
 * no needless noughts; days are ISO 8601; a choice is written as it stands among the choices; links are of http or https.
 */
export function readLocal({ name, form, choices }: LocalField, typed: string): LocalRead {
  const text = typed.replace(/\s+/gu, ' ').trim();
  const most = LONGEST[form] ?? 50;
  const problem = (message: string): LocalRead => ({ problem: message });
  if (text === '') return { value: '' };
  if ([...text].length > most) return problem(`“${name}” has at most ${most} characters.`);
  if (/\p{Cc}/u.test(text)) return problem(`“${name}” has no control characters.`);
  switch (form) {
    case 'text':
      return { value: text };
    case 'number': {
      const number = numberAsKept(text);
      return number === null ? problem(`“${name}” is a number, as 12 or 12.5.`) : { value: number };
    }
    case 'date':
      return isDay(text) ? { value: text } : problem(`“${name}” is a day, written 2026-11-28.`);
    case 'choice': {
      const chosen = choices.find((c) => c === text) ?? choices.find((c) => sameText(c, text));
      return chosen === undefined
        ? problem(`“${name}” is one of: ${choices.join(', ')}.`)
        : { value: chosen };
    }
    case 'link':
      return isLink(text)
        ? { value: text }
        : problem(`“${name}” is a link that begins with https:// or http://.`);
  }
}

/** A number without needless noughts; null for what is none, and for "1,000", which may be either. */
function numberAsKept(text: string): string | null {
  const [, sign, whole, decimals = ''] = /^([+-]?)(\d{1,12})(?:[.,](\d{1,6}))?$/.exec(text) ?? [];
  if (whole === undefined || /,\d{3}$/.test(text)) return null;
  const rest = decimals.replace(/0+$/, '');
  const digits = whole.replace(/^0+(?=\d)/, '') + (rest && `.${rest}`);
  return sign === '-' && /[1-9]/.test(digits) ? `-${digits}` : digits;
}

const sameText = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

function isLink(text: string): boolean {
  if (!/^https?:\/\/\S+$/i.test(text)) return false;
  try {
    new URL(text);
    return true;
  } catch {
    return false;
  }
}

/** What is wrong with a local field, beside its part; `others` are those that there are already. */
export function localFieldProblems(
  { name, form, choices, types }: LocalField,
  others: readonly LocalField[],
  known: readonly Coded[],
): FieldFault[] {
  const problems: FieldFault[] = [];
  const tell = (field: keyof LocalField, message: string) => problems.push({ field, message });
  if (name.trim() === '') tell('name', 'Give the field a name.');
  if (others.some((o) => sameText(o.name.trim(), name.trim())))
    tell('name', `There is a local field “${name.trim()}” already.`);
  const given = choices.map((c) => c.trim()).filter(Boolean);
  if (form === 'choice' && given.length < 2) tell('choices', 'Give at least two choices.');
  if (form !== 'choice' && given.length > 0) tell('choices', 'Only a field of choices has choices.');
  const twice = given.find((c, i) => given.findIndex((o) => sameText(o, c)) < i);
  if (twice !== undefined) tell('choices', `“${twice}” stands twice.`);
  const long = given.find((c) => [...c].length > 50);
  if (long !== undefined) tell('choices', `“${long}” has more than 50 characters.`);
  const none = types.find((t) => !known.some((k) => k.code === t));
  if (none !== undefined) tell('types', `“${none}” is not a type here.`);
  for (const type of known)
    if (
      problems.length === 0 &&
      (types.length === 0 || types.includes(type.code)) &&
      others.filter((o) => isOfType(o, type.code)).length >= MOST_LOCAL_FIELDS
    )
      tell('types', `${type.name} has ${MOST_LOCAL_FIELDS} local fields already; more would not be read.`);
  return problems;
}

/** What copies are to have in local fields, as it is kept. */
export interface LocalsRead {
  readonly values: readonly LocalValue[];
  readonly problems: readonly FieldFault[];
}

/** Reads what is typed into the local fields of a copy of a type; what is wrong is told beside `local[n].value`. */
export function readLocals(
  typed: readonly LocalValue[],
  type: string,
  fields: readonly KeptLocalField[],
  was: Pick<Copy, 'local'> = {},
): LocalsRead {
  const values: LocalValue[] = [];
  const problems: FieldFault[] = [];
  for (const [at, { field, value }] of typed.entries()) {
    const tell = (message: string) => problems.push({ field: `local[${at}].value`, message });
    // What stays is not looked at again: it may be older than the field as it is now.
    if (value === localOf(was, field)) {
      values.push({ field, value });
      continue;
    }
    const held = fields.find((f) => f.id === field)?.value;
    if (!held) tell('This local field is no longer there.');
    else if (value !== '' && !isOfType(held, type)) tell(notOfType(held, type));
    else {
      const read = readLocal(held, value);
      if (isLocalValue(read)) values.push({ field, value: read.value });
      else tell(read.problem);
    }
  }
  return { values, problems };
}

/** That copies of a type do not have a local field. */
export const notOfType = ({ name }: LocalField, type: string): string =>
  `“${name}” is not a field of copies of type ${type}.`;
