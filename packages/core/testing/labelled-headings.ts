import { field, type DataField, type MarcRecord } from '../marc';

/** Headings of which it is known who is meant: each text of a type belongs to one. */
export interface LabelledHeadings {
  readonly records: readonly MarcRecord[];
  /** By type: the texts of the headings, each with whom it means. */
  readonly truth: ReadonlyMap<string, ReadonlyMap<string, string>>;
}

type Sub = readonly [code: string, value: string];
/** A form, and titles of the records that carry it. */
interface Labelled {
  readonly who: string;
  readonly tag: string;
  readonly subfields: readonly Sub[];
  readonly ind1?: string;
  readonly ind2?: string;
  readonly titles?: readonly string[];
  readonly year?: number;
  /** Another form in the same record. */
  readonly beside?: readonly Sub[];
}

/** Invented surnames, and one that may be taken for it. */
const SURNAMES =
  'Reedman/Readman Quillfeather/Quillfether Osgarth/Osgerth Brackenby/Brackenbey Withycombe/Withecombe Tallowby/Tallowbee Fenwright/Fenright Sallowes/Salowes Harrowgate/Harrowgote Millward/Milward Penhallow/Penhollow Ketterby/Kettarby Ashlode/Ashlude Wickmere/Wickmore Netherby/Nethersby Thornbeck/Thornback Eelworth/Ellworth Coracle/Corracle Marshgate/Marchgate Hollinshed/Hollinshad'.split(
    ' ',
  );
const FORENAMES =
  'Amos Bertram|Ada Mary|Charles Edwin|Dorothea Jane|Edmund Hugh|Florence May|George Albert|Harriet Rose|Isaac Noel|Josephine Ann|Kenneth Paul|Lavinia Grace|Matthew Owen|Nathaniel John|Olive Ruth|Philip Arthur|Rosalind Kate|Samuel Ernest|Theodora Beth|William Frank'.split(
    '|',
  );
/** Another forename with the same initial. */
const OTHERS =
  'Albert Agnes Clement Daniel Ernest Frances Gerald Hannah Ivor Judith Keith Leonora Magnus Norman Oscar Percy Rupert Stella Thomas Walter'.split(
    ' ',
  );
const SHORT: Readonly<Record<string, string>> = {
  Charles: 'Chas.',
  George: 'Geo.',
  Samuel: 'Saml.',
  William: 'Wm.',
  Matthew: 'Matt.',
  Nathaniel: 'Nath.',
  Edmund: 'Edm.',
  Philip: 'Phil.',
};

const title = (n: number, k: number) =>
  `The ${['river', 'eel', 'willow', 'basket', 'marsh'][k % 5]} book of ${SURNAMES[n % 20]!.split('/')[0]} and ${FORENAMES[(n * 7 + k) % 20]!.split(' ')[0]}`;

/** Persons: forms of each, then others who are not him or her. */
function persons(): Labelled[] {
  const found: Labelled[] = [];
  for (let n = 0; n < 60; n++) {
    const [surname = '', slip = ''] = SURNAMES[n % 20]!.split('/');
    const [given = '', middle = ''] = FORENAMES[(n * 3 + Math.floor(n / 20) * 7) % 20]!.split(' ');
    const other = OTHERS[(n * 3 + Math.floor(n / 20) * 7) % 20]!;
    const born = 1830 + n * 2;
    const died = born + 61;
    const life = `${born}-${died}`;
    const who = `person ${n}`;
    const own = [title(n, 1), title(n, 2)];
    const p = (
      of: string,
      name: string,
      d = '',
      more: Partial<Labelled> & { readonly c?: string; readonly q?: string; readonly b?: string } = {},
    ) => {
      const { c, q, b, ...rest } = more;
      const parts: Sub[] = [
        ['a', name],
        ...(b ? [['b', b] as const] : []),
        ...(q ? [['q', `(${q})`] as const] : []),
        ...(c ? [['c', c] as const] : []),
        ...(d ? [['d', d] as const] : []),
      ];
      found.push({ who: of, tag: '100', ind1: '1', subfields: parts, ...rest });
    };
    const i = `${given[0]}.`;
    p(who, `${surname}, ${given} ${middle}`, life, { titles: own, year: born + 35 });
    // Each person comes in some of these forms.
    const forms: (() => void)[] = [
      () => p(who, `${surname}, ${i} ${middle[0]}.`, life),
      () => p(who, `${surname}, ${given} ${middle}`, `${born}-`),
      () => p(who, `${surname.toUpperCase()}, ${given.toUpperCase()} ${middle.toUpperCase()}`, life),
      () => p(who, `${surname}, ${i} ${middle[0]}.`, life, { q: `${given} ${middle}` }),
      () => p(who, `${surname}, ${given} ${middle[0]}.`, `b. ${born}`),
      () => p(who, `${surname}, ${SHORT[given] ?? i} ${middle}`, life),
      () => p(who, `${surname}, ${given}`, life),
      () => p(who, `${surname}, ${given} ${middle}`, `approximately ${born + 2}-${died}`),
      () => p(who, `${slip}, ${given} ${middle}`, life),
      () => p(who, `${surname}, ${given} ${middle}`, '', { titles: [own[0]!], year: born + 40 }),
      () => p(who, `${surname}, ${i} ${middle[0]}.`, '', { titles: [own[1]!], year: born + 40 }),
      () => p(who, `${surname}, ${given} ${middle}`, `${born} March 3-${died}`),
      () => p(who, `${surname}, ${given} ${middle}`, life, { c: 'Dr.' }),
    ];
    for (let k = 0; k < 4; k++) forms[(n + k * 5) % forms.length]!();
    const traps: (() => void)[] = [
      () => p(`${who} of later`, `${surname}, ${given} ${middle}`, `${born + 90}-`, { year: born + 140 }),
      () => p(`${who} of the slip`, `${slip}, ${given} ${middle}`, `${born + 30}-`),
      () =>
        p(`${who} the younger`, `${surname}, ${given} ${middle}`, `${born + 25}-${died + 20}`, { c: 'Jr.' }),
      () =>
        p(`${who}'s wife`, `${surname}, ${given} ${middle}`, '', {
          c: 'Mrs.',
          titles: [title(n, 3)],
          year: born + 30,
        }),
      () => p(`${who} other forename`, `${surname}, ${other} ${middle}`, '', { titles: [title(n, 4)] }),
      () =>
        p(
          `${who} other initial`,
          `${surname}, ${i} ${OTHERS[(n + 5) % 20]![0] === middle[0] ? 'Z' : OTHERS[(n + 5) % 20]![0]}.`,
          life,
        ),
      () =>
        p(`${who} beside`, `${surname}, ${i}`, '', {
          beside: [
            ['a', `${surname}, ${given} ${middle}`],
            ['d', life],
          ],
          titles: [title(n, 5)],
        }),
      () =>
        p(`${who} before`, `${surname}, ${i} ${middle[0]}.`, '', { titles: [title(n, 6)], year: born - 20 }),
      () => p(`${who} unlike`, `${slip}, ${other}`, ''),
    ];
    for (let k = 0; k < 3; k++) traps[(n + k * 2) % traps.length]!();
  }
  const direct: [string, Sub[]][] = [
    [
      'first queen',
      [
        ['a', 'Maud'],
        ['b', 'I,'],
        ['c', 'Queen of Wick,'],
        ['d', '1490-1541'],
      ],
    ],
    [
      'second queen',
      [
        ['a', 'Maud'],
        ['b', 'II,'],
        ['c', 'Queen of Wick,'],
        ['d', '1566-1603'],
      ],
    ],
    [
      'saint',
      [
        ['a', 'Maud'],
        ['c', 'Saint,'],
        ['d', '600-655'],
      ],
    ],
    [
      'saint',
      [
        ['a', 'Maud,'],
        ['c', 'Saint, of Harrow,'],
        ['d', 'approximately 600-655'],
      ],
    ],
    [
      'king',
      [
        ['a', 'Osric,'],
        ['c', 'King of Wick'],
        ['d', '384 B.C.-322 B.C.'],
      ],
    ],
    [
      'king',
      [
        ['a', 'Osric,'],
        ['c', 'King of Wick'],
        ['d', '384-322 B.C.'],
      ],
    ],
    [
      'bishop',
      [
        ['a', 'Osric,'],
        ['c', 'Bishop'],
        ['d', 'active 12th century'],
      ],
    ],
    [
      'van',
      [
        ['a', 'Van der Fenn, Jan'],
        ['d', '1801-1870'],
      ],
    ],
    [
      'van',
      [
        ['a', 'Fenn, Jan van der'],
        ['d', '1801-1870'],
      ],
    ],
    [
      'van',
      [
        ['a', 'Vanderfenn, Jan'],
        ['d', '1801-1870'],
      ],
    ],
    [
      'cellist',
      [
        ['a', 'Tchaikin, Pavel'],
        ['d', '1840-1893'],
      ],
    ],
    [
      'cellist',
      [
        ['a', 'Chaikin, Pavel'],
        ['d', '1840-1893'],
      ],
    ],
    [
      'compound',
      [
        ['a', 'Harrow-Smith, Ann'],
        ['d', '1920-'],
      ],
    ],
    [
      'compound',
      [
        ['a', 'Harrow Smith, Ann'],
        ['d', '1920-'],
      ],
    ],
    [
      'compound',
      [
        ['a', 'Smith, Ann Harrow'],
        ['d', '1920-'],
      ],
    ],
  ];
  for (const [who, subfields] of direct)
    found.push({ who, tag: '100', ind1: subfields[0]![1].includes(', ') ? '1' : '0', subfields });
  return found;
}

const PLACES =
  'Wickmere Harrow Netherlode Skellwater Brindlow Osmere Thornbeck Ashlode Ketterby Millrace'.split(' ');
const SUBJECTS =
  'Agriculture Navigation Basketry Hydrology Forestry Botany Education Engineering Fisheries Printing'.split(
    ' ',
  );

function bodies(): Labelled[] {
  const found: Labelled[] = [];
  const c = (who: string, ...subfields: Sub[]) => found.push({ who, tag: '110', ind1: '2', subfields });
  for (let n = 0; n < 30; n++) {
    const [place, other] = [PLACES[n % 10]!, PLACES[(n + 3) % 10]!];
    const [of, not] = [SUBJECTS[(n * 3) % 10]!, SUBJECTS[(n * 3 + 1) % 10]!];
    const who = `body ${n}`;
    if (n % 3 === 0) {
      c(who, ['a', `${place}.`], ['b', `Department of ${of}.`]);
      c(who, ['a', `${place}.`], ['b', `Dept. of ${of}.`]);
      c(`${who} other`, ['a', `${place}.`], ['b', `Department of ${not}.`]);
      c(`${who} elsewhere`, ['a', `${other}.`], ['b', `Department of ${of}.`]);
      c(who, ['a', `${place}. Department of ${of}`]);
    } else if (n % 3 === 1) {
      c(who, ['a', `${place} ${of} Society.`]);
      c(who, ['a', `The ${place} ${of} Soc.`]);
      c(`${who} branch`, ['a', `${place} ${of} Society.`], ['b', 'Library.']);
      c(`${who} other`, ['a', `${place} ${not} Society.`]);
      c(who, ['a', `${place} ${of.slice(0, 2)}${of.slice(3)} Society`]);
      c(`${who} institute`, ['a', `${place} ${of} Institute.`]);
    } else {
      c(who, ['a', `${of} Press, Inc. (${place})`]);
      c(who, ['a', `${of} Press, Incorporated (${place})`]);
      c(`${who} other`, ['a', `${of} Press, Inc. (${other})`]);
      c(who, ['a', `${of.toUpperCase()} PRESS, INC. (${place.toUpperCase()})`]);
      c(`${who} sons`, ['a', `${of} & Sons (${place})`]);
      c(`${who} sons`, ['a', `${of} and Sons (${place})`]);
    }
    const m = (of: string, ...subfields: Sub[]) => found.push({ who: of, tag: '111', ind1: '2', subfields });
    const year = 1900 + n;
    if (n % 2) {
      m(
        `meeting ${n}`,
        ['a', `Congress of ${of} Workers`],
        ['n', `(${n}th :`],
        ['d', `${year} :`],
        ['c', `${place})`],
      );
      m(`meeting ${n}`, ['a', `Cong. of ${of} Workers`], ['n', `(${n}th :`], ['d', `${year})`]);
      m(
        `meeting ${n} later`,
        ['a', `Congress of ${of} Workers`],
        ['n', `(${n + 1}th :`],
        ['d', `${year + 2} :`],
        ['c', `${other})`],
      );
    }
  }
  return found;
}

const HEADS =
  'Lighthouses Coracles Baskets Willows Eels Hurdles Marshes Fords Weirs Osiers Canals Ferries Thatchers Potters Churches Watches'.split(
    ' ',
  );
function works(): Labelled[] {
  const found: Labelled[] = [];
  HEADS.forEach((head, n) => {
    const place = PLACES[n % 10]!;
    const s = (who: string, ind2: string, ...subfields: Sub[]) =>
      found.push({ who: `subject ${n} ${who}`, tag: '650', ind1: ' ', ind2, subfields });
    s('', '0', ['a', head], ['z', place], ['x', 'History.']);
    s('', '0', ['a', head], ['x', 'History'], ['z', `${place}.`]);
    s('', '0', ['a', `${head} -- ${place} -- History`]);
    s('bare', '0', ['a', `${head}.`]);
    s('bare', '0', ['a', head.replace(/(?:(?<=ch)es|(?<=r)ies|s)$/, (e) => (e === 'ies' ? 'y' : ''))]);
    s('more', '0', ['a', head], ['z', place], ['x', 'History'], ['v', 'Maps.']);
    s('pictures', '0', ['a', head], ['v', 'Pictorial works.']);
    s('pictures', '0', ['a', head], ['x', 'Pictorial works.']);
    s('elsewhere', '0', ['a', head], ['z', PLACES[(n + 1) % 10]!], ['x', 'History.']);
    const t = (who: string, ...subfields: Sub[]) =>
      found.push({ who: `work ${n} ${who}`, tag: '730', ind1: '0', subfields });
    t('', ['a', `The book of ${head.toLowerCase()}.`]);
    t('', ['a', `Book of ${head.toLowerCase()}.`]);
    t('french', ['a', `Book of ${head.toLowerCase()}.`], ['l', 'French.']);
    t('second', ['a', `Book of ${head.toLowerCase()}.`], ['n', 'Part 2.']);
    t('third', ['a', `Book of ${head.toLowerCase()}.`], ['n', 'Part 3.']);
    const [surname] = SURNAMES[n]!.split('/');
    const nt = (who: string, ...subfields: Sub[]) =>
      found.push({ who: `work ${n} ${who}`, tag: '700', ind1: '1', subfields });
    nt('named', ['a', `${surname}, Amos,`], ['d', '1871-1940.'], ['t', `Notes on ${head.toLowerCase()}.`]);
    nt('named', ['a', `${surname}, A.,`], ['d', '1871-1940.'], ['t', `Notes on ${head.toLowerCase()}.`]);
    nt('poems', ['a', `${surname}, Amos,`], ['d', '1871-1940.'], ['t', 'Poems.']);
    nt('other poems', ['a', `${surname}, Ada,`], ['d', '1902-'], ['t', 'Poems.']);
    nt(
      'german',
      ['a', `${surname}, Amos,`],
      ['d', '1871-1940.'],
      ['t', `Notes on ${head.toLowerCase()}.`],
      ['l', 'German.'],
    );
  });
  return found;
}

const TYPES: Readonly<Record<string, string>> = {
  100: 'personal',
  110: 'corporate',
  111: 'meeting',
  650: 'subject',
  730: 'title',
  700: 'title',
};
const make = (tag: string, ind1: string, ind2: string, subfields: readonly Sub[]): DataField =>
  field(tag, ind1 + ind2, ...subfields.flat());

/** A set of headings whose truth is known, with the records that carry them. */
export function labelledHeadings(): LabelledHeadings {
  const records: MarcRecord[] = [];
  const truth = new Map<string, Map<string, string>>();
  const all = [...persons(), ...bodies(), ...works()];
  for (const { who, tag, subfields, ind1 = ' ', ind2 = ' ', titles = [''], year, beside } of all) {
    const type = TYPES[tag]!;
    const text = subfields
      .map((s) => s[1])
      .join(' ')
      .replace(/\s+/g, ' ')
      .replace(/[\s.,;:/]+$/, '');
    const of = truth.get(type) ?? new Map<string, string>();
    truth.set(type, of);
    // A text that two are called by means neither for sure.
    if (of.has(text) && of.get(text) !== who) of.set(text, `several ${text}`);
    else of.set(text, who);
    for (const t of titles)
      records.push({
        leader: '00000nam a2200000 i 4500',
        fields: [
          ...(year ? [{ tag: '008', value: `261128s${year}    enk           000 0 eng d`.padEnd(40) }] : []),
          make(tag, ind1, ind2, subfields),
          ...(t ? [field('245', '14', 'a', t)] : []),
          ...(beside ? [make('700', '1', ' ', beside)] : []),
        ],
      });
  }
  return { records, truth };
}
