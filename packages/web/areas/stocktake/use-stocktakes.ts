import { api } from '@osier/contract';
import { useApi } from '../../api/queries';

/** All stocktakes, the newest first, with how each stands. */
export const useStocktakes = () => useApi(api.stocktakes.list);
