export type { Recognition } from './recognise';
export { recogniseInput } from './recognise';
export type {
  Cql,
  CqlClause,
  CqlJoined,
  CqlModifier,
  CqlNode,
  CqlPrefixed,
  CqlRelation,
  CqlSortKey,
} from './cql';
export { cqlClause, cqlGuarded, cqlJoined, cqlText } from './cql';
export type { CqlProblem } from './cql-parse';
export { isCql, parseCql } from './cql-parse';
