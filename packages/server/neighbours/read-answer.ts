import { checkerFor } from '@osier/core/checks';
import type { HouseRules } from '@osier/core/house';
import { readIso2709, type MarcRecord, type ReadRecord } from '@osier/core/marc';
import { copiedRecord, diagnosticText, readSruAnswer, type SruDiagnostic } from '@osier/core/neighbours';
import { recipeRunner, type Recipe } from '@osier/core/recipes';
import type { RawAnswer } from './ports';

/** An answer that is to be read. Plain data: it goes to a thread. */
export interface AnswerWork {
  readonly answer: RawAnswer;
  readonly house: HouseRules;
  readonly recipe: Recipe | null;
  /** The neighbour's name, for steps that are for some suppliers only. */
  readonly source: string;
}

/** A record that a neighbour has, as it would begin here. */
export interface FoundRecord {
  readonly marc: MarcRecord;
  /** Tags of its own fields that were left out. */
  readonly left: readonly string[];
  /** When the neighbour changed it last, as an ISO date; '' where it does not say. */
  readonly changed: string;
  /** What was repaired in reading it, as sentences. */
  readonly told: readonly string[];
  readonly errors: number;
  readonly warnings: number;
  readonly advice: number;
}

/** What an answer has in it. */
export interface ReadAnswer {
  readonly count: number;
  readonly records: readonly FoundRecord[];
  /** Why it cannot be used, as a sentence; null where it can. */
  readonly problem: string | null;
  readonly told: readonly string[];
}

/** Characters of one record's JSON, and fields, that are handed on. */
const LARGEST_RECORD = 1_000_000;
const MOST_FIELDS = 2000;
/** Said once, not once for each record. */
const MOST_TOLD = 5;

/** Reads an answer: records as they would begin here, cleaned and checked. */
export function readAnswer({ answer, house, recipe, source }: AnswerWork): ReadAnswer {
  const { reads, count, diagnostics, problem, told } = readBytes(answer);
  const why = problem ?? (reads.length === 0 && diagnostics[0] ? diagnosticText(diagnostics[0]) : null);
  const checker = checkerFor(house);
  const clean = recipe && recipeRunner(recipe, checker, source);
  const taken = reads.flatMap(({ record, repairs }) => (record ? [{ record, repairs }] : []));
  const fit = taken.filter(
    ({ record }) => record.fields.length <= MOST_FIELDS && JSON.stringify(record).length <= LARGEST_RECORD,
  );
  const large = taken.length - fit.length;
  return {
    count: Math.max(count ?? 0, taken.length),
    problem: why,
    told: [
      ...told,
      ...(reads.length ? diagnostics.slice(0, MOST_TOLD).map(diagnosticText) : []),
      ...(large
        ? [`${large === 1 ? 'One record is' : `${large} records are`} too large to be shown here.`]
        : []),
    ],
    records: fit.map(({ record, repairs }): FoundRecord => {
      const { marc, left, changed } = copiedRecord(record);
      const cleaned = clean ? clean(marc).record : marc;
      const findings = checker.check(cleaned);
      const of = (severity: string) => findings.filter((f) => f.severity === severity).length;
      return {
        marc: cleaned,
        left,
        changed,
        told: repairs.slice(0, MOST_TOLD).map((r) => r.message),
        errors: of('error'),
        warnings: of('warning'),
        advice: of('advice'),
      };
    }),
  };
}

function readBytes({ format, bytes, count }: RawAnswer): {
  readonly reads: readonly ReadRecord[];
  readonly count: number | null;
  readonly diagnostics: readonly SruDiagnostic[];
  readonly problem: string | null;
  readonly told: readonly string[];
} {
  if (format === 'iso2709')
    return { reads: readIso2709(bytes), count, diagnostics: [], problem: null, told: [] };
  const { records, ...rest } = readSruAnswer(bytes);
  return { reads: records, ...rest };
}
