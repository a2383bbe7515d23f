import type { Act, ActParts } from '@osier/core/acts';

/** What is done with a pile, as the daybook keeps it. */
export const pileAct = (pile: string, did: ActParts['pile']['did']): Act => ({
  act: 'pile',
  names: { pile },
  did,
});
