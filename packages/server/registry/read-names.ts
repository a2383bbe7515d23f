import { registryName, type RegistryName } from '@osier/core/headings';
import { diagnosticText, readSruAnswer } from '@osier/core/neighbours';

/** What an answer of the registry has in it. */
export interface NamesAnswer {
  /** How many names it has, of which the first are here. */
  readonly count: number;
  readonly names: readonly RegistryName[];
  /** Why it cannot be used, as a sentence; null where it can. */
  readonly problem: string | null;
}

/** Characters of the JSON of a record that is handed on. */
const LARGEST_RECORD = 200_000;

/** Reads an answer of the registry; records that are no headings are left out. */
export function readNames(bytes: Uint8Array): NamesAnswer {
  const { records, count, diagnostics, problem } = readSruAnswer(bytes);
  const names = records.flatMap(({ record }) =>
    record && JSON.stringify(record).length <= LARGEST_RECORD ? (registryName(record) ?? []) : [],
  );
  const why = problem ?? (records.length === 0 && diagnostics[0] ? diagnosticText(diagnostics[0]) : null);
  return { count: Math.max(count ?? 0, names.length), names, problem: why };
}
