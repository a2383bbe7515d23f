import type { DeliverySettings } from '@osier/core/deliveries';

/** What a form of a delivery's settings is given: the settings, what becomes of a change, what was wrong with the last try. */
export interface Editing {
  readonly value: DeliverySettings;
  readonly onChange: (value: DeliverySettings) => void;
  /** What is wrong with a part, by its dotted name. */
  readonly problem: (name: string) => string | undefined;
  readonly disabled?: boolean;
}
