import { api, type RegistryAnswer, type ShownHeading } from '@osier/contract';
import { useApi } from '../../api/queries';

/** Kinds of headings that a registry of names has. */
const NAMES: readonly string[] = ['personal', 'corporate', 'meeting'];

/** What the registry has of a heading, asked for by the words of its name without dates. Nothing waits for it; headings that are no names are not asked for. */
export function useRegistry(of: Pick<ShownHeading, 'kind' | 'text'> | undefined): {
  readonly isAsked: boolean;
  readonly answer: RegistryAnswer | undefined;
} {
  const isAsked = of !== undefined && NAMES.includes(of.kind);
  const name = of?.text.replace(/,?\s+(?:[a-z]+\s+)?\d.*$/i, '') ?? '';
  const { data: answer } = useApi(api.registry.ask, isAsked ? { query: { name } } : null);
  return { isAsked, answer };
}
