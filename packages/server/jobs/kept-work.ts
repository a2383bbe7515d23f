import { mixed, object, number, array, type InferType, type Schema } from 'yup';

/**
 * What a job was told to do, or how far it had come, as it was kept. Throws when it is not what the job needs: it was kept by
 * an older version that did otherwise.
 */
export const keptWork = <T>(schema: Schema<T>, kept: unknown): T => schema.validateSync(kept);

/** Numbers of objects that are left out. */
export const leftOut = () => array(number().integer().required()).default([]);

/** Running totals that a job keeps with its cursor. */
export type Totals = Record<string, number>;

const isTotals = (kept: unknown): kept is Totals =>
  typeof kept === 'object' && kept !== null && Object.values(kept).every((n) => typeof n === 'number');

/** How far work in chunks has come: the place of the last object, how many are done, the totals, the daybook entry. */
export const chunkCursor = object({
  place: number().integer().default(0),
  done: number().integer().default(0),
  entry: number().integer().optional(),
  totals: mixed<Totals>(isTotals).default({}),
});
export type ChunkCursor = InferType<typeof chunkCursor>;
