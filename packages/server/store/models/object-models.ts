import { KIND_NAMES, KINDS, type ColumnType } from '@osier/core/kinds';
import { DataTypes, type ModelAttributeColumnOptions, type Sequelize } from 'sequelize';
import { tableOf } from '../tables';
import { defineTable } from './table-models';

const TYPES: Readonly<Record<ColumnType, ModelAttributeColumnOptions>> = {
  text: { type: DataTypes.TEXT },
  integer: { type: DataTypes.INTEGER },
};

/** The attributes of a kind's table: number, version, value, and the columns that its descriptor computes or inherits. */
function attributesOf(kind: (typeof KIND_NAMES)[number]): Record<string, ModelAttributeColumnOptions> {
  const { inherited, keepsRemoved } = tableOf(kind);
  const columns = Object.entries(KINDS[kind].columns).map(([name, type]) => [name, TYPES[type]] as const);
  return {
    id: { type: DataTypes.INTEGER, primaryKey: true },
    version: { type: DataTypes.INTEGER, allowNull: false },
    value: { type: DataTypes.TEXT, allowNull: false },
    ...Object.fromEntries(columns),
    ...Object.fromEntries(Object.keys(inherited).map((c) => [c, TYPES[c === 'record' ? 'integer' : 'text']])),
    ...(keepsRemoved ? { gone: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 } } : {}),
  };
}

/** Declares a model for the table of every kind; two settings share one. */
export function defineObjects(sequelize: Sequelize): void {
  for (const kind of KIND_NAMES) {
    const { name } = tableOf(kind);
    if (!sequelize.isDefined(name)) defineTable(sequelize, name, attributesOf(kind));
  }
}
