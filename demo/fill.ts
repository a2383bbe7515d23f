import { creation } from '@osier/core/changes';
import type { Change } from '@osier/core/kinds';
import { commit } from '../packages/server/store/commit';
import { SETTING_ID } from '../packages/server/store/store';
import { openStore } from '../packages/server/store/open-store';
import type { Store } from '../packages/server/store/store';
import { peopleOf } from '../packages/server/people/people';
import { DEFAULT_HOUSE } from '@osier/core/house';
import { WICKMERE_BARCODES } from './barcodes';
import { demoBriefs } from './briefs';
import { NEIGHBOURS } from './neighbours';
import { REGISTRY } from './registry';
import { LISTS, LOCAL_FIELDS, makeLibrary, SHEETS, SHELF_READY, WORKROOM } from './library';

const PEOPLE = [
  { name: 'Nell Arkwright', login: 'nell', role: 'head' },
  { name: 'Tobias Fenn', login: 'tobias', role: 'cataloguer' },
  { name: 'Ida Moorhouse', login: 'ida', role: 'assistant' },
] as const;

/** Fills an empty store with the demo library, through the same commit as everything else. */
export async function fillDemo(store: Store): Promise<void> {
  const library = makeLibrary();
  const people = peopleOf(store, true);
  let head = 0;
  for (const p of PEOPLE) {
    const made = await people.add({ ...p, password: '' }, true);
    if (p.role === 'head') head = made.id;
  }
  const all: Change[] = [
    creation('house', SETTING_ID.house, {
      ...DEFAULT_HOUSE,
      barcodes: WICKMERE_BARCODES,
      registry: REGISTRY,
    }),
    creation('lists', SETTING_ID.lists, LISTS),
    ...LOCAL_FIELDS.map((field, i) => creation('localfield', i + 1, field)),
    ...[WORKROOM, SHELF_READY].map((roll, i) => creation('roll', i + 1, roll)),
    ...SHEETS.map((sheet, i) => creation('sheet', i + 1, sheet)),
    ...NEIGHBOURS.map((n, i) => creation('neighbour', i + 1, n)),
    ...library.headings.map((h) => creation('heading', h.id, h.heading)),
    ...library.records.map((r) => creation('record', r.id, r.marc)),
    ...library.holdings.map((h) => creation('holding', h.id, h.holding)),
    ...library.copies.map((c) => creation('copy', c.id, c.copy)),
  ];
  let entry: number | undefined;
  for (let at = 0; at < all.length; at += 1000)
    entry = await commit(store, {
      did: { act: 'first-fill', names: { library: 'the Wickmere Institute' } },
      person: head,
      changes: all.slice(at, at + 1000),
      entry,
    });
  for (const [kind, n] of [
    ['heading', library.headings.length],
    ['record', library.records.length],
    ['holding', library.holdings.length],
    ['copy', library.copies.length],
    ['roll', 2],
    ['sheet', SHEETS.length],
    ['neighbour', NEIGHBOURS.length],
    ['localfield', LOCAL_FIELDS.length],
  ] as const)
    await store.nextIds(kind, n);
  const briefs = demoBriefs(library);
  await store.nextIds('record', briefs.length);
  await store.nextIds('holding', briefs.length);
  await store.nextIds('copy', briefs.length);
  await commit(store, {
    did: { act: 'first-fill', names: { library: 'the Wickmere Institute' } },
    person: head,
    entry,
    changes: briefs.flatMap(({ id, marc, holding, copy }, i): Change[] => [
      creation('record', id, marc),
      creation('holding', copy.holding, holding),
      creation('copy', library.copies.length + i + 1, copy),
    ]),
  });
  await store.write(async (tx) => {
    for (const { id, days } of briefs) {
      const since = new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);
      await store.table('brief_records').update({ since }, { record: id }, tx);
    }
  });
  // The first fill is where everything begins; there is nothing before it to go back to.
  await store.write((tx) => store.run('UPDATE daybook SET objects = 0 WHERE id = :entry', { entry }, tx));
}

/** Fills the store of a folder unless it has something already. */
export async function fillIfEmpty(folder: string): Promise<boolean> {
  const store = await openStore(folder);
  try {
    const people = await store.row<{ n: number }>('SELECT COUNT(*) AS n FROM people');
    if (people!.n > 0) return false;
    await fillDemo(store);
    return true;
  } finally {
    await store.close();
  }
}
