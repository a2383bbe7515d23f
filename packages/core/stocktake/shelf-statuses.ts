import type { HouseRules } from '../house';

/** Statuses of copies that are expected on the shelf in every library. */
const ALWAYS: readonly string[] = ['available'];
/** Statuses that a library may expect on the shelf or not. */
export const MAY_STAND = ['reserved', 'damaged'] as const;

/** The statuses of copies that a library expects on the shelf; those on order, in process, in transit or in repair stand elsewhere. */
export const shelfStatuses = ({ standing = MAY_STAND }: Pick<HouseRules, 'standing'>): readonly string[] => [
  ...ALWAYS,
  ...standing,
];
