import { api } from '@osier/contract';
import { withCodes } from '@osier/core/holdings';
import { DEFAULT_HOUSE, type HouseRules } from '@osier/core/house';
import { useMemo } from 'react';
import { useApi } from '../api/queries';

/** The rules of the house with its code lists, as the server checks by; undefined until they are read. */
export function useHouse(): HouseRules | undefined {
  const { data } = useApi(api.setup.read);
  const house = data?.house.value;
  const lists = data?.lists.value;
  return useMemo(
    () => (house && lists ? withCodes({ ...DEFAULT_HOUSE, ...house }, lists) : undefined),
    [house, lists],
  );
}
