import {
  isPlan,
  OF_OTHERS,
  orderOf,
  planOf,
  type FindPlan,
  type FindProblem,
  type Ordering,
} from '@osier/core/find';
import { isProtected } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { isCql, parseCql } from '@osier/core/query';
import {
  explainResponse,
  readSruRequest,
  SCANNED,
  scanResponse,
  searchRefused,
  searchResponse,
  type Diagnostic,
  type SruAsked,
  type SruPlace,
  type SruRefused,
} from '@osier/core/sru';
import { fold } from '@osier/core/text';
import { searchable } from '../catalogue/searchable';
import { totals } from '../projections/counts';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { countForOthers, MOST_COUNTED, pageForOthers, termsOf } from './queries';

/** Answers what another catalogue asks, as an XML document. */
export async function answerSru(
  { store }: Pick<Services, 'store'>,
  said: ReadonlyMap<string, string>,
  place: Pick<SruPlace, 'host' | 'port'>,
): Promise<string> {
  // Others wait for one another, and nobody here waits for them.
  const { aside } = store;
  const asked = readSruRequest(said);
  const here = async (): Promise<SruPlace> => ({
    ...place,
    title: 'Osier',
    records: (await totals(aside)).records,
  });
  if ('refused' in asked) return refusal(asked, here);
  switch (asked.operation) {
    case 'explain':
      return explainResponse(asked.version, await here(), asked.packing);
    case 'scan':
      return scan(aside, asked);
    case 'searchRetrieve':
      return retrieve(aside, asked);
  }
}

async function refusal(
  { operation, version, refused }: SruRefused,
  here: () => Promise<SruPlace>,
): Promise<string> {
  if (operation === 'scan') return scanResponse(version, [], [refused]);
  if (operation === 'searchRetrieve') return searchRefused(version, refused);
  return explainResponse(version, await here(), 'xml', [refused]);
}

const diagnosticOf = ({ code, problem, details }: FindProblem): Diagnostic => ({
  code,
  message: problem,
  details,
});

/** What a query asks, without what the public does not see, and in what order. */
function planFor(query: string): { readonly plan: FindPlan; readonly order: Ordering | null } | Diagnostic {
  const read = parseCql(query);
  if (!isCql(read)) return { code: 10, message: read.problem, details: `character ${read.at + 1}` };
  const plan = planOf(read, OF_OTHERS);
  if (!isPlan(plan)) return diagnosticOf(plan);
  return {
    plan: { type: 'and', of: [plan, { type: 'not', of: { type: 'flag', flag: 'suppressed' } }] },
    order: orderOf(read.sort),
  };
}

async function retrieve(
  store: Store,
  asked: Extract<SruAsked, { operation: 'searchRetrieve' }>,
): Promise<string> {
  const { version, start, most, schema, packing } = asked;
  const wanted = planFor(asked.query);
  if ('code' in wanted) return searchRefused(version, wanted);
  const found = await searchable(store, wanted.plan);
  const counted = await countForOthers(store, found);
  const count = Math.min(counted, MOST_COUNTED);
  const diagnostics: Diagnostic[] =
    counted > MOST_COUNTED
      ? [
          {
            code: 60,
            message: `There are more than ${MOST_COUNTED} records; narrow the search.`,
            details: String(MOST_COUNTED),
          },
        ]
      : [];
  if (start > Math.max(count, 1))
    return searchResponse(version, {
      ...{ count, records: [], start, schema, packing },
      diagnostics: [{ code: 61, message: 'There are fewer records.', details: String(start) }],
    });
  const ids =
    most === 0 ? [] : await pageForOthers(store, found, wanted.order, { skip: start - 1, atMost: most });
  const { value: house } = await store.house();
  const held = new Map(
    (await store.readMany('record', ids)).map((r): [number, MarcRecord] => [r.id, r.value]),
  );
  const records = ids
    .flatMap((id) => {
      const marc = held.get(id);
      return marc ? [{ id, marc }] : [];
    })
    .map(({ id, marc }) => ({
      id,
      marc: { ...marc, fields: marc.fields.filter((f) => !isProtected(f.tag, house)) },
    }));
  return searchResponse(version, { count, records, start, schema, packing, diagnostics });
}

async function scan(store: Store, asked: Extract<SruAsked, { operation: 'scan' }>): Promise<string> {
  const { version, position, most } = asked;
  const read = parseCql(asked.clause);
  const refuse = (code: number, message: string, details: string) =>
    scanResponse(version, [], [{ code, message, details }]);
  if (!isCql(read)) return refuse(10, read.problem, `character ${read.at + 1}`);
  if (read.node.type !== 'clause') return refuse(10, 'A scan begins at one term.', asked.clause);
  const index = OF_OTHERS.indexNamed(read.node.index);
  if (!index || !SCANNED.has(index.name))
    return refuse(16, `There are lists of ${[...SCANNED].join(', ')}.`, read.node.index);
  const from = fold(read.node.term.replace(/\\(.)/gs, '$1'));
  const before = Math.max(0, position - 1);
  const back = before > 0 ? await termsOf(store, index.name, { from, goes: 'back', atMost: before }) : [];
  const on = await termsOf(store, index.name, {
    from,
    goes: position === 0 ? 'behind' : 'on',
    atMost: most - back.length,
  });
  return scanResponse(version, [...back.reverse(), ...on]);
}
