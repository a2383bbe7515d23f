import { controlValue, dataFields, first, type MarcRecord } from '../marc';
import { cutterNumber, markLetters, markSource } from './author-mark';
import { FIRST_RULE, type CallNumberRule, type RuleWorks } from './call-number-rule';
import { cutDewey } from './dewey';
import type { CallNumber } from './shelf-key';
import type { Scheme } from './scheme';

/** What of the house rules call numbers are made by. */
export interface HouseStyle {
  readonly classDecimals: number;
  readonly cutterLetters: number;
  readonly callNumbers: readonly CallNumberRule[];
}

/** Where a call number is wanted; what is not known yet is left out, and rules that ask for it do not fit. */
export interface CallNumberPlace {
  readonly branch?: string;
  readonly location?: string;
  readonly type?: string;
}

/** A call number made from a record, and how. */
export interface CallNumberOffer extends CallNumber {
  /** Such as "from 082 746.4120942 → 746.41, two decimals; author mark HOL from 100". */
  readonly from: string;
  /** Name of the rule of the house; '' for its general style. */
  readonly rule: string;
}

/** 008 of a book: literary form and biography (MARC 21 Bibliographic, 008/33 and 34 Books). */
const isBook = ({ leader }: MarcRecord) => /[at]/.test(leader[6] ?? '') && /[acdm]/.test(leader[7] ?? '');
/** Fiction, novels, short stories; plays and satires are classed with their literature. */
const FICTION = '1fj';
const fixedAt = (record: MarcRecord, at: number) => controlValue(record, '008')?.[at] ?? ' ';

/** Whether a record is of such a work: by 008, or by what 082 or 092 says in words ([Fic], [B]). */
export function isOfWork(record: MarcRecord, works: RuleWorks): boolean {
  if (works === 'any') return true;
  const words = ['082', '092'].flatMap((tag) =>
    dataFields(record, tag).map((f) => (first(f, 'a') ?? '').trim()),
  );
  if (works === 'fiction')
    return (
      (isBook(record) && FICTION.includes(fixedAt(record, 33))) || words.some((w) => /^\[?(fic|e)\b/i.test(w))
    );
  return (
    (isBook(record) && 'abc'.includes(fixedAt(record, 34))) ||
    words.some((w) => /^(?:\[b\]|b$|92(?:0|\s|$))/i.test(w))
  );
}

const fits = (wanted: readonly string[], code: string | undefined) =>
  wanted.length === 0 || (code !== undefined && wanted.includes(code));

/** The rule of the house for a record at a place; null where its general style is used. */
export const ruleFor = (
  record: MarcRecord,
  rules: readonly CallNumberRule[],
  place: CallNumberPlace,
): CallNumberRule | null =>
  rules.find(
    (r) =>
      fits(r.branches, place.branch) &&
      fits(r.locations, place.location) &&
      fits(r.types, place.type) &&
      isOfWork(record, r.works),
  ) ?? null;

/** The fields a class is taken from, by scheme: the local ones first (MARC 21 Bibliographic, 05X–09X). */
const CLASS_FIELDS: Readonly<Record<Scheme, readonly string[]>> = {
  dewey: ['092', '082'],
  lc: ['090', '050'],
  nlm: ['096', '060'],
  own: ['099'],
};

interface ClassFound {
  readonly class: string;
  readonly item: string;
  readonly how: string;
}

const decimalsText = (n: number): string =>
  n === 0 ? 'no decimals' : n === 1 ? 'one decimal' : n === 2 ? 'two decimals' : `${n} decimals`;

/** The class of a record in a scheme: Dewey cut as the house does, all others as they stand. */
function classOf(record: MarcRecord, scheme: Scheme, decimals: number): ClassFound | null {
  for (const tag of CLASS_FIELDS[scheme])
    for (const f of dataFields(record, tag)) {
      const parts = f.subfields.filter((s) => s.code === 'a').map((s) => s.value.trim());
      const given = (scheme === 'own' ? parts.join(' ') : (parts[0] ?? '')).trim();
      if (given === '') continue;
      if (scheme !== 'dewey')
        return { class: given, item: (first(f, 'b') ?? '').trim(), how: `from ${tag} as it stands` };
      const cut = cutDewey(given, decimals);
      if (cut)
        return {
          class: cut,
          item: '',
          how:
            cut === given
              ? `from ${tag} ${given}`
              : `from ${tag} ${given} → ${cut}, ${decimalsText(decimals)}`,
        };
    }
  return null;
}

/** The author mark of a record, and how it was made. */
export function authorMark(
  record: MarcRecord,
  {
    mark,
    markedBy,
    markLength,
    isMcAsMac,
  }: Pick<CallNumberRule, 'mark' | 'markedBy' | 'markLength' | 'isMcAsMac'>,
): { item: string; how: string } {
  if (mark === 'none' || markLength < 1) return { item: '', how: '' };
  const { word, from } = markSource(record, markedBy);
  const item =
    mark === 'cutter'
      ? cutterNumber(markLetters(word, isMcAsMac), markLength)
      : markLetters(word, isMcAsMac).slice(0, markLength);
  if (item === '') return { item, how: from ? `author mark by hand: ${from} is not in Latin letters` : '' };
  return {
    item,
    how: mark === 'cutter' ? `Cutter number ${item} from ${from}` : `author mark ${item} from ${from}`,
  };
}

/** Year of publication as 008 has it, else as 264 or 260 does; '' for none. */
function yearOf(record: MarcRecord): string {
  const fixed = (controlValue(record, '008') ?? '').slice(7, 11);
  if (/^[12]\d{3}$/.test(fixed)) return fixed;
  const written = ['264', '260'].flatMap((tag) => dataFields(record, tag).map((f) => first(f, 'c') ?? ''));
  return written.map((w) => /[12]\d{3}/.exec(w)?.[0]).find((y) => y !== undefined) ?? '';
}

function byRule(record: MarcRecord, rule: CallNumberRule): CallNumberOffer | null {
  const cls = rule.hasClass ? classOf(record, rule.scheme, rule.decimals) : null;
  if (rule.hasClass && !cls) return null;
  // LC and NLM numbers are kept whole: their item part is in the field.
  const mark = cls?.item ? { item: cls.item, how: '' } : authorMark(record, rule);
  const year = rule.hasYear ? yearOf(record) : '';
  if (!cls && !mark.item) return null;
  const how = [cls?.how ?? `prefix ${rule.prefix} instead of a class`, mark.how, year && `year ${year}`];
  return {
    scheme: rule.scheme,
    prefix: rule.prefix,
    class: cls?.class ?? '',
    item: mark.item,
    ...(year && !mark.item.endsWith(year) && { year }),
    suffix: rule.suffix,
    from: how.filter(Boolean).join('; '),
    rule: rule.name,
  };
}

/** The general style of a house as a rule. */
const generalStyle = (house: HouseStyle, scheme: Scheme): CallNumberRule => ({
  ...FIRST_RULE,
  scheme,
  decimals: house.classDecimals,
  mark: scheme === 'dewey' ? 'letters' : 'none',
  markLength: house.cutterLetters,
});

/**
 * The call numbers a record offers at a place: that of the house's rule first, then one for each scheme in its general style, with the
 * same text no second time.
 */
export function offerCallNumbers(
  record: MarcRecord,
  house: HouseStyle,
  place: CallNumberPlace = {},
): CallNumberOffer[] {
  const rule = ruleFor(record, house.callNumbers, place);
  const all = [
    ...(rule ? [byRule(record, rule)] : []),
    ...(['dewey', 'lc', 'nlm', 'own'] as const).map((scheme) => byRule(record, generalStyle(house, scheme))),
  ].filter((o) => o !== null);
  const seen = new Set<string>();
  return all.filter((o) => {
    const text = [o.scheme, o.prefix, o.class, o.item, o.year ?? '', o.suffix].join('\0');
    return !seen.has(text) && seen.add(text);
  });
}
