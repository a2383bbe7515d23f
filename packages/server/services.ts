import type { Logger } from 'pino';
import type { Jobs } from './jobs/jobs';
import type { LoansDesk } from './loans/ports';
import type { Background } from './projections/background';
import type { NeighbourAsking } from './neighbours/asking';
import type { Secrets } from './neighbours/secrets';
import type { People } from './people/people';
import type { Settings } from './settings';
import type { Store } from './store/store';
import type { WorkerPool } from './workers/pool';

/** What the subjects work with. */
export interface Services {
  readonly store: Store;
  readonly jobs: Jobs;
  readonly people: People;
  readonly loans: LoansDesk;
  /** NeighbourAsking libraries outside, and what seals their passwords. */
  readonly neighbours: { readonly asking: NeighbourAsking; readonly secrets: Secrets };
  readonly settings: Settings;
  readonly log: Logger;
  /** Comparing names that were touched. */
  readonly background: Background;
  /** Threads for what would hold up everybody else. */
  readonly pool: WorkerPool;
}

/** The same, reading through the connection for long work, so that nobody waits for its queries. */
export const patiently = (services: Services): Services => ({ ...services, store: services.store.aside });
