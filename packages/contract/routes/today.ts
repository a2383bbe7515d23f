import { listOf, wordOf, shape, text, whole, orNull } from '../answers';
import { endpoint, type ValueOf } from '../endpoint';
import { daybookEntrySchema } from '../objects/acts';

const today = shape({
  deliveries: listOf(shape({ id: whole(), name: text(), waiting: whole(), errors: whole() })),
  lookAlikes: whole(),
  /** `confirmer`: who is to confirm it; null for anybody who may. */
  withdrawalLists: listOf(
    shape({
      ...{ id: whole(), name: text(), codes: whole() },
      confirmer: orNull(shape({ id: whole(), name: text() })),
    }),
  ),
  stocktakes: listOf(shape({ id: whole(), name: text(), found: whole(), expected: whole() })),
  /** Brief records: for how many a full one is to be looked at, and how many wait long. */
  briefRecords: shape({ offered: whole(), long: whole() }),
  /** Records and copies at each branch. */
  branches: listOf(shape({ branch: text(), records: whole(), copies: whole() })),
  /** How many copies there are of each status and type. */
  copyStatuses: listOf(shape({ value: text(), n: whole() })),
  copyTypes: listOf(shape({ value: text(), n: whole() })),
  /** In how many records each check has found something. */
  findings: listOf(shape({ value: text(), n: whole() })),
  /** How many headings there are of each kind. */
  headingKinds: listOf(shape({ value: text(), n: whole() })),
  records: whole(),
  copies: whole(),
  headings: whole(),
  /** Things that an older store had twice, or hanging on nothing. */
  disputed: whole(),
  lastEntries: listOf(daybookEntrySchema),
});
/** What waits, over all areas, and what was done last. */
export type Today = ValueOf<typeof today>;
const disputedRow = shape({ kind: text(), id: whole(), label: text(), why: text() });
/** Something that breaks what must hold, with the sentence why; it stands aside until somebody has settled it. */
export type DisputedRow = ValueOf<typeof disputedRow>;

const outside = shape({
  loansDesk: wordOf(['none', 'here', 'silent']),
  /** ISO date and time since when it has been so; null for one that is not set up. */
  since: orNull(text()),
  /** Neighbours that do not answer and are left out for a while. */
  neighbours: listOf(shape({ id: whole(), name: text(), why: text(), until: text() })),
});
/** Whether the services outside answer. */
export type OutsideStanding = ValueOf<typeof outside>;

/** Today, and what is reachable outside. */
export const overviewApi = {
  today: endpoint({
    method: 'get',
    path: '/today',
    summary: 'What waits for me',
    permission: 'look',
    answer: today,
  }),
  disputed: endpoint({
    method: 'get',
    path: '/disputed',
    summary: 'What an older store had twice or hanging on nothing, until somebody has settled it',
    permission: 'look',
    answer: listOf(disputedRow),
  }),
  outside: endpoint({
    method: 'get',
    path: '/outside',
    summary: 'Whether the services outside can be reached',
    permission: 'look',
    answer: outside,
  }),
};
