import { callNumberFault, offerCallNumbers, type CallNumber } from '../callnumbers';
import type { HouseRules } from '../house';
import type { MarcRecord } from '../marc';
import { codeProblem, placeProblems, type FieldFault } from './code-check';
import { isDay } from './day';
import {
  isLocalValue,
  isOfType,
  localOf,
  notOfType,
  readLocal,
  withLocal,
  type KeptLocalField,
  type LocalField,
} from './local-fields';
import {
  COPY_STATUSES,
  LOAN_RULES,
  type CodeLists,
  type Copy,
  type CopyStatus,
  type Holding,
  type LoanRule,
} from './objects';
import { EDIT_WAYS, type PartEdit, type EditedPart, type EditWay } from './edited-parts';
import { costIn, typedPrice, WHAT_A_PRICE_IS } from './price';

const TEXTS: readonly EditedPart[] = [
  'condition',
  'note',
  'staffNote',
  'prefix',
  'class',
  'item',
  'year',
  'suffix',
];
const CLEARABLE: readonly EditedPart[] = [
  ...(['price', 'fund', 'supplier', 'acquired', 'condition', 'note', 'staffNote'] as const),
  ...(['prefix', 'item', 'year', 'suffix'] as const),
];

/** The ways in which a part can be changed: free texts are added to and replaced in, codes only set. `field` is the local field that is meant. */
export const waysOf = (part: EditedPart, field?: LocalField): readonly EditWay[] => {
  if (part === 'callNumber') return ['house'];
  if (part === 'local')
    return field?.form === 'text' || field?.form === 'link'
      ? ['set', 'clear', 'add', 'replace']
      : ['set', 'clear'];
  return EDIT_WAYS.filter(
    (w) =>
      w === 'set' ||
      (w === 'clear' && CLEARABLE.includes(part)) ||
      ((w === 'add' || w === 'replace') && TEXTS.includes(part)),
  );
};

const isStatus = (text: string): text is CopyStatus => COPY_STATUSES.some((s) => s === text);
const isLoanRule = (text: string): text is LoanRule => LOAN_RULES.some((r) => r === text);

/** What is wrong with changes before any copy is looked at, by `edits[n]` and its part. */
export function editFaults(
  edits: readonly PartEdit[],
  lists: CodeLists,
  house: HouseRules,
  fields: readonly KeptLocalField[] = [],
): FieldFault[] {
  return edits.flatMap((edit, at): FieldFault[] => {
    const told = (field: keyof PartEdit, message: string) => [{ field: `edits[${at}].${field}`, message }];
    const { part, how, find } = edit;
    const value = edit.value.trim();
    const field = fields.find((f) => f.id === edit.field)?.value;
    if (part === 'local' && !field) return told('field', 'Choose a local field.');
    if (!waysOf(part, field).includes(how)) return told('how', 'This cannot be done with it.');
    if (
      how === 'set' &&
      edits.findIndex((e) => e.part === part && e.field === edit.field && e.how === 'set') < at
    )
      return told('part', 'It is set twice.');
    if (how === 'clear' || how === 'house') return [];
    if (how === 'replace') return find === '' ? told('find', 'Write what is replaced.') : [];
    if (value === '' && TEXTS.includes(part)) return told('value', 'Write a text, or clear it.');
    const problem = codeFault(part, value, lists);
    if (problem) return told('value', problem.message);
    if (part === 'local' && field) {
      const read = readLocal(field, value);
      if (value === '') return told('value', 'Write a value, or clear it.');
      if (!isLocalValue(read)) return told('value', read.problem);
    }
    if (part === 'status' && !isStatus(value)) return told('value', 'Choose a status.');
    if (part === 'loanRule' && !isLoanRule(value)) return told('value', 'Choose a loan rule.');
    if (part === 'acquired' && !isDay(value)) return told('value', 'A day is written 2026-11-28.');
    if (part === 'price' && typedPrice(value) === null) return told('value', WHAT_A_PRICE_IS);
    return [];
  });
}

/** A code that is not on the list of its part. */
function codeFault(part: EditedPart, value: string, lists: CodeLists): FieldFault | null {
  if (part === 'type') return codeProblem('', 'type', value, lists.types);
  if (part === 'branch') return codeProblem('', 'branch', value, lists.branches);
  if (part === 'location') return codeProblem('', 'location', value, lists.locations);
  if (part === 'fund') return codeProblem('', 'fund', value, lists.funds);
  return part === 'supplier' ? codeProblem('', 'supplier', value, lists.suppliers) : null;
}

/** A text as a change makes it; what is added stands behind a semicolon where there is text already. */
function textAs(was: string, { how, value, find }: PartEdit): string {
  if (how === 'clear') return '';
  if (how === 'replace') return was.replaceAll(find, value).replace(/\s+/g, ' ').trim();
  if (how === 'add') return was.trim() === '' ? value.trim() : `${was.trim()}; ${value.trim()}`;
  return value.trim();
}

/** A copy as the changes make it, its place left aside. */
export function editedCopy(copy: Copy, edits: readonly PartEdit[], house: HouseRules): Copy {
  return edits.reduce((c, edit): Copy => {
    const value = edit.value.trim();
    const { part } = edit;
    if (part === 'status') return isStatus(value) ? { ...c, status: value } : c;
    if (part === 'price') {
      const { price: _, currency: _c, ...rest } = c;
      const typed = edit.how === 'clear' ? null : typedPrice(value);
      return { ...rest, ...costIn(house.currency, typed?.amount ?? null, typed?.currency) };
    }
    if (part === 'loanRule') {
      const { loanRule: _, ...rest } = c;
      return isLoanRule(value) && value !== 'lends' ? { ...rest, loanRule: value } : rest;
    }
    if (part === 'staffNote') {
      const { staffNote, ...rest } = c;
      const text = textAs(staffNote ?? '', edit);
      return text ? { ...rest, staffNote: text } : rest;
    }
    if (part === 'local')
      return edit.field === undefined ? c : withLocal(c, edit.field, textAs(localOf(c, edit.field), edit));
    if (part === 'condition' || part === 'note' || part === 'type')
      return { ...c, [part]: textAs(c[part], edit) };
    if (part === 'fund' || part === 'supplier' || part === 'acquired')
      return { ...c, [part]: edit.how === 'clear' ? '' : value };
    return c;
  }, copy);
}

/** A copy with the values that changes gave its local fields as they are kept, or why it cannot have them. */
export function withLocalsRead(
  copy: Copy,
  edits: readonly PartEdit[],
  fields: readonly KeptLocalField[],
): { readonly copy: Copy } | { readonly problem: string } {
  let read = copy;
  for (const { field: id } of edits) {
    const field = fields.find((f) => f.id === id)?.value;
    const text = id === undefined ? '' : localOf(read, id);
    if (id === undefined || !field || text === '') continue;
    if (!isOfType(field, copy.type)) return { problem: notOfType(field, copy.type) };
    const value = readLocal(field, text);
    if (!isLocalValue(value)) return { problem: value.problem };
    read = withLocal(read, id, value.value);
  }
  return { copy: read };
}

/** A place as the changes make it, for a copy of a type; or why it cannot be. */
export function editedPlace(
  holding: Holding,
  edits: readonly PartEdit[],
  of: {
    readonly record: MarcRecord;
    readonly type: string;
    readonly house: HouseRules;
    readonly lists: CodeLists;
  },
): { readonly place: Holding } | { readonly problem: string } {
  let place = holding;
  for (const edit of edits) {
    const { part } = edit;
    if (part === 'branch' || part === 'location') place = { ...place, [part]: edit.value.trim() };
    if (part === 'prefix' || part === 'class' || part === 'item' || part === 'suffix')
      place = { ...place, [part]: textAs(place[part], edit) };
    if (part === 'year') place = { ...place, year: textAs(place.year ?? '', edit) };
  }
  // The place is known before the rules of the house are asked what is made there.
  if (edits.some((e) => e.part === 'callNumber')) {
    const [offer] = offerCallNumbers(of.record, of.house, { ...place, type: of.type });
    if (!offer) return { problem: 'The record has no class to make a call number from.' };
    const { scheme, prefix, class: cls, item, year, suffix }: CallNumber = offer;
    place = { ...place, scheme, prefix, class: cls, item, year: year ?? '', suffix };
  }
  const { year, ...rest } = place;
  const next: Holding = year ? { ...rest, year } : rest;
  const isMoved = next.branch !== holding.branch || next.location !== holding.location;
  const problem = (isMoved ? placeProblems(next, of.lists)[0]?.message : undefined) ?? callNumberFault(next);
  return problem === null || problem === undefined ? { place: next } : { problem };
}
