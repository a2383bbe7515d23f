import { fold, foldedWords } from '../../text';

/** Short forms in names of bodies (common practice, no source). */
const SHORT: ReadonlyMap<string, string> = new Map(
  Object.entries({
    acad: 'academy',
    admin: 'administration',
    agric: 'agriculture',
    amer: 'american',
    assn: 'association',
    assoc: 'association',
    brit: 'british',
    bros: 'brothers',
    bur: 'bureau',
    bldg: 'building',
    cent: 'central',
    co: 'company',
    coll: 'college',
    comm: 'committee',
    conf: 'conference',
    cong: 'congress',
    corp: 'corporation',
    ctr: 'center',
    centre: 'center',
    dept: 'department',
    dev: 'development',
    dist: 'district',
    div: 'division',
    educ: 'education',
    eng: 'engineering',
    expt: 'experiment',
    fed: 'federal',
    found: 'foundation',
    gen: 'general',
    govt: 'government',
    hist: 'historical',
    hosp: 'hospital',
    inc: 'incorporated',
    inst: 'institute',
    int: 'international',
    internat: 'international',
    intl: 'international',
    lab: 'laboratory',
    labour: 'labor',
    lib: 'library',
    ltd: 'limited',
    mfg: 'manufacturing',
    min: 'ministry',
    mus: 'museum',
    nat: 'national',
    natl: 'national',
    off: 'office',
    org: 'organization',
    organisation: 'organization',
    pub: 'publishing',
    publ: 'publishing',
    res: 'research',
    roy: 'royal',
    sch: 'school',
    sci: 'science',
    sec: 'section',
    serv: 'service',
    soc: 'society',
    st: 'saint',
    sta: 'station',
    tech: 'technical',
    univ: 'university',
    cttee: 'committee',
    symp: 'symposium',
    theatre: 'theater',
    us: 'united states',
    usa: 'united states',
    uk: 'great britain',
  }),
);
/** Words that say what kind of company it is; one form may lack them. */
export const LEGAL: ReadonlySet<string> = new Set([
  'incorporated',
  'limited',
  'company',
  'corporation',
  'llc',
  'plc',
  'gmbh',
  'ag',
  'sa',
]);
const SMALL = new Set([
  'the',
  'a',
  'an',
  'of',
  'and',
  'for',
  'in',
  'on',
  'at',
  'le',
  'la',
  'les',
  'der',
  'die',
  'das',
  'de',
  'und',
  'et',
]);

/** Initials in one word: "U.S." as "US". */
const withoutStops = (text: string): string =>
  text.includes('.') ? text.replace(/\b((?:\p{L}\.){2,})/gu, (m) => m.replaceAll('.', '')) : text;

/** As names of bodies are written, before they are folded: "3d" is an ordinal where "3D" is none, a "co-" no company. */
const readable = (text: string): string =>
  // Most names have none of these.
  /[&+.\d-]/.test(text)
    ? withoutStops(text.replace(/[&+]/g, ' and '))
        .replace(/\b(\d*[23])d\b/g, '$1th')
        .replace(/\b(co)-(?=\p{L})/giu, '$1')
    : text;

/** Small words that make another name: an institute of something is not one for it. */
const LINKING = new Set(['of', 'for', 'in', 'on', 'at', 'de']);
/** The linking words of a name, in their order. */
export const linkingWords = (text: string): string[] => foldedWords(text).filter((w) => LINKING.has(w));

/** The words of a name that count, folded, short forms written out. */
export function wordsOf(text: string): string[] {
  const found: string[] = [];
  for (const word of foldedWords(readable(text)))
    if (!SMALL.has(word)) found.push(...(SHORT.get(word)?.split(' ') ?? [countedWord(word)]));
  return found;
}

/** A number that tells which of a row: "3", "3rd", "3d", "3e". */
export const ORDINAL = /^(\d+)(?:st|nd|rd|th|d|e|er|eme|\.)?$/;
/** The same in words, the first one first. */
export const WRITTEN_ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
];
/** The number of an ordinal, in figures or words, as text; any other text folded. */
export const ordinalNumber = (text: string): string => {
  const plain = fold(text);
  const at = WRITTEN_ORDINALS.indexOf(plain);
  return at >= 0 ? String(at + 1) : (ORDINAL.exec(plain)?.[1] ?? plain);
};
/** "Third" and "3rd" as one word; 3 alone is another, and 3D is no ordinal in a name. */
const countedWord = (word: string): string =>
  WRITTEN_ORDINALS.includes(word) || (word[0]! <= '9' && /^\d+(?:st|nd|rd|th)$/.test(word))
    ? `${ordinalNumber(word)}th`
    : word;
