import { matchKeys, type Description } from '@osier/core/matching';

/** A key that records may share. */
export type Key = readonly [kind: string, key: string];

/** Every key under which a record is looked for. It stands alone for the thread that reads files, which opens no store. */
export const keysOf = (d: Description): Key[] => matchKeys(d).map((k) => [k.kind, k.key]);
