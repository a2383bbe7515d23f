import { sameValue } from '../changes';
import { controlValue, isData, type DataField, type MarcRecord } from '../marc';
import { authorityNumbers } from './authority-numbers';
import {
  formText,
  headingText,
  identityOf,
  isEstablished,
  keptForm,
  kindOfTracing,
  type Heading,
} from './heading';
import { headingIdentity } from './normal-form';
import { ownPart } from './own-part';
import { formOfAuthority } from './merge-form';
import { mergeForms, NotMergeable, withSeeFroms } from './merge-plan';
import { asReplaced, replacementsOf, type Replacement } from './replaced';
import { TAKEN_FIELDS, withTakenFields } from './taken-fields';

/** An authority record of a file, as far as it can be taken in. */
export interface IncomingAuthority {
  readonly marc: MarcRecord;
  /** Its heading as it is read, or the best that can be said of the record. */
  readonly text: string;
  /** What it is here; null where it cannot be taken in. */
  readonly heading: Heading | null;
  readonly numbers: readonly string[];
  /** Why it cannot be taken in. */
  readonly problem: string | null;
  /** It says that it is no more (leader 05). */
  readonly isDeleted: boolean;
  /** What takes its place then (682). */
  readonly replacements: readonly Replacement[];
}

/** Kinds of authority records that are no established headings (MARC 21 Authority, 008/09). */
const NO_HEADING: Readonly<Record<string, string>> = {
  b: 'a reference record',
  c: 'a reference record',
  d: 'a subdivision record',
  e: 'a node label record',
  g: 'a reference and subdivision record',
};

/** Reads what an authority record of a file is (MARC 21 Authority: leader, 008, 1XX). */
export function incomingAuthority(marc: MarcRecord): IncomingAuthority {
  const own = marc.fields.find((f): f is DataField => isData(f) && f.tag[0] === '1');
  const isDeleted = 'dsx'.includes(marc.leader[5] ?? ' ');
  const base = {
    marc,
    text: own ? formText(own) : (controlValue(marc, '001') ?? ''),
    numbers: authorityNumbers(marc),
    isDeleted,
    replacements: isDeleted ? replacementsOf(marc) : [],
  };
  const left = (problem: string): IncomingAuthority => ({ ...base, heading: null, problem });
  if (marc.leader[6] !== 'z')
    return left(`This is no authority record (leader/06 is ${marc.leader[6] ?? 'missing'}).`);
  const what = NO_HEADING[controlValue(marc, '008')?.[9] ?? ''];
  if (what) return left(`This is ${what} (008/09), not an established heading.`);
  if (!own) return left('The record has no heading (1XX).');
  const kind = kindOfTracing(own);
  if (!kind) return left(`Headings of ${own.tag} are not kept here.`);
  if (!ownPart(own)) return left(`The heading (${own.tag}) does not begin with $a.`);
  return { ...base, heading: { kind, marc, mergedInto: null }, problem: null };
}

/** What becomes of an authority record of a file. */
export const AUTHORITY_OUTCOMES = [
  'new',
  'establishes',
  'updates',
  'changes-form',
  'same',
  'replaced',
  'deletes',
  'left',
] as const;
export type AuthorityOutcome = (typeof AUTHORITY_OUTCOMES)[number];

/** What the library has that an authority record of a file meets. */
export interface MetHeadings {
  /** The heading that has one of its numbers, and the one that has its form. */
  readonly byNumber: Heading | null;
  readonly byForm: Heading | null;
  /** Records that carry the heading it is about. */
  readonly records: number;
  /** Other headings whose kept form is one of its see-froms; of each, whether it leads back. */
  readonly clashes: readonly { readonly text: string; readonly leadsBack: boolean }[];
  /** It came before in the same file, or another record of the file is about the same heading. */
  readonly isTwice: boolean;
  /** The heading here that takes its place, as it says; it is none of those that it meets. Absent where there is none. */
  readonly replacement?: Heading | undefined;
  /** Other headings lead to the one it is about, or are told apart from it: it cannot go. */
  readonly isHeld?: boolean;
}

/** What is done with one authority record: the heading as it is afterwards, and what to look at. */
export interface AuthorityPlan {
  readonly outcome: AuthorityOutcome;
  readonly after: Heading | null;
  readonly note: string | null;
}

const left = (note: string): AuthorityPlan => ({ outcome: 'left', after: null, note });

/** Without what changes whenever a record is handed on: leader 00–04 and 12–16, date and time (005). */
const content = ({ leader, fields }: MarcRecord) => [
  leader.slice(5, 12) + leader.slice(17),
  fields.filter((f) => f.tag !== '005'),
];

/**
 * Decides what becomes of an authority record. A heading that is here gets the record; its own see-froms, sources and notes stay beside those of
 * the record. Nothing is done where two headings here claim it, or see-froms would run in a circle.
 */
export function planAuthority(incoming: IncomingAuthority, met: MetHeadings): AuthorityPlan {
  const { heading, problem } = incoming;
  if (!heading) return left(problem ?? 'This record cannot be taken in.');
  if (met.isTwice) return left('An earlier record of the file is about this heading; that one is taken.');
  const { byNumber, byForm } = met;
  if (byNumber && byForm && byNumber !== byForm)
    return left(
      `Its number is that of “${headingText(byNumber)}”, its form that of another heading here. Merge these two first.`,
    );
  const held = byNumber ?? byForm;
  if (incoming.isDeleted)
    return incoming.replacements.length
      ? replaced(held, incoming.replacements, met)
      : deleted(held, met.records, met.isHeld === true);
  if (held && held.kind !== heading.kind)
    return left(`“${headingText(held)}”, which has its number, is a ${held.kind} heading.`);
  const circle = met.clashes.find((c) => c.leadsBack);
  if (circle)
    return left(`“${circle.text}”, one of its see-froms, is a heading here that sees from it: a circle.`);
  const clash = met.clashes[0]
    ? `Its see-from “${met.clashes[0].text}” is a heading here. Merge the two where they are one.`
    : null;
  const undifferentiated =
    controlValue(incoming.marc, '008')?.[32] === 'b' ? 'The name is undifferentiated (008/32 is b).' : null;
  const note = [clash, undifferentiated].filter(Boolean).join(' ') || null;
  if (!held) return { outcome: 'new', after: heading, note };
  const marc = withTakenFields(
    withSeeFroms(heading.marc, [withoutForm(held, heading)]),
    [held.marc],
    TAKEN_FIELDS,
  );
  const after: Heading = { ...heading, marc };
  if (sameValue(content(held.marc), content(marc))) return { outcome: 'same', after: null, note: null };
  const isOtherForm = headingIdentity(identityOf(held)) !== headingIdentity(identityOf(after));
  if (isOtherForm) return { outcome: 'changes-form', after, note };
  return { outcome: isEstablished(held) ? 'updates' : 'establishes', after, note };
}

/** The record that is here, as far as its forms become see-froms: its kept form only where that is another. */
const withoutForm = (held: Heading, incoming: Heading): MarcRecord =>
  headingIdentity(identityOf(held)) === headingIdentity(identityOf(incoming))
    ? { ...held.marc, fields: held.marc.fields.map((f) => (f === keptForm(held) ? keptForm(incoming) : f)) }
    : held.marc;

/** What becomes of a heading that another one replaces: its records carry that one then, and it leads there. */
function replaced(
  held: Heading | null,
  by: readonly Replacement[],
  { replacement, records, isHeld = false }: MetHeadings,
): AuthorityPlan {
  const [first, ...more] = by.map((r) => `“${r.text}”`);
  if (more.length)
    return records > 0
      ? left(
          `The record was split into ${[first, ...more].join(', ')} (682). Choose in Headings which of them its records mean.`,
        )
      : deleted(held, records, isHeld);
  // The one that takes its place is here, and it is not: that has been done.
  if (!held)
    return replacement ? { outcome: 'same', after: null, note: null } : deleted(held, records, isHeld);
  if (!replacement)
    return left(`The record was replaced by ${first} (682), which is not here. Load that first.`);
  try {
    mergeForms(formOfAuthority(replacement.marc), [formOfAuthority(held.marc)]);
  } catch (error) {
    if (error instanceof NotMergeable)
      return left(
        `The record was replaced by ${first} (682), but it cannot be merged into that: ${error.message}`,
      );
    throw error;
  }
  const after: Heading = { ...held, marc: asReplaced(held.marc, replacement.marc) };
  return { outcome: 'replaced', after, note: null };
}

function deleted(held: Heading | null, records: number, isHeld: boolean): AuthorityPlan {
  if (!held) return left('The record is deleted (leader 05), and there is no such heading here.');
  if (records > 0)
    return left(
      `The record is deleted (leader 05), but ${records === 1 ? '1 record carries' : `${records.toLocaleString('en-GB')} records carry`} the heading. Merge it into another one first.`,
    );
  if (isHeld)
    return left(
      'The record is deleted (leader 05), but headings that were merged into it or told apart from it lead to the heading here.',
    );
  return { outcome: 'deletes', after: null, note: null };
}
