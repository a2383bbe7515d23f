import type { AccessPoint } from '../access';
import type { MarcRecord } from '../marc';
import { headingsOf, identityOf, seeFromKey, seeFroms, type Heading } from './heading';
import { headingGroup } from './normal-form';

/** The headings that a record carries, by kind and vocabulary. */
export const CARRIED_HEADING: AccessPoint<MarcRecord, 'heading'> = {
  name: 'heading',
  title: 'Heading',
  type: 'phrase',
  version: 1,
  extract: (record) => headingsOf(record).map((h) => ({ text: h.key, group: headingGroup(h) })),
  normalise: (key) => key,
};

/** The forms under which a heading is known: its kept form and its see-froms. One that was merged is known through the other. */
export const HEADING_FORM: AccessPoint<Heading, 'form'> = {
  name: 'form',
  title: 'Heading or see-from',
  type: 'phrase',
  version: 1,
  extract(heading) {
    if (heading.mergedInto !== null) return [];
    const identity = identityOf(heading);
    const group = headingGroup(identity);
    return [identity.key, ...seeFroms(heading).map(seeFromKey)].map((text) => ({
      text,
      group,
    }));
  },
  normalise: (key) => key,
};
