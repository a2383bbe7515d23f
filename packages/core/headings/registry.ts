import { controlValue, isData, type DataField, type MarcRecord } from '../marc';
import { cqlClause, cqlGuarded, cqlJoined, cqlText, type CqlNode } from '../query';
import { foldedWords } from '../text';
import { currentNumbers } from './authority-numbers';
import { formText, identityOf, keptForm, seeFroms, type Heading } from './heading';
import { incomingAuthority } from './incoming-authority';
import { headingIdentity } from './normal-form';

/** How many members of a registry use a form. */
export interface FormOfMembers {
  readonly form: string;
  readonly members: number;
}

/** A name as a registry has it. */
export interface RegistryName {
  /** With the agency before it: `(WNR)wn000012`. */
  readonly number: string;
  readonly text: string;
  /** The authority record, without fields that are local there (9XX). */
  readonly marc: MarcRecord;
  readonly seeFroms: readonly string[];
  /** Where it was found (670 $a). */
  readonly sources: readonly string[];
  /** Forms by how many members use each, the most used first (990 $a $n, as the registry keeps it). */
  readonly forms: readonly FormOfMembers[];
  /** It is no more (leader 05 = d, s or x). */
  readonly isGone: boolean;
  /** What takes its place (682 $i $a, or $a), as a text; '' where nothing is said. */
  readonly replacedBy: string;
}

/** Words that are asked for, and numbers that are asked for at once. */
const [MOST_WORDS, MOST_NUMBERS] = [8, 20];

/** The CQL query for a name: all of its words, each of which may go on (Bath profile 2: bath.name). Null where there is no word. */
export function registryQuery(name: string): string | null {
  const words = foldedWords(name).slice(0, MOST_WORDS);
  const node = cqlJoined(
    'and',
    words.map((w): CqlNode => ({ ...cqlClause('bath.name', '=', w), term: `${cqlGuarded(w)}*` })),
  );
  return node && cqlText({ node, sort: [] });
}

/** The CQL query for some numbers, as the registry itself has them (001). */
export function numbersQuery(numbers: readonly string[]): string | null {
  const node = cqlJoined(
    'or',
    numbers.slice(0, MOST_NUMBERS).map((n) => cqlClause('rec.identifier', '=', n)),
  );
  return node && cqlText({ node, sort: [] });
}

const texts = (marc: MarcRecord, tag: string, codes: string): string[] =>
  marc.fields.flatMap((f) =>
    isData(f) && f.tag === tag
      ? [
          f.subfields
            .filter((s) => codes.includes(s.code))
            .map((s) => s.value.trim())
            .join(' ')
            .trim(),
        ].filter(Boolean)
      : [],
  );

/** How many members use each form. A count that is none is left out. */
function formsOf(marc: MarcRecord): FormOfMembers[] {
  const of = (f: DataField, code: string) => f.subfields.find((s) => s.code === code)?.value.trim() ?? '';
  return marc.fields
    .flatMap((f) =>
      isData(f) && f.tag === '990' && of(f, 'a') !== '' && /^\d{1,9}$/.test(of(f, 'n'))
        ? [{ form: of(f, 'a'), members: Number(of(f, 'n')) }]
        : [],
    )
    .sort((a, b) => b.members - a.members);
}

/** Reads what a registry has; null for a record that cannot be a heading here, or that has no number. */
export function registryName(record: MarcRecord): RegistryName | null {
  const marc = { ...record, fields: record.fields.filter((f) => f.tag[0] !== '9') };
  const { heading, isDeleted, text } = incomingAuthority(marc);
  const [control, agency] = [controlValue(marc, '001'), controlValue(marc, '003')].map(
    (v) => v?.trim() ?? '',
  );
  if (!heading || !control || !agency) return null;
  return {
    number: `(${agency})${control}`,
    text,
    marc,
    seeFroms: seeFroms(heading).map(formText),
    sources: texts(marc, '670', 'a'),
    forms: formsOf(record),
    isGone: isDeleted,
    replacedBy: texts(marc, '682', 'a')[0] ?? texts(marc, '682', 'i')[0] ?? '',
  };
}

/** The number that a heading has in a registry, as the registry has it (without its agency); null where it has none there. Cancelled ones ($z) are none. */
export function numberIn(marc: MarcRecord, agency: string): string | null {
  if (agency === '') return null;
  const begins = `(${agency})`;
  const found = currentNumbers(marc).find((n) => n.startsWith(begins));
  return found?.slice(begins.length).trim() || null;
}

/** What a registry says of a heading that has a number there: another form, that it is no more, or nothing new. */
export function registryNews(heading: Heading, theirs: RegistryName | null): 'form' | 'gone' | null {
  if (theirs === null || theirs.isGone) return 'gone';
  const read = incomingAuthority(theirs.marc).heading;
  if (!read) return null;
  const same = headingIdentity(identityOf(read)) === headingIdentity(identityOf(heading));
  return same && formText(keptForm(read)) === formText(keptForm(heading)) ? null : 'form';
}
