import { compareRecords, isControl, type DataField, type Field, type MarcRecord } from '../marc';
import type { Step, StepBody } from './step';

/**
 * What a person did to one record by hand, as steps that can be done to others: each difference becomes the step that
 * says it most generally. What cannot be said as a step is left out.
 */
export function stepsFromEdit(before: MarcRecord, after: MarcRecord): Step[] {
  const steps: StepBody[] = [];
  if (
    before.leader.slice(5, 9) !== after.leader.slice(5, 9) ||
    before.leader.slice(17, 20) !== after.leader.slice(17, 20)
  )
    steps.push(...positionSteps('LDR', before.leader, after.leader));
  for (const pair of compareRecords(before, after)) {
    if (pair.change === 'lost') steps.push(lostField(pair.field));
    else if (pair.change === 'new') {
      const { field } = pair;
      steps.push({ step: 'add-field', field, ifAbsent: !before.fields.some((f) => f.tag === field.tag) });
    } else if (pair.change === 'changed') steps.push(...changedField(pair.before, pair.after));
  }
  return steps;
}

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
  if (before.tag !== after.tag) return [{ step: 'move-field', tags: before.tag, to: after.tag }];
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

/** Each run of characters that changed, as one step. */
function positionSteps(tag: 'LDR' | '006' | '007' | '008', before: string, after: string): StepBody[] {
  const steps: StepBody[] = [];
  for (let i = 0; i < after.length; i++) {
    if (before[i] === after[i] || (tag === 'LDR' && (i < 5 || (i >= 10 && i < 17)))) continue;
    let end = i;
    while (end < after.length && before[end] !== after[end]) end++;
    steps.push({ step: 'set-position', tag, from: i, text: after.slice(i, end) });
    i = end;
  }
  return steps;
}
