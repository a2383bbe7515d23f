import type { AnyEndpoint } from '../endpoint';
import { records } from './catalogue';
import { copies } from './copies';
import { daybook } from './daybook';
import { deliveries } from './deliveries';
import { headings } from './headings';
import { jobs } from './jobs';
import { live } from './live';
import { people } from './people';
import { piles } from './piles';
import { recipes } from './recipes';
import { setup } from './setup';
import { stocktakes } from './stocktakes';
import { suppliers } from './suppliers';
import { overview } from './today';
import { withdrawals } from './withdrawals';

/** The API: every path that the server answers and the web calls, by subject. */
export const api = {
  people,
  overview,
  deliveries,
  recipes,
  records,
  headings,
  copies,
  piles,
  withdrawals,
  stocktakes,
  daybook,
  setup,
  suppliers,
  jobs,
  live,
};

/** The same as one list. */
export const ENDPOINTS: readonly AnyEndpoint[] = Object.values(api).flatMap((subject) =>
  Object.values<AnyEndpoint>(subject),
);
