import { api, type RegistryAnswer } from '@osier/contract';
import { useApi } from '../../api/queries';

/** What the registry has of a heading, asked for by the words of its name without dates. Nothing waits for it. */
export const useRegistry = (heading: string): RegistryAnswer | undefined =>
  useApi(api.registry.ask, { query: { name: heading.replace(/,?\s+(?:[a-z]+\s+)?\d.*$/i, '') } }).data;
