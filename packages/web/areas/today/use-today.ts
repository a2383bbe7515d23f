import { api } from '@osier/contract';
import { useApi } from '../../api/queries';

/** What waits, over all areas: for the opening area, and for the numbers in the rail. */
export const useToday = () => useApi(api.overview.today);
