import { RECORD_WORDS, wordsAt } from '../access';
import type { Address, Alternatives, AddressCondition, SubfieldAddress, Term } from '../address';
import { field } from '../marc';
import { foldedWords } from '../text';
import { joinedPlans, type FindPlan, type FindWord } from './plan';

/**
 * What every record that has something at an address must have by the index of words: those that its conditions compare with. A record that
 * has them need not have the address, so each is still looked at. Null where the index cannot tell.
 */
export const addressPlan = ({ tag, subfields, conditions }: Address): FindPlan | null =>
  both([
    ...conditions.map((c) => anyOf(c, tag, null)),
    subfields.length === 0 ? null : either(subfields.map((s) => subfieldPlan(s, tag))),
  ]);

const subfieldPlan = (subfield: SubfieldAddress, tag: string): FindPlan | null =>
  both(subfield.conditions.map((c) => anyOf(c, tag, subfield)));

/** Plans that all hold; those that say nothing are left out. */
function both(plans: readonly (FindPlan | null)[]): FindPlan | null {
  const known = plans.filter((p) => p !== null);
  return joinedOf('and', known);
}
/** Plans of which one holds: one that says nothing leaves all open. */
function either(plans: readonly (FindPlan | null)[]): FindPlan | null {
  const known = plans.filter((p) => p !== null);
  return known.length < plans.length ? null : joinedOf('or', known);
}
const joinedOf = (type: 'and' | 'or', [first, ...more]: readonly FindPlan[]): FindPlan | null =>
  first === undefined ? null : more.length === 0 ? first : joinedPlans(type, [first, ...more]);

const anyOf = (of: Alternatives, tag: string, at: SubfieldAddress | null): FindPlan | null =>
  either(of.map((c) => conditionPlan(c, tag, at)));

function conditionPlan(
  { left, operator, right }: AddressCondition,
  tag: string,
  at: SubfieldAddress | null,
): FindPlan | null {
  if (operator === '~') return right.kind === 'text' ? textPlan(left, right.text, false, tag, at) : null;
  if (operator !== '=') return null;
  if (right.kind === 'text') return textPlan(left, right.text, true, tag, at);
  return left.kind === 'text' ? textPlan(right, left.text, true, tag, at) : null;
}

/** That a text stands where a term points: as all that is there, or as part of it. */
function textPlan(
  term: Term,
  text: string,
  isWhole: boolean,
  tag: string,
  at: SubfieldAddress | null,
): FindPlan | null {
  if (term.kind === 'text') return null;
  const { address } = term;
  const itself = term.kind === 'here' && address.subfields.length === 0 && !address.indicator;
  const pointed = itself && at ? [at] : address.subfields;
  const inTag = term.kind === 'record' ? term.address.tag : tag;
  if (address.indicator || pointed.length === 0 || !pointed.every((s) => isIndexed(inTag, s))) return null;
  const isPart = address.characters !== undefined || (!(itself && at) && pointed.some((s) => s.characters));
  const isAll = isWhole && !isPart;
  const words = wordsOf(text, isAll);
  return words.length === 0 ? null : { type: 'words', column: null, how: 'all', words, isFirst: false };
}

/**
 * The words that stand wherever a text does: all of them where it is the whole, else without the first, of which the end of a longer one may be
 * meant, and with the last as the beginning of one. None where lower case goes by what follows (the Greek sigma at the end of a word).
 */
function wordsOf(text: string, isAll: boolean): FindWord[] {
  const words = foldedWords(text);
  if (words.some((w) => /[ςσ]/.test(w))) return [];
  if (isAll) return words.map((word) => ({ text: word, isBeginning: false }));
  return words.slice(1).map((word, i, rest) => ({ text: word, isBeginning: i === rest.length - 1 }));
}

/** Whether all that stands in some subfields is in the index of words: as the points of the index themselves say of a word put there. */
function isIndexed(tag: string, { from, to }: SubfieldAddress): boolean {
  if (!/^\d{3}$/.test(tag) || tag.startsWith('00')) return false;
  for (let code = from.charCodeAt(0); code <= to.charCodeAt(0); code++) {
    const probe = { leader: '', fields: [field(tag, '  ', String.fromCharCode(code), 'probe')] };
    if (!RECORD_WORDS.some((point) => wordsAt(point, probe) === 'probe')) return false;
  }
  return true;
}
