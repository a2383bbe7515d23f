import type { Delivery } from '@osier/core/deliveries';
import type { JobRun, JobWork } from '../jobs/jobs';
import { patiently, type Services } from '../services';

/** Long work on one delivery, which may have been taken back before its turn came. */
export const deliveryJob =
  (work: (services: Services, run: JobRun, id: number, delivery: Delivery) => Promise<string | null>) =>
  (services: Services): JobWork =>
  async (run) => {
    const id = Number(run.work.delivery);
    const held = await services.store.read('delivery', id);
    return held ? work(patiently(services), run, id, held.value) : 'The delivery is no longer there.';
  };
