import type { AccessPoint } from '../access';
import type { MarcRecord } from '../marc';
import { authorityNumbers } from './authority-numbers';
import {
  headingsOf,
  identityOf,
  kindOfTracing,
  seeAlsos,
  seeFromKey,
  seeFroms,
  type Heading,
} from './heading';
import { headingGroup } from './normal-form';

/** The headings that a record carries, by kind and vocabulary. */
export const CARRIED_HEADING: AccessPoint<MarcRecord, 'heading'> = {
  name: 'heading',
  title: 'Heading',
  type: 'phrase',
  version: 2,
  extract: (record) => headingsOf(record).map((h) => ({ text: h.key, group: headingGroup(h) })),
  normalise: (key) => key,
};

/** The forms under which a heading is known: its kept form and its see-froms. One that was merged is known through the other. */
export const HEADING_FORM: AccessPoint<Heading, 'forms'> = {
  name: 'forms',
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

/** The group of keys under which the numbers of authority records are. */
export const NUMBERS = 'number';

/** The numbers by which others know an authority record: 010 $a and $z, 035 $a and $z, and 001 with the agency of 003. */
export const HEADING_NUMBER: AccessPoint<Heading, 'number'> = {
  name: 'number',
  title: 'Number of an authority record',
  type: 'key',
  version: 1,
  extract: ({ marc, mergedInto }) =>
    mergedInto === null ? authorityNumbers(marc).map((text) => ({ text, group: NUMBERS })) : [],
  normalise: (key) => key,
};

/** The group of keys under which the see-alsos of a kind and vocabulary are. */
export const seeAlsoGroup = (group: string): string => `see-also ${group}`;

/** The headings that see-also tracings (5XX) name, where they are of the kind of the heading itself. */
export const SEE_ALSO: AccessPoint<Heading, 'see-also'> = {
  name: 'see-also',
  title: 'See-also',
  type: 'phrase',
  version: 1,
  extract(heading) {
    if (heading.mergedInto !== null) return [];
    const { kind, vocabulary } = identityOf(heading);
    return seeAlsos(heading).map((f) => ({
      text: seeFromKey(f),
      group: seeAlsoGroup(headingGroup({ kind: kindOfTracing(f) ?? kind, vocabulary })),
    }));
  },
  normalise: (key) => key,
};
