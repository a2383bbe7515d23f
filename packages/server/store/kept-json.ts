import type { Kind, KindValue } from '@osier/core/kinds';

/** Reads JSON of a column that this program wrote itself; the type says what was written there. Throws when it is no JSON. */
export const keptJson = <T>(text: string): T => JSON.parse(text) as T;

/** Reads the value of an object of a kind. */
export const keptValue = <K extends Kind>(_kind: K, text: string): KindValue<K> =>
  keptJson<KindValue<K>>(text);
