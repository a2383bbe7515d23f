import type { Logger } from 'pino';
import type { Jobs } from './jobs/jobs';
import type { LoansDesk } from './loans/ports';
import type { Background } from './projections/background';
import type { People } from './people/people';
import type { Settings } from './settings';
import type { Store } from './store/store';

/** What the subjects work with. */
export interface Services {
  readonly store: Store;
  readonly jobs: Jobs;
  readonly people: People;
  readonly loans: LoansDesk;
  readonly settings: Settings;
  readonly log: Logger;
  /** Comparing names that were touched. */
  readonly background: Background;
}

/** The same, reading through the connection for long work, so that nobody waits for its queries. */
export const patiently = (services: Services): Services => ({ ...services, store: services.store.aside });
