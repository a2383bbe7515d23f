import { diffArrays, diffWordsWithSpace } from 'diff';
import { fieldText, isControl, type Field, type MarcRecord } from './record';

/** A stretch of text: the same in both, only before, or only after. */
export interface TextPart {
  readonly text: string;
  readonly change: 'same' | 'lost' | 'new';
}

/** One row of a comparison: a field that stayed, went, came, or changed in its text. */
export type FieldPair =
  | { readonly change: 'same'; readonly field: Field }
  | { readonly change: 'lost'; readonly field: Field }
  | { readonly change: 'new'; readonly field: Field }
  | {
      readonly change: 'changed';
      readonly before: Field;
      readonly after: Field;
      readonly parts: readonly TextPart[];
    };

const leaderField = (r: MarcRecord): Field => ({
  tag: 'LDR',
  value: r.leader.slice(5, 9) + r.leader.slice(17, 20),
});

/** Two records field by field, in the order of the second; fields of one tag that were exchanged are paired in order. */
export function compareRecords(before: MarcRecord, after: MarcRecord): FieldPair[] {
  const a = [leaderField(before), ...before.fields];
  const b = [leaderField(after), ...after.fields];
  const pairs: FieldPair[] = [];
  let at = 0;
  let bt = 0;
  let lost: Field[] = [];
  let fresh: Field[] = [];
  const settle = () => {
    pairs.push(...matched(lost, fresh));
    lost = [];
    fresh = [];
  };
  for (const part of diffArrays(a.map(fieldText), b.map(fieldText))) {
    if (part.removed) lost.push(...a.slice(at, (at += part.value.length)));
    else if (part.added) fresh.push(...b.slice(bt, (bt += part.value.length)));
    else {
      settle();
      for (const _ of part.value) {
        pairs.push({ change: 'same', field: b[bt++]! });
        at++;
      }
    }
  }
  settle();
  return pairs;
}

function matched(lost: readonly Field[], fresh: readonly Field[]): FieldPair[] {
  const rest = [...fresh];
  const pairs: FieldPair[] = [];
  for (const f of lost) {
    const at = rest.findIndex((r) => r.tag === f.tag);
    if (at < 0) pairs.push({ change: 'lost', field: f });
    else {
      const [after] = rest.splice(at, 1);
      pairs.push({
        change: 'changed',
        before: f,
        after: after!,
        parts: textParts(bodyText(f), bodyText(after!)),
      });
    }
  }
  return [...pairs, ...rest.map((field): FieldPair => ({ change: 'new', field }))];
}

/** A field's indicators and text as they are compared. */
export const bodyText = (f: Field): string =>
  isControl(f)
    ? f.value
    : `${(f.ind1 + f.ind2).replaceAll(' ', '·')} ${f.subfields.map((s) => `$${s.code}${s.value}`).join(' ')}`;

/** Two texts word by word. */
export function textParts(before: string, after: string): TextPart[] {
  return diffWordsWithSpace(before, after).map((p) => ({
    text: p.value,
    change: p.added ? 'new' : p.removed ? 'lost' : 'same',
  }));
}

/** Whether any pair of fields differs. */
export const differs = (pairs: readonly FieldPair[]): boolean => pairs.some((p) => p.change !== 'same');
