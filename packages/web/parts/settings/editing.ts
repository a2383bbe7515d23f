import type { DeliverySettings } from '@osier/core/deliveries';
import type { RequestProblem } from '../../api/request';

/** What a form of a delivery's settings is given: the settings, what becomes of a change, what was wrong with the last try. */
export interface Editing {
  readonly value: DeliverySettings;
  readonly onChange: (value: DeliverySettings) => void;
  readonly problem: RequestProblem | null;
  readonly disabled?: boolean;
}
