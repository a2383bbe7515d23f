import type { MarcRecord } from '../marc';
import { headingsOf, seeFroms, type Heading, type HeadingReader } from './heading';
import { formOfAuthority, type MergeForm } from './merge-form';
import { mergeInRecord } from './merge-record';
import { headingGroup, headingKey, isSubjectKind, type HeadingUse } from './normal-form';

/** Something that a record may be known by among the see-froms: group (`headingGroup`) and key. */
export interface Followable {
  readonly group: string;
  readonly key: string;
}

/** What of a record may be a see-from: each heading that it uses, of a subject also what stands before its subdivisions. */
export function followable(records: readonly MarcRecord[], read: HeadingReader = headingsOf): Followable[] {
  const found = new Map<string, Followable>();
  for (const use of records.flatMap(read))
    for (const key of keysOf(use)) {
      const one = { group: headingGroup(use), key };
      found.set(`${one.group} ${key}`, one);
    }
  return [...found.values()];
}

function keysOf({ kind, key, subfields }: HeadingUse): string[] {
  if (!isSubjectKind(kind)) return [key];
  return subfields.map((_, i) => headingKey(subfields.slice(0, i + 1)));
}

/** A heading, with the keys of those of its see-froms that lead to it and to nothing else. */
export interface Followed {
  readonly heading: Heading;
  readonly from: ReadonlySet<string>;
}

/** A record in which see-froms have given way to the kept forms; each is told ("… became …"). The record itself when there is none. */
export function withKeptForms(
  record: MarcRecord,
  followed: readonly Followed[],
): { readonly record: MarcRecord; readonly notes: readonly string[] } {
  let now = record;
  const notes: string[] = [];
  for (const { heading, from } of followed) {
    const kept = formOfAuthority(heading.marc);
    if (!kept) continue;
    const lost = seeFroms(heading).flatMap((f): MergeForm[] => {
      const form = formOfAuthority({ leader: '', fields: [{ ...f, tag: `1${f.tag.slice(1)}` }] });
      return form?.type === kept.type && from.has(form.key) ? [{ ...form, vocabulary: kept.vocabulary }] : [];
    });
    for (const form of lost) {
      const next = mergeInRecord(now, kept, [form]);
      if (next.record === now) continue;
      notes.push(`“${textOf(form)}” became “${textOf(kept)}”`);
      now = next.record;
    }
  }
  return { record: now, notes };
}

const textOf = ({ subfields }: MergeForm) => subfields.map((s) => s.value).join(' ');
