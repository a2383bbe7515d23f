import { api, type SetUp } from '@osier/contract';
import { useApi } from '../../api/queries';

/** Code lists, house rules and people. */
export const useSetUp = (): SetUp | undefined => useApi(api.setup.read).data;
