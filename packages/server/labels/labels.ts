import type { LabelsBody, LabelsPreview } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { callNumberText, byKey, shelfKey } from '@osier/core/callnumbers';
import type { StoredObject } from '@osier/core/kinds';
import { notFound, wrong } from '../http/problem';
import { copiesFound } from '../copies/list';
import { copiesOnShelf } from '../copies/queries.list';
import { pileThere } from '../piles/piles';
import type { Services } from '../services';
import type { Store } from '../store/store';
import type { LabelOrder, LabelsSet, LabelText } from './label-worker';
import { keepPrint, sinceOf, type Since } from './last-print';
import { copiesMadeBy, copiesOfDelivery, copiesOnPile, withdrawnByList } from './queries';

/** Labels that are printed at once. */
const MOST = 1000;

interface Labelled {
  readonly copy: number;
  readonly record: number;
  readonly text: LabelText;
}

/** The copies of which labels are wanted, in the order of the shelf; those that are named one by one in the order in which they are named. */
async function copiesWanted(
  store: Store,
  { record, pile, delivery, found, copies }: LabelsBody,
  made: (Since & { readonly person: number }) | null,
): Promise<StoredObject<'copy'>[]> {
  if (copies?.length) {
    const held = new Map((await store.readMany('copy', copies)).map((c) => [c.id, c]));
    return copies.flatMap((id) => held.get(id) ?? []);
  }
  if (record !== undefined) {
    if (!(await store.read('record', record))) throw notFound(`Record ${record}`);
    return store.find('copy', { where: { record }, order: [['id', 'ASC']], limit: MOST + 1 });
  }
  if (pile !== undefined) {
    const { value } = await pileThere(store, pile);
    return store.readMany('copy', await copiesOnPile(store, pile, value.of, MOST + 1));
  }
  if (delivery !== undefined) {
    if (!(await store.read('delivery', delivery))) throw notFound(`Delivery ${delivery}`);
    return store.readMany('copy', await copiesOfDelivery(store, delivery, MOST + 1));
  }
  if (found !== undefined) {
    const ids = (await copiesOnShelf(store, await copiesFound(store, found), MOST + 1)).map((c) => c.id);
    const held = new Map((await store.readMany('copy', ids)).map((c) => [c.id, c]));
    return ids.flatMap((id) => held.get(id) ?? []);
  }
  if (made) return store.readMany('copy', await copiesMadeBy(store, { ...made, atMost: MOST + 1 }));
  throw wrong('copies', 'Say of which copies labels are wanted.');
}

/** What a withdrawal list has withdrawn, as it is printed. */
async function withdrawnOf(store: Store, list: number): Promise<Labelled[]> {
  if (!(await store.read('withdrawlist', list))) throw notFound(`Withdrawal list ${list}`);
  const rows = await withdrawnByList(store, list, MOST + 1);
  if (rows.length === 0)
    throw wrong('list', 'Nothing of this list has been withdrawn, or all of it was undone.');
  if (rows.length > MOST)
    throw wrong(
      'list',
      `At most ${MOST.toLocaleString('en-GB')} labels are printed at once; this list has withdrawn more.`,
    );
  return rows.map(({ copy, record, ...text }) => ({ copy, record, text: { ...text, spine: null } }));
}

async function labelled(
  store: Store,
  body: LabelsBody,
  made: Parameters<typeof copiesWanted>[2],
): Promise<Labelled[]> {
  if (body.list !== undefined) return withdrawnOf(store, body.list);
  const copies = await copiesWanted(store, body, made);
  if (copies.length === 0)
    throw wrong(
      made ? 'since' : 'copies',
      made
        ? 'You have made no copies since then. Copies that a job is still making come when it has ended.'
        : 'There is no copy to print a label of.',
    );
  if (copies.length > MOST)
    throw wrong(
      'copies',
      'At most 1,000 labels are printed at once; put some of the copies on a pile, or narrow the search.',
    );
  const { prefixOrder } = (await store.house()).value;
  const unique = (ids: readonly number[]) => [...new Set(ids)];
  const holdings = new Map(
    (await store.readMany('holding', unique(copies.map((c) => c.value.holding)))).map((h) => [h.id, h.value]),
  );
  const records = new Map(
    (await store.readMany('record', unique([...holdings.values()].map((h) => h.record)))).map((r) => [
      r.id,
      briefOf(r.value),
    ]),
  );
  const rows = copies.flatMap(({ id, value }) => {
    const holding = holdings.get(value.holding);
    if (!holding) return [];
    const brief = records.get(holding.record);
    const { scheme, prefix, class: cls, item, year, suffix } = holding;
    const spine = {
      ...{ scheme, prefix, class: cls, item, suffix, number: value.number },
      ...(year && { year }),
      ...(value.part && { part: value.part }),
    };
    const text = {
      spine,
      callNumber: callNumberText(holding),
      barcode: value.barcode,
      title: brief?.title ?? '',
      name: brief?.author ?? '',
      withdrawnOn: '',
    };
    return [{ copy: id, record: holding.record, key: shelfKey(holding, prefixOrder), text }];
  });
  return body.copies?.length ? rows : rows.sort((a, b) => byKey(a.key, b.key) || a.copy - b.copy);
}

async function set(
  { store, pool }: Services,
  person: number,
  body: LabelsBody,
  isPrinted: boolean,
): Promise<{ of: Labelled[]; set: LabelsSet; since: Since | null }> {
  const onPage = body.sheet.columns * body.sheet.rows;
  if (body.startAt > onPage) throw wrong('startAt', `The sheet has ${onPage} labels.`);
  const since = await sinceOf(store, person, body);
  const of = await labelled(store, body, since && { ...since, person });
  const { kind, code, sheet, startAt } = body;
  const order: LabelOrder = { kind, code, sheet, startAt, labels: of.map((l) => l.text), isPrinted };
  return { of, set: await pool.labelPdf(order), since };
}

/** What labels will look like: the first page, and what of any does not fit. */
export async function previewLabels(
  services: Services,
  person: number,
  body: LabelsBody,
): Promise<LabelsPreview> {
  const { of, set: made, since } = await set(services, person, body, false);
  const named = made.labels.map((label, i) => ({ ...label, of: of[i]! }));
  return {
    pages: Math.max(...made.labels.map((l) => l.page)) + 1,
    count: made.labels.length,
    since: since?.at ?? null,
    labels: named
      .filter((l) => l.page === 0)
      .map((l) => ({
        copy: l.of.copy,
        barcode: l.of.text.barcode,
        x: l.x,
        y: l.y,
        texts: l.texts,
        bars: l.bars,
      })),
    problems: named.flatMap((l) =>
      l.problem === null
        ? []
        : [{ copy: l.of.copy, barcode: l.of.text.barcode, record: l.of.record, message: l.problem }],
    ),
  };
}

/** Labels as a PDF. Those of what somebody has made since his last print are his last print now. */
export async function printLabels(services: Services, person: number, body: LabelsBody): Promise<Buffer> {
  const { set: made, since } = await set(services, person, body, true);
  if (since) await keepPrint(services.store, person, body.kind, since);
  return Buffer.from(made.pdf);
}
