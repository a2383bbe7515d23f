import {
  copyEdits,
  copySearchBody,
  type ChangeCopiesBody,
  type JobState,
  type Review,
  type ReviewRow,
} from '@osier/contract';
import { editsText, leftMeanwhile } from '@osier/core/acts';
import { groupedBarcode } from '@osier/core/barcodes';
import { callNumberText } from '@osier/core/callnumbers';
import { counted } from '@osier/core/changes';
import {
  costText,
  changeMany,
  editFaults,
  localOf,
  type ChangedCopy,
  type KeptLocalField,
  type PartEdit,
  type TitleCopies,
} from '@osier/core/holdings';
import type { StoredObject } from '@osier/core/kinds';
import type { MarcRecord } from '@osier/core/marc';
import { object } from 'yup';
import { beginReview, stillAsReviewed } from '../http/reviewed';
import { reviewPage } from '../http/review-page';
import { wrong, wrongFields } from '../http/problem';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { keptWork, leftOut } from '../jobs/kept-work';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { copiesFound } from './list';
import { localFieldsOf } from './local-fields';
import { foundOfTitles, titlesFound, titlesOf, type CopyQuery } from './queries.list';

/** Titles of a chunk. */
const TITLES = 100;

/** The copies of a title, with what the title is. */
interface Title extends TitleCopies {
  readonly id: number;
  readonly title: string;
  readonly holdings: readonly StoredObject<'holding'>[];
  readonly copies: readonly StoredObject<'copy'>[];
}

const NO_RECORD: MarcRecord = { leader: '', fields: [] };
const needsRecord = (edits: readonly PartEdit[]) => edits.some((e) => e.part === 'callNumber');

/** The next titles of the copies found behind a number; records are read where a call number is made from them. */
async function nextTitles(
  store: Store,
  found: CopyQuery,
  edits: readonly PartEdit[],
  after: number,
): Promise<Title[]> {
  const ids = await titlesFound(store, found, after, TITLES);
  if (ids.length === 0) return [];
  const chosen = await foundOfTitles(store, found, ids);
  const [holdings, copies] = [
    await store.find('holding', { where: { record: ids }, order: [['id', 'ASC']] }),
    await store.find('copy', { where: { record: ids }, order: [['id', 'ASC']] }),
  ];
  const of = new Map(holdings.map((h) => [h.id, h.value.record]));
  const records = needsRecord(edits) ? await store.readMany('record', ids) : [];
  const marc = new Map(records.map((r) => [r.id, r.value]));
  const titles = await titlesOf(store, ids);
  return ids.map((id) => ({
    id,
    title: titles.get(id) ?? '',
    record: marc.get(id) ?? NO_RECORD,
    holdings: holdings.filter((h) => h.value.record === id),
    copies: copies.filter((c) => of.get(c.value.holding) === id),
    chosen,
  }));
}

/** By what copies are changed, as it stands now; 422 where the changes make no sense. */
async function rulesOf(store: Store, edits: readonly PartEdit[]) {
  const [house, lists] = [(await store.house()).value, (await store.lists()).value];
  const fields = await localFieldsOf(store);
  const faults = editFaults(edits, lists, house, fields);
  if (faults.length) throw wrongFields(faults);
  return { house, lists, fields };
}

/** What of a copy is another, as "status: available → missing". */
function whatChanges(
  { copy, from, after, to }: ChangedCopy,
  fields: readonly KeptLocalField[],
): { before: string; after: string } {
  const lines = (c: typeof after, h: typeof to): readonly (readonly [string, string])[] => [
    ['Branch', h.branch],
    ['Location', h.location],
    ['Call number', callNumberText(h)],
    ['Type', c.type],
    ['Status', c.status],
    ['Loan rule', c.loanRule ?? 'lends'],
    ['Price', costText(c)],
    ['Fund', c.fund],
    ['Supplier', c.supplier],
    ['Acquired', c.acquired],
    ['Condition', c.condition],
    ['Note', c.note],
    ['Staff note', c.staffNote ?? ''],
    ...fields.map((f) => [f.value.name, localOf(c, f.id)] as const),
  ];
  const [was, is] = [lines(copy.value, from), lines(after, to)];
  const differing = was.flatMap(([name, text], i) =>
    text === is[i]![1] ? [] : [[name, text, is[i]![1]] as const],
  );
  const told = (at: 1 | 2) => differing.map((d) => `${d[0]}: ${d[at] || 'none'}`).join('\n');
  return { before: told(1), after: told(2) };
}

/** What a change to all copies found will do, worked out piece by piece. */
export async function reviewChangeCopies(
  { store: { aside: store } }: Services,
  { edits, leaveOut: _, token: _t, ...search }: ChangeCopiesBody,
  from = 0,
): Promise<Review> {
  const shown = await beginReview(store);
  const rules = await rulesOf(store, edits);
  const found = await copiesFound(store, search);
  const page = reviewPage<ReviewRow>(from);
  const totals = { looked: 0, changed: 0, refused: 0, made: 0, gone: 0 };
  for (let after = 0; ;) {
    const titles = await nextTitles(store, found, edits, after);
    if (titles.length === 0) break;
    after = titles.at(-1)!.id;
    for (const title of titles) {
      totals.looked += title.copies.filter((c) => title.chosen.has(c.id)).length;
      // Numbers of holdings to be made are given when they are made.
      let made = 0;
      const { rows, changes } = changeMany(title, edits, { ...rules, nextHolding: () => --made });
      for (const c of changes)
        if (c.kind === 'holding' && c.before === null) totals.made++;
        else if (c.kind === 'holding' && c.after === null) totals.gone++;
      for (const row of rows) {
        shown.see(row.copy.id, row.copy.version, row.after, row.to, row.problem);
        if (row.problem === null) totals.changed++;
        else totals.refused++;
        page.offer(row.problem !== null, () => {
          const text = whatChanges(row, rules.fields);
          return {
            id: row.copy.id,
            label: title.title,
            detail: [groupedBarcode(row.copy.value.barcode), callNumberText(row.from)].join(' · '),
            exception: row.problem && `${row.problem} This copy stays as it is.`,
            before: { text: text.before },
            after: { text: text.after },
            canLeaveOut: row.problem === null,
          };
        });
      }
    }
  }
  if (totals.looked === 0) throw wrong('copies', 'No copy is found, so there is nothing to change.');
  return {
    sentence: `${counted(totals.changed, 'copy', 'copies')} of ${totals.looked.toLocaleString('en-GB')} will be changed: ${editsText(edits, rules.fields)}.`,
    verb: 'Change',
    noun: { one: 'copy', many: 'copies' },
    count: totals.changed,
    consequences: [
      ...(totals.refused
        ? [`${counted(totals.refused, 'copy', 'copies')} cannot be changed so, and stay.`]
        : []),
      ...(totals.made ? [`${counted(totals.made, 'new holding')} will be made.`] : []),
      ...(totals.gone ? [`${counted(totals.gone, 'holding')} left without copies will be deleted.`] : []),
    ],
    ...page.take(),
    token: shown.token(),
  };
}

/** Starts changing all copies that are found. */
export async function beginChangeCopies(
  services: Services,
  person: number,
  { token, ...body }: ChangeCopiesBody,
): Promise<JobState> {
  const { store, jobs } = services;
  const asOf = await stillAsReviewed(store, token, () => reviewChangeCopies(services, body));
  const { edits, leaveOut, ...search } = body;
  const { fields } = await rulesOf(store, edits);
  const found = await copiesFound(store, search);
  if ((await titlesFound(store, found, 0, 1)).length === 0)
    throw wrong('copies', 'No copy is found, so there is nothing to change.');
  return jobs.begin('change-copies', `Changing copies: ${editsText(edits, fields)}`, person, {
    search,
    edits,
    leaveOut,
    asOf,
  });
}

const changeWork = object({
  search: copySearchBody.required(),
  edits: copyEdits().required(),
  leaveOut: leftOut(),
});

/** Job: changes all copies found, title by title. */
export const changeCopies =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { search, edits, ...asked } = keptWork(changeWork, run.work);
    const leaveOut = new Set(asked.leaveOut);
    const found = await copiesFound(store, search);
    const fields = await localFieldsOf(store);
    const totals = await inChunks<Title>({ ...services, store }, run, {
      did: (t) => ({
        act: 'change-copies',
        names: { what: editsText(edits, fields) },
        counts: { changed: t.changed ?? 0, refused: t.refused ?? 0, meanwhile: t.meanwhile },
      }),
      // A changed copy may not be found any more; titles behind it are.
      next: (after, s) => nextTitles(s, found, edits, after),
      placeOf: (title) => title.id,
      objectsOf: (title) => [
        ...title.copies.flatMap((c) => (title.chosen.has(c.id) ? [['copy', c.id] as const] : [])),
        ...title.holdings.map((h) => ['holding', h.id] as const),
      ],
      plan: async (titles, s) => {
        const rules = await rulesOf(s, edits);
        const wanted = titles.map((t) => ({
          ...t,
          chosen: new Set([...t.chosen].filter((id) => !leaveOut.has(id))),
        }));
        // As many new holdings as there are copies of these titles, at most; numbers that are not used are left out.
        let next = await s.nextIds(
          'holding',
          titles.reduce((n, t) => n + t.copies.length, 0),
        );
        const made = wanted.map((t) => changeMany(t, edits, { ...rules, nextHolding: () => next++ }));
        const rows = made.flatMap((m) => m.rows);
        return {
          changes: made.flatMap((m) => m.changes),
          totals: {
            changed: rows.filter((r) => r.problem === null).length,
            refused: rows.filter((r) => r.problem !== null).length,
          },
        };
      },
    });
    return totals.changed
      ? `Changed ${counted(totals.changed, 'copy', 'copies')}${leftMeanwhile(totals.meanwhile)}.`
      : 'There was nothing to change.';
  };
