import { fold } from '../../text';
import { WRITTEN_ORDINALS } from './body-words';

/** Short names of larger places behind a name, without their stops (Anglo-American Cataloguing Rules, second edition, appendix B.14, and common practice). */
const LARGER: ReadonlyMap<string, string> = new Map(
  Object.entries({
    ala: 'alabama',
    alta: 'alberta',
    ariz: 'arizona',
    ark: 'arkansas',
    bc: 'british columbia',
    calif: 'california',
    colo: 'colorado',
    conn: 'connecticut',
    dc: 'district of columbia',
    del: 'delaware',
    eng: 'england',
    fla: 'florida',
    ga: 'georgia',
    ill: 'illinois',
    ind: 'indiana',
    kan: 'kansas',
    ky: 'kentucky',
    la: 'louisiana',
    man: 'manitoba',
    mass: 'massachusetts',
    md: 'maryland',
    me: 'maine',
    mich: 'michigan',
    minn: 'minnesota',
    miss: 'mississippi',
    mo: 'missouri',
    mont: 'montana',
    nb: 'new brunswick',
    nc: 'north carolina',
    nd: 'north dakota',
    neb: 'nebraska',
    nev: 'nevada',
    nfld: 'newfoundland',
    nh: 'new hampshire',
    nj: 'new jersey',
    nm: 'new mexico',
    ns: 'nova scotia',
    nsw: 'new south wales',
    nwt: 'northwest territories',
    ny: 'new york',
    nz: 'new zealand',
    okla: 'oklahoma',
    ont: 'ontario',
    or: 'oregon',
    pa: 'pennsylvania',
    pei: 'prince edward island',
    qld: 'queensland',
    que: 'quebec',
    ri: 'rhode island',
    sask: 'saskatchewan',
    sc: 'south carolina',
    scot: 'scotland',
    sd: 'south dakota',
    tas: 'tasmania',
    tenn: 'tennessee',
    tex: 'texas',
    us: 'united states',
    usa: 'united states',
    va: 'virginia',
    vic: 'victoria',
    vt: 'vermont',
    wa: 'western australia',
    wash: 'washington',
    wis: 'wisconsin',
    wva: 'west virginia',
    wyo: 'wyoming',
  }),
);

/** Places behind a name ("Harrow, N.Y.", "Harrow, New York (State"), folded, the larger ones written out. */
export const placesText = (written: string): string =>
  written
    .split(/[,;:(]/)
    .map((part) => {
      const text = fold(part);
      return LARGER.get(text.replaceAll(' ', '')) ?? text;
    })
    .filter(Boolean)
    .join(' ')
    .replace(/\b(new york|washington) state\b/, '$1');

const IN_PLACES: ReadonlyMap<string, string> = new Map([
  ['st', 'saint'],
  ['ste', 'sainte'],
  ['mt', 'mount'],
  ['ft', 'fort'],
]);
/** The name of a place, folded: "St. Ives" as "Saint Ives". */
export const placeName = (folded: string): string =>
  folded
    .split(' ')
    .map((w, i) => (i === 0 ? (IN_PLACES.get(w) ?? w) : w))
    .join(' ');

/** The second year of two in full: "1939-45" as "1939-1945". */
export const withFullYears = (written: string): string =>
  written.includes('-')
    ? written.replace(/\b(1\d|20)(\d\d)-(\d\d)\b(?!-)/g, (all, century: string, from: string, to: string) =>
        Number(to) > Number(from) ? `${century}${from}-${century}${to}` : all,
      )
    : written;

const CENTURIES = [
  ...WRITTEN_ORDINALS,
  ...['thirteenth', 'fourteenth', 'fifteenth', 'sixteenth', 'seventeenth', 'eighteenth', 'nineteenth'],
  ...['twentieth', 'twenty first'],
];
const SPELLED = new RegExp(`\\b(${[...CENTURIES].reverse().join('|')}) century\\b`);
const ending = (n: number): string => (n > 10 && n < 20 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th'));
/** A century by its number: "twentieth century" as "20th century". Folded text in and out. */
export const withCentury = (folded: string): string =>
  folded.includes('century')
    ? folded.replace(SPELLED, (_, word: string) => {
        const n = CENTURIES.indexOf(word) + 1;
        return `${n}${ending(n)} century`;
      })
    : folded;
