import { isFound, isPlan, planOfText, type FindPlan } from '@osier/core/find';
import { controlValue, type MarcRecord } from '@osier/core/marc';
import { UsageError } from './usage';

/** What of a record a file does not have. */
const ELSEWHERE: Readonly<Record<string, string>> = {
  holding: 'holdings',
  copy: 'copies',
  finding: 'what the checks found',
  suppressed: 'what the public does not see',
};

/** Whether a record is found by a query; throws a UsageError for a query that cannot be answered of a file. */
export function finder(query: string): (record: MarcRecord) => boolean {
  const plan = planOfText(query);
  if (!isPlan(plan)) throw new UsageError(plan.problem);
  const lacking = lacks(plan);
  if (lacking !== undefined) throw new UsageError(`The query asks for ${lacking}; a file has records only.`);
  return (marc) =>
    isFound(
      {
        id: Number(/^\d{1,9}$/.exec(controlValue(marc, '001')?.trim() ?? '')?.[0] ?? 0),
        marc,
        ...{
          holdings: [],
          copies: [],
          findings: [],
          isSuppressed: false,
          entries: null,
          among: [],
          headings: [],
        },
      },
      plan,
    );
}

function lacks(plan: FindPlan): string | undefined {
  switch (plan.type) {
    case 'and':
    case 'or':
      return plan.of.map(lacks).find((l) => l !== undefined);
    case 'not':
      return lacks(plan.of);
    case 'value':
    case 'count':
      return ELSEWHERE[plan.of];
    case 'amount':
    case 'local':
      return ELSEWHERE.copy;
    case 'finding':
      return ELSEWHERE.finding;
    case 'flag':
      return ELSEWHERE[plan.flag];
    default:
      return undefined;
  }
}
