import { DataTypes, type ModelAttributeColumnOptions, type Sequelize } from 'sequelize';
import type { TableColumns } from './table-columns';

const text = { type: DataTypes.TEXT, allowNull: false };
const integer = { type: DataTypes.INTEGER, allowNull: false };
const maybe = (column: ModelAttributeColumnOptions) => ({ ...column, allowNull: true });
const id = { type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true };
const key = (column: ModelAttributeColumnOptions) => ({ ...column, primaryKey: true });

const ATTRIBUTES: {
  readonly [T in keyof TableColumns]: { readonly [C in keyof TableColumns[T]]: ModelAttributeColumnOptions };
} = {
  jobs: {
    ...{ id, kind: text, title: text, state: text, person: integer, work: text, cursor: text },
    ...{ done: integer, total: maybe(integer), message: maybe(text), entry: maybe(integer), started: text },
    begun: { ...integer, defaultValue: 0 },
  },
  people: {
    ...{ id, name: text, login: text, login_key: maybe(text), role: text, password: text },
    ...{ demo: { ...integer, defaultValue: 0 }, active: { ...integer, defaultValue: 1 } },
    rights: { ...text, defaultValue: '[]' },
  },
  sign_ins: { token: key(text), person: integer, expires: text },
  scans: {
    ...{ id, purpose: text, work: integer, code: text, at: text, person: integer },
    ...{ device: { ...text, defaultValue: '' }, run: { ...text, defaultValue: '' } },
    number: { ...integer, defaultValue: 0 },
    location: { ...text, defaultValue: '' },
  },
  readings: {
    ...{
      delivery: key(integer),
      state: text,
      problem: maybe(text),
      unreadable: integer,
      repaired: integer,
    },
    since: { ...integer, defaultValue: 0 },
  },
  daybook: {
    ...{ id, at: text, person: integer, act: text, sentence: text, said: text, objects: integer },
    ...{ undone_by: maybe(integer), undoes: maybe(integer) },
  },
  registry_news: { heading: key(integer), says: text, form: text, number: text, at: text },
  label_prints: { person: key(integer), kind: key(text), entry: integer, at: text },
  counters: { kind: key(text), next: integer },
  brief_records: {
    ...{ record: key(integer), since: text, asked: text, state: text, reason: text },
    ...{ neighbour: integer, marc: maybe(text), refused: text },
  },
  book_lists: { id, name: text, at: text, person: integer },
  book_list_rows: {
    ...{ list: key(integer), seq: key(integer), code: text, isbn: text, state: text, reason: text },
    ...{ title: text, neighbour: integer, asked: text, marc: maybe(text), delivery: integer },
  },
};

/** The attributes of each table that holds no objects. */
export const tableAttributes: [string, Record<string, ModelAttributeColumnOptions>][] = Object.entries(
  ATTRIBUTES,
).map(([name, attributes]) => [name, { ...attributes }]);

/** Declares a model of a table; none of ours has time stamps or is named by its plural. */
export function defineTable(
  sequelize: Sequelize,
  name: string,
  attributes: Readonly<Record<string, ModelAttributeColumnOptions>>,
): void {
  // Sequelize writes each attribute's name into its options, so that no two may share them.
  const own = Object.entries(attributes).map(([column, options]) => [column, { ...options }] as const);
  sequelize.define(name, Object.fromEntries(own), { tableName: name, timestamps: false });
}
