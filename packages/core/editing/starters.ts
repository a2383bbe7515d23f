import { starterField, type Starter } from './starter';

/** Content, media and carrier (RDA terms and their MARC codes), as fields that stand from the beginning. */
const rda = (content: string, media: string, carrier: string): string[] =>
  [
    ['336', content, 'rdacontent'],
    ['337', media, 'rdamedia'],
    ['338', carrier, 'rdacarrier'],
  ].map(([tag, term, source]) => {
    const [name, code] = term!.split('/');
    return `${tag} ## $a ${name} $b ${code} $2 ${source}`;
  });

const SOURCE = ['040 ## $b eng $e rda'];
const NAMES = ['100 1# $a $e author. * Main name, surname first', '700 1# $a $e ? Other names'];
const TITLE = '245 10 $a $b $c ! Title, other title information, statement of responsibility';
const EDITION = '250 ## $a ? Edition statement';
const PUBLISHED = '264 #1 $a $b $c ! Place, publisher, date';
const SERIES = '490 0# $a $v ? Series and numbering';
const SUMMARY = '520 ## $a * Summary';
const SUBJECTS = ['650 #0 $a * Subject', '651 #0 $a ? Place as a subject'];
const CLASS = '082 04 $a $2 ? Class number';

/** The forms of record that Osier begins with; a library changes them and adds its own. */
const WRITTEN: Readonly<Record<string, Omit<Starter, 'fields'> & { readonly lines: readonly string[] }>> = {
  book: {
    name: 'Book',
    leader: '00000nam a2200000 i 4500',
    fixed: '',
    physical: [],
    lines: [
      '020 ## $a * ISBN',
      ...NAMES.slice(0, 1),
      TITLE,
      EDITION,
      PUBLISHED,
      '300 ## $a $b $c ! Pages, illustrations, height in cm',
      SERIES,
      '504 ## $a ? Bibliography and index',
      SUMMARY,
      ...SUBJECTS,
      CLASS,
      ...NAMES.slice(1),
      ...rda('text/txt', 'unmediated/n', 'volume/nc'),
      ...SOURCE,
    ],
  },
  ebook: {
    name: 'E-book',
    leader: '00000nam a2200000 i 4500',
    fixed: '     o',
    physical: ['cr'],
    lines: [
      '020 ## $a * ISBN of the electronic edition',
      ...NAMES.slice(0, 1),
      TITLE,
      EDITION,
      PUBLISHED,
      '300 ## $a 1 online resource $b ! Extent in brackets after it',
      SERIES,
      SUMMARY,
      ...SUBJECTS,
      '856 40 $u ! Address on the web',
      ...NAMES.slice(1),
      ...rda('text/txt', 'computer/c', 'online resource/cr'),
      ...SOURCE,
    ],
  },
  serial: {
    name: 'Serial',
    leader: '00000nas a2200000 i 4500',
    fixed: 'uu p       0   a0',
    physical: [],
    lines: [
      '022 ## $a * ISSN',
      '245 00 $a $b ! Title',
      '264 #1 $a $b $c ! Place, publisher, date of the first issue',
      '300 ## $a volumes $b $c * Extent',
      '310 ## $a * Frequency now: Quarterly',
      '362 0# $a * First issue: Vol. 1, no. 1 (spring 2020)-',
      SUMMARY,
      ...SUBJECTS,
      '710 2# $a ? Issuing body',
      '780 00 $t ? Earlier title',
      '785 00 $t ? Later title',
      ...rda('text/txt', 'unmediated/n', 'volume/nc'),
      ...SOURCE,
    ],
  },
  video: {
    name: 'Video',
    leader: '00000ngm a2200000 i 4500',
    fixed: '--- g          vl',
    physical: ['vd cvaizq'],
    lines: [
      '024 1# $a ? Universal product code',
      '245 00 $a $b $c ! Title and who made it',
      PUBLISHED,
      '300 ## $a $b $c ! 1 videodisc (52 min) : sound, colour ; 12 cm',
      '508 ## $a ? Production credits',
      '511 1# $a ? Performers',
      SUMMARY,
      '538 ## $a ? System: DVD, region 2',
      '546 ## $a ? Languages and subtitles',
      ...SUBJECTS,
      ...NAMES.slice(1),
      ...rda('two-dimensional moving image/tdi', 'video/v', 'videodisc/vd'),
      ...SOURCE,
    ],
  },
  sound: {
    name: 'Sound recording',
    leader: '00000nim a2200000 i 4500',
    fixed: 'nnn|        || n',
    physical: ['sd fsngnn'],
    lines: [
      '024 1# $a ? Universal product code',
      '028 02 $a $b ? Number of the publisher',
      ...NAMES.slice(0, 1),
      TITLE,
      PUBLISHED,
      '300 ## $a $b $c ! 2 audio discs (130 min) ; 12 cm',
      '505 0# $a ? Contents',
      '511 0# $a * Reader or performers',
      SUMMARY,
      ...SUBJECTS,
      ...NAMES.slice(1),
      ...rda('spoken word/spw', 'audio/s', 'audio disc/sd'),
      ...SOURCE,
    ],
  },
  map: {
    name: 'Map',
    leader: '00000nem a2200000 i 4500',
    fixed: '       a     0',
    physical: ['aj canzn'],
    lines: [
      '034 1# $a a $b $d $e $f $g ? Scale and coordinates as codes',
      ...NAMES.slice(0, 1),
      TITLE,
      '255 ## $a $b $c * Scale 1:25,000',
      PUBLISHED,
      '300 ## $a $b $c ! 1 map : colour ; 60 x 80 cm',
      SUMMARY,
      '651 #0 $a $v Maps. * Place',
      '650 #0 $a ? Subject',
      ...NAMES.slice(1),
      ...rda('cartographic image/cri', 'unmediated/n', 'sheet/nb'),
      ...SOURCE,
    ],
  },
  kit: {
    name: 'Kit',
    leader: '00000nom a2200000 i 4500',
    fixed: 'nnn g          bn',
    physical: ['ou'],
    lines: [
      '245 00 $a $b $c ! Title and maker',
      PUBLISHED,
      '300 ## $a $b $c ! 12 pieces : wood, cane ; in box 30 x 20 x 8 cm',
      '505 0# $a * What is in it',
      '521 ## $a ? Audience',
      SUMMARY,
      ...SUBJECTS,
      ...NAMES.slice(1),
      ...rda('three-dimensional form/tdf', 'unmediated/n', 'object/nr'),
      ...SOURCE,
    ],
  },
  pattern: {
    name: 'Pattern sheet',
    leader: '00000nkm a2200000 i 4500',
    fixed: 'nnn g          ln',
    physical: ['kl |o '],
    lines: [
      '100 1# $a $e designer. * Designer, surname first',
      TITLE,
      PUBLISHED,
      '300 ## $a $b $c ! 1 sheet : both sides ; 60 x 42 cm folded to 21 x 15 cm',
      '340 ## $a ? Material',
      '500 ## $a ? Note on sizes',
      SUMMARY,
      '650 #0 $a $v Patterns. * Subject',
      '655 #7 $a Patterns (Instructions) $2 local ?',
      ...rda('still image/sti', 'unmediated/n', 'sheet/nb'),
      ...SOURCE,
    ],
  },
  thesis: {
    name: 'Thesis',
    leader: '00000ntm a2200000 i 4500',
    fixed: '      m    000 0',
    physical: [],
    lines: [
      '100 1# $a $e author. ! Name, surname first',
      TITLE,
      '264 #0 $c ! Date of the thesis',
      '300 ## $a $b $c ! Leaves, illustrations, height in cm',
      '502 ## $b $c $d ! Degree, institution, year',
      '504 ## $a ? Bibliography and index',
      '520 3# $a * Abstract',
      ...SUBJECTS,
      CLASS,
      '700 1# $a $e degree supervisor. ? Supervisor',
      ...rda('text/txt', 'unmediated/n', 'volume/nc'),
      ...SOURCE,
    ],
  },
};

/** The starters that Osier brings along, by their keys. */
export const STARTERS: Readonly<Record<string, Starter>> = Object.fromEntries(
  Object.entries(WRITTEN).map(([key, { lines, ...starter }]) => [
    key,
    { ...starter, fields: lines.map((line) => readWritten(line)) },
  ]),
);

function readWritten(line: string) {
  const read = starterField(line);
  if (!read) throw new Error(`A starter has a line that is none: ${line}`);
  return read;
}
