import { controlNumbers, issns, lccns, otherNumbers, readIsbn, yearOf } from '../access';
import { dataFields, first, firstValue, isData, runningText, values, type MarcRecord } from '../marc';
import { fold } from '../text';
import { carrierNamed, carrierOf, type Carrier } from './carrier';
import { editionOf, pagesIn, partOf } from './statements';

/** An ISBN of 020 $a with what its qualifier says it is the number of. */
export interface QualifiedIsbn {
  readonly isbn: string;
  readonly set: boolean;
  /** Part that it belongs to, such as `2`; empty when the qualifier names none. */
  readonly part: string;
  readonly carrier: Carrier | null;
}

/** What two records are compared by. Small, so that it is kept with every record; texts are folded. */
export interface Description {
  /** As it is shown. */
  readonly shown: string;
  /** 245 $a without its initial article. */
  readonly main: string;
  /** 245 $a and $b. */
  readonly title: string;
  /** 245 $n and $p as a number or words; empty for none. */
  readonly part: string;
  /** Surname, then forenames, of 100, 110, 111, else 700, else the statement of responsibility. */
  readonly author: string;
  /** Other names that it may go by: 7XX and 245 $c. */
  readonly others: string;
  readonly year: number | null;
  readonly publisher: string;
  readonly pages: number | null;
  readonly carrier: Carrier;
  /** `2`, `revised` …; empty when none is stated. */
  readonly edition: string;
  readonly isbns: readonly QualifiedIsbn[];
  readonly issns: readonly string[];
  readonly lccns: readonly string[];
  /** `organisation:number`. */
  readonly control: readonly string[];
  /** 024 and 028, as `kind:number`. */
  readonly numbers: readonly string[];
}

/** What a record is compared by. */
export function describe(record: MarcRecord): Description {
  const title = dataFields(record, '245')[0];
  const skip = Number(title?.ind2) || 0;
  const head = (first(title, 'a') ?? '').slice(skip);
  const main = record.fields.find((f) => /^1(00|10|11)$/.test(f.tag));
  const added = dataFields(record, /^7(00|10|11)$/).map((f) => runningText(f, 'abcdq'));
  return {
    shown: `${head} ${first(title, 'b') ?? ''} ${joined(title, 'np')}`
      .replace(/\s*[/:;,=.]*\s*$/, '')
      .replace(/\s+/g, ' ')
      .trim(),
    main: fold(head),
    title: fold(`${head} ${first(title, 'b') ?? ''}`),
    part: partOf(joined(title, 'n'), joined(title, 'p')),
    author: fold(
      main && isData(main) ? runningText(main, main.tag === '100' ? 'aq' : 'ab') : (added[0] ?? ''),
    ),
    others: fold(`${added.join(' ')} ${first(title, 'c') ?? ''}`).slice(0, 200),
    year: Number(yearOf(record)) || null,
    publisher: fold(firstValue(record, '264', 'b') ?? firstValue(record, '260', 'b') ?? ''),
    pages: pagesIn(firstValue(record, '300', 'a') ?? ''),
    carrier: carrierOf(record),
    edition: editionOf(firstValue(record, '250', 'a') ?? ''),
    isbns: qualifiedIsbns(record),
    issns: issns(record),
    lccns: lccns(record),
    control: controlNumbers(record),
    numbers: otherNumbers(record),
  };
}

const joined = (f: ReturnType<typeof dataFields>[number] | undefined, codes: string) =>
  f ? values(f, codes).join(' ') : '';

function qualifiedIsbns(record: MarcRecord): QualifiedIsbn[] {
  const found = new Map<string, QualifiedIsbn>();
  for (const f of dataFields(record, '020'))
    for (const text of values(f, 'a')) {
      const read = readIsbn(text);
      if (!read?.isbn13 || found.has(read.isbn13)) continue;
      const said = fold(`${read.rest} ${values(f, 'q').join(' ')}`);
      found.set(read.isbn13, {
        isbn: read.isbn13,
        set: /\b(set|complete|gesamtwerk|gesamtausgabe|obra completa|coffret)\b/.test(said),
        part: partOf(
          /\b(?:v|vol|volume|band|bd|t|tome|tomo|part|pt|book|bk)\s*(?:\d+|[ivxl]+)\b/.exec(said)?.[0] ?? '',
          '',
        ),
        carrier: carrierNamed(said),
      });
    }
  return [...found.values()];
}
