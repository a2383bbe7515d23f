import { isData, type DataField, type Field, type Subfield } from '../marc';
import { headingKey, standingAlone } from './normal-form';
import { nameTitlePart, ownPart, relatorCodes } from './own-part';
import { withStop } from './rewrite-field';

/** Fields of a record after doubles were joined, with a sentence for each that went. */
export interface Folded {
  readonly fields: readonly Field[];
  readonly notes: readonly string[];
}

/**
 * Joins fields that have become the same, whichever came first: they may differ in the final stop, in $0 and $1, and in
 * relators, of which those of both are kept. A 7XX goes into the 1XX of the same name. `changed` are the places of the fields that
 * were rewritten: what was there twice before is not touched.
 */
export function foldFields(
  fields: readonly Field[],
  changed: ReadonlySet<number>,
  punctuated: boolean,
): Folded {
  const kept: (Field | null)[] = [...fields];
  const notes: string[] = [];
  for (let i = 0; i < kept.length; i++) {
    for (let j = i + 1; j < kept.length; j++) {
      const [a, b] = [kept[i], kept[j]];
      if (!a || !b || !isData(a) || !isData(b) || !(changed.has(i) || changed.has(j))) continue;
      const main = mainOf(a, b);
      if (main === null) continue;
      const other = main === a ? b : a;
      const [stays, goes] = main === a ? [i, j] : [j, i];
      // Of two alike the first place stays; the main entry stays where it is.
      kept[stays] = joined(main, other, punctuated);
      kept[goes] = null;
      notes.push(
        a.tag === b.tag
          ? `${b.tag} was there in both forms; the two fields are one now.`
          : `${other.tag} has the name of ${main.tag} now and was joined to it.`,
      );
      if (goes === i) break;
    }
  }
  return { fields: kept.filter((f) => f !== null), notes };
}

/** The field that stays of two that are the same; null when they are not. */
function mainOf(a: DataField, b: DataField): DataField | null {
  if (linked(a) && linked(b)) return null;
  if (a.tag === b.tag) return sameKey(a) === sameKey(b) && sameKey(a) !== null ? a : null;
  const [one, seven] = a.tag[0] === '1' ? [a, b] : [b, a];
  if (one.tag[0] !== '1' || seven.tag !== `7${one.tag.slice(1)}`) return null;
  const isAdded = seven.ind2 === ' ' && !seven.subfields.some((s) => s.code === 'i' || s.code === '3');
  return isAdded && nameTitlePart(one) === null && nameOf(one) === nameOf(seven) && nameOf(one) !== null
    ? one
    : null;
}

const linked = (f: DataField) => f.subfields.some((s) => s.code === '6');
const isJoined = (f: DataField, { code }: Subfield) =>
  '0146'.includes(code) || relatorCodes(f).includes(code);

/** What two fields of one tag must share to be the same: indicators and all subfields but relators, numbers and final marks. */
function sameKey(f: DataField): string | null {
  const part = ownPart(f);
  if (!part) return null;
  const rest = f.subfields.filter((s) => !isJoined(f, s));
  return JSON.stringify([
    f.ind1,
    f.ind2,
    ...standingAlone(rest).map((s) => [s.code, headingKey([{ ...s, code: 'x' }])]),
  ]);
}

/** The name of a field that has nothing but a name, relators and numbers; null for any other. */
function nameOf(f: DataField): string | null {
  const part = ownPart(f);
  if (!part) return null;
  const rest = f.subfields.filter((s, i) => !part.at.includes(i) && !isJoined(f, s));
  return rest.length ? null : headingKey(standingAlone(part.at.map((i) => f.subfields[i]!)));
}

/** The field that stays with the relators and numbers of the other. */
function joined(main: DataField, other: DataField, punctuated: boolean): DataField {
  const terms = relatorCodes(main);
  const has = (code: string, value: string) =>
    main.subfields.some((s) => s.code === code && plainText(s.value) === plainText(value));
  const more = other.subfields.filter((s) => isJoined(other, s) && !has(s.code, s.value));
  const newTerms = more.filter((s) => terms.includes(s.code));
  const isEnded = [main, other].some((f) => /\.$/.test(lastText(f)?.value ?? ''));
  const body = main.subfields.filter((s) => !'0146'.includes(s.code));
  const numbers = main.subfields.filter((s) => '014'.includes(s.code));
  const link = [...main.subfields, ...more].filter((s) => s.code === '6').slice(0, 1);
  const at = lastIndexOf(body, (s) => isWord(s) && !'2'.includes(s.code)) + 1;
  const withTerms = [...body.slice(0, at), ...newTerms, ...body.slice(at)];
  const marked = newTerms.length && punctuated ? commas(withTerms, at, newTerms.length) : withTerms;
  return {
    ...main,
    subfields: endStop(
      [...link, ...marked, ...numbers, ...more.filter((s) => '014'.includes(s.code))],
      isEnded && punctuated,
    ),
  };
}

const isWord = (s: Subfield) => /[a-z]/.test(s.code) && s.code !== 'w';
const plainText = (value: string) =>
  value
    .trim()
    .replace(/[.,;]$/, '')
    .toLowerCase();
const lastText = (f: DataField) => f.subfields.filter(isWord).at(-1);
function lastIndexOf<T>(of: readonly T[], is: (one: T) => boolean): number {
  for (let i = of.length - 1; i >= 0; i--) if (is(of[i]!)) return i;
  return -1;
}

/** A comma before each relator that was added, but behind the hyphen of an open date. */
function commas(subfields: readonly Subfield[], at: number, count: number): Subfield[] {
  return subfields.map((s, i) => {
    if (i < at - 1 || i >= at + count) return s;
    const isLast = i === at + count - 1;
    const bare = i === at - 1 ? withoutFieldStop(s) : s.value.trim().replace(/[.,;]$/, '');
    return { ...s, value: isLast || bare.endsWith('-') ? bare : `${bare},` };
  });
}

/** A text before a relator without the stop that ended its field; one of an abbreviation stays. */
const withoutFieldStop = (s: Subfield): string =>
  s.code === 'e' || s.code === 'j' ? s.value.trim().replace(/[.,;]$/, '') : standingAlone([s])[0]!.value;

/** Subfields with the final stop on the last that has words. */
function endStop(subfields: readonly Subfield[], wanted: boolean): Subfield[] {
  const at = lastIndexOf(subfields, (s) => isWord(s) && s.code !== '2');
  return subfields.map((s, i) => (i === at && wanted ? { ...s, value: withStop(s.value.trim()) } : s));
}
