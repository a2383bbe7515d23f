import { isData, type DataField, type Field, type MarcRecord } from '../marc';
import { foldFields } from './fold-fields';
import { standsIn, type MergeForm } from './merge-form';
import { normalText } from './normal-form';
import { punctuationOf, withForm } from './rewrite-field';
import { vocabularyOfField } from './vocabulary';

/** A record after a merge, with what a person should look at twice. The record itself when nothing of it changed. */
export interface MergedRecord {
  readonly record: MarcRecord;
  readonly notes: readonly string[];
}

/**
 * A record in which each field that carries a lost form carries the kept one. Fields of another vocabulary are left, and so is what
 * was transcribed or stands in another script; both are told.
 */
export function mergeInRecord(record: MarcRecord, kept: MergeForm, lost: readonly MergeForm[]): MergedRecord {
  const how = punctuationOf(record);
  const changed = new Set<number>();
  const notes: string[] = [];
  const fields = record.fields.map((f, at): Field => {
    if (!isData(f)) return f;
    for (const form of lost) {
      const part = standsIn(form, f);
      if (!part) continue;
      if (vocabularyOfField(f) !== form.vocabulary) {
        notes.push(
          `${f.tag} “${textOf(form)}” is of another vocabulary (${vocabularyOfField(f)}) and stays.`,
        );
        continue;
      }
      changed.add(at);
      if (f.subfields.some((s) => s.code === '6'))
        notes.push(`${f.tag} has a partner in another script (880), which stays as it is.`);
      return withForm(f, part, kept, how);
    }
    return f;
  });
  if (changed.size === 0) return { record, notes };
  const folded = foldFields(fields, changed, how.marks);
  return {
    record: { ...record, fields: folded.fields },
    notes: [...notes, ...folded.notes, ...leftAsTranscribed(record, lost)],
  };
}

const textOf = ({ subfields }: MergeForm) => subfields.map((s) => s.value).join(' ');

/** Fields that name the lost heading without being under authority control. */
function leftAsTranscribed(record: MarcRecord, lost: readonly MergeForm[]): string[] {
  const names = lost.map((l) => normalText(l.subfields.find((s) => s.code === 'a')?.value ?? ''));
  const direct = names.map((n, i) => directOrder(lost[i]!) ?? n);
  const found: string[] = [];
  for (const f of record.fields) {
    if (!isData(f)) continue;
    const inA = normalText(f.subfields.find((s) => s.code === 'a')?.value ?? '');
    if (/^(720|7[678].)$/.test(f.tag) && names.includes(inA))
      found.push(`${f.tag} names it too and stays as it is.`);
    if (f.tag === '245' && says(f, [...names, ...direct]))
      found.push('The statement of responsibility (245 $c) names it too and stays as it is.');
  }
  return found;
}

const says = (f: DataField, names: readonly string[]): boolean =>
  f.subfields.some(
    (s) => s.code === 'c' && names.some((n) => n !== '' && ` ${normalText(s.value)} `.includes(` ${n} `)),
  );

/** "Reedman, A." as it stands on a title page: "A Reedman" in normal form. */
function directOrder({ type, subfields }: MergeForm): string | null {
  const name = subfields.find((s) => s.code === 'a')?.value ?? '';
  const comma = name.indexOf(',');
  return type.startsWith('00') && comma > 0
    ? normalText(`${name.slice(comma + 1)} ${name.slice(0, comma)}`)
    : null;
}
