import {
  applyTransaction,
  tracedFields,
  type EditDone,
  type EditMeaning,
  type EditTransaction,
} from '../editing';
import { isControl, isData, type DataField, type Field, type MarcRecord } from '../marc';
import type { Step, StepBody } from './step';

/**
 * What a person did to one record by hand, as steps that can be done to others, in the order in which it was done: the safe fix of a
 * check becomes that check's fixes, a text replaced wherever it stands that same replacing, all else the step that says it most generally. What cannot be said as a step is left out.
 * Throws a RangeError when it was done to another record.
 */
export function stepsFromEdit(record: MarcRecord, done: readonly EditDone[]): Step[] {
  const steps: Step[] = [];
  let now = record;
  let byHand: EditTransaction = [];
  const settle = () => {
    steps.push(...stepsFromTransaction(now, byHand));
    now = applyTransaction(now, byHand);
    byHand = [];
  };
  for (const { transaction, meant } of done) {
    if (!meant || !canBeMeant(meant)) {
      byHand = [...byHand, ...transaction];
      continue;
    }
    settle();
    const after = applyTransaction(now, transaction);
    for (const step of stepsMeant(meant, now, after))
      if (!steps.some((s) => JSON.stringify(s) === JSON.stringify(step))) steps.push(step);
    now = after;
  }
  settle();
  return steps;
}

function stepsMeant(meant: EditMeaning, before: MarcRecord, after: MarcRecord): StepBody[] {
  if ('fixOf' in meant) return [{ step: 'apply-fixes', rule: meant.fixOf }];
  const { find, by, matchCase } = meant;
  const match = matchCase ? { find, expression: true } : { find };
  // Replacing takes no field away and adds none.
  const tags = before.fields.flatMap((f, i) => (isData(f) && after.fields[i] !== f ? f.tag : []));
  return [...new Set(tags)].map((tag) => ({ step: 'replace-text', tags: tag, codes: '', match, by }));
}

/** Steps tell capitals apart only in expressions, where other signs have meanings of their own. */
const canBeMeant = (meant: EditMeaning): boolean =>
  'fixOf' in meant ||
  !meant.matchCase ||
  (/^[\p{L}\p{N} ,;:']+$/u.test(meant.find) && !meant.by.includes('$'));

function stepsFromTransaction(record: MarcRecord, transaction: EditTransaction): StepBody[] {
  const { leader } = applyTransaction(record, transaction);
  const steps = positionSteps('LDR', record.leader, leader);
  const traced = tracedFields(record, transaction);
  const moved = new Set<string>();
  for (const { before, after } of traced) {
    if (before && after && before.tag !== after.tag) {
      const { tag } = before;
      const areAll = traced.every((t) => t.before?.tag !== tag || t.after?.tag === after.tag);
      if (!areAll || isControl(before) !== isControl(after))
        steps.push(lostField(before), addedField(record, after));
      else {
        if (!moved.has(tag)) steps.push({ step: 'move-field', tags: tag, to: after.tag });
        moved.add(tag);
        steps.push(...changedField({ ...before, tag: after.tag }, after));
      }
    } else if (before && after) steps.push(...changedField(before, after));
    else if (before) steps.push(lostField(before));
    else if (after) steps.push(addedField(record, after));
  }
  return steps;
}

const addedField = (record: MarcRecord, field: Field): StepBody => ({
  step: 'add-field',
  field,
  ifAbsent: !record.fields.some((f) => f.tag === field.tag),
});

const lostField = (f: Field): StepBody => ({
  step: 'delete-field',
  tags: f.tag,
  which: 'all',
  match: { find: isControl(f) ? f.value : (f.subfields.find((s) => s.code >= 'a')?.value ?? '') },
});

function changedField(before: Field, after: Field): StepBody[] {
  if (isControl(before) || isControl(after)) {
    if (!isControl(before) || !isControl(after)) return [];
    const fixed = before.tag === '006' || before.tag === '007' || before.tag === '008';
    return fixed ? positionSteps(before.tag, before.value, after.value) : [];
  }
  return [...indicatorSteps(before, after), ...subfieldSteps(before, after)];
}

function indicatorSteps(before: DataField, after: DataField): StepBody[] {
  const steps: StepBody[] = [];
  for (const which of [1, 2] as const) {
    const [from, value] = which === 1 ? [before.ind1, after.ind1] : [before.ind2, after.ind2];
    if (from !== value) steps.push({ step: 'set-indicator', tags: before.tag, which, value, from });
  }
  return steps;
}

function subfieldSteps(before: DataField, after: DataField): StepBody[] {
  const tags = before.tag;
  const count = (f: DataField, code: string) => f.subfields.filter((s) => s.code === code);
  const steps: StepBody[] = [];
  const shorter = after.subfields.length < before.subfields.length;
  for (const code of new Set([...before.subfields, ...after.subfields].map((s) => s.code))) {
    const [was, is] = [count(before, code), count(after, code)];
    if (was.length === is.length) {
      was.forEach((s, i) => {
        const by = is[i]!.value;
        // A full stop that a dropped part left behind comes with the step that drops it.
        if (s.value !== by && !(shorter && /^6/.test(tags) && by === `${s.value}.`))
          steps.push({ step: 'replace-text', tags, codes: code, match: { find: s.value }, by });
      });
    } else if (was.length > is.length) {
      for (const gone of was.filter((s) => !is.some((x) => x.value === s.value)))
        steps.push(
          /^6/.test(tags) && 'vxyz'.includes(code)
            ? { step: 'drop-subdivision', text: gone.value.replace(/\.$/, '') }
            : { step: 'delete-subfield', tags, code, which: 'all', match: { find: gone.value } },
        );
    } else if (was.length === 0) {
      for (const s of is) steps.push({ step: 'set-subfield', tags, code, value: s.value, ifAbsent: true });
    }
  }
  return steps;
}

/** What the leader says of its own layout is not edited. */
const isLaidOut = (tag: string, at: number): boolean => tag === 'LDR' && (at < 5 || (at >= 10 && at < 17));

/** Each run of characters that changed, as one step. */
function positionSteps(tag: 'LDR' | '006' | '007' | '008', before: string, after: string): StepBody[] {
  const steps: StepBody[] = [];
  const isOther = (at: number) => at < after.length && before[at] !== after[at] && !isLaidOut(tag, at);
  for (let i = 0; i < after.length; i++) {
    const from = i;
    while (isOther(i)) i++;
    if (i > from) steps.push({ step: 'set-position', tag, from, text: after.slice(from, i) });
  }
  return steps;
}
