import type { Apart, Lead } from '../duplicates';
import { describeKind } from './kind';

/** That the number of a merged record leads to the one that was kept; it has the number of the lost one. */
export const lead = describeKind<Lead>()({
  kind: 'lead',
  noun: ['number that leads on', 'numbers that lead on'],
  label: ({ into }, id) => `record ${id}, which leads to record ${into}`,
  table: 'record_leads',
  columns: { into_record: 'integer' },
  compute: ({ into }) => ({ into_record: into }),
  parents: [],
});

/** Two records that a person has said are two things. */
export const apart = describeKind<Apart>()({
  kind: 'apart',
  noun: ['pair of records kept apart', 'pairs of records kept apart'],
  label: ({ a, b }) => `records ${a} and ${b}`,
  table: 'apart_records',
  columns: { a: 'integer', b: 'integer' },
  compute: ({ a, b }) => ({ a, b }),
  parents: [],
});
