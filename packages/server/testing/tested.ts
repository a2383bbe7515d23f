import type { Act } from '@osier/core/acts';

/** What acts of tests are told as. */
export const TESTED: Act = { act: 'told', sentence: 'Tested' };
