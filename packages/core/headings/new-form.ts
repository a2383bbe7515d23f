import type { DataField, Subfield } from '../marc';
import { keptForm, type Heading } from './heading';
import { headingKey, standingAlone } from './normal-form';
import { nameTitlePart, ownPart } from './own-part';

/** A typed form that is no heading, with the sentence why. */
export class WrongForm extends Error {}

const isUnnamed = (own: DataField): boolean => own.subfields.every((s) => s.value === '');

/**
 * A new form of a heading as its 1XX field: with subfields that belong to the heading by the format, the marks of a bibliographic field
 * gone, and the first indicator that a personal name needs (0 forename, 1 surname; others stay as they were). Throws `WrongForm`.
 */
export function asNewForm(heading: Heading, subfields: readonly Subfield[]): DataField {
  const own = keptForm(heading);
  const filled = subfields.filter((s) => s.value.trim() !== '');
  if (filled[0]?.code !== 'a') throw new WrongForm('The form of a heading begins with $a.');
  if (filled.filter((s) => s.code === 'a').length > 1) throw new WrongForm('The form has $a twice.');
  const whole: DataField = { ...own, subfields: standingAlone(filled) };
  const [wasTitled, isTitled] = [nameTitlePart(own) !== null, nameTitlePart(whole) !== null];
  if (wasTitled && !isTitled) throw new WrongForm('The form of a name-title heading has a title ($t).');
  const mayBeTitled = wasTitled || isUnnamed(own);
  const at = new Set(((mayBeTitled && nameTitlePart(whole)) || ownPart(whole))?.at);
  const odd = whole.subfields.find((_, i) => !at.has(i));
  if (odd) throw new WrongForm(`$${odd.code} is no part of a heading in ${own.tag}.`);
  if (headingKey(whole.subfields) === '') throw new WrongForm('The form has no letters or digits.');
  return own.tag === '100' && own.ind1 !== '3'
    ? { ...whole, ind1: whole.subfields[0]!.value.includes(',') ? '1' : '0' }
    : whole;
}
