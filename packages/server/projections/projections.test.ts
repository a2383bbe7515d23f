import { creation, removal, update } from '@osier/core/changes';
import type { Incoming } from '@osier/core/deliveries';
import { headingFrom, headingsOf, lookAlikeGroups, lookAlikes, distinctChange } from '@osier/core/headings';
import { withLocal, type Copy, type Holding } from '@osier/core/holdings';
import type { Change } from '@osier/core/kinds';
import { field, type MarcRecord } from '@osier/core/marc';
import { stretchTest, type Stocktake } from '@osier/core/stocktake';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { commit } from '../store/commit';
import { openEmpty } from '../testing/library';
import type { Store } from '../store/store';
import { undoEntry } from '../store/undo';
import { keepScans, readyScans } from '../scanner/scans';
import {
  compareMet,
  compareNames,
  indexAll,
  meetingOf,
  readAll,
  readForms,
  nameRows,
} from '../workers/pool-worker';
import { PROJECTIONS } from '.';
import type { NameWork } from './alike-names';
import { alikeHeadings, compareTouched, type Comparing } from './look-alikes';
import { shelfCopy } from './stocktake-places';
import { addSeen, madeOnes } from './stocktake-scans';
import { TESTED } from '../testing/tested';

/** What every projection keeps, as tables with their order. */
const KEPT: Readonly<Record<string, string>> = {
  local_values: 'copy, field',
  counts: 'name',
  delivery_counts: '1, 2, 3',
  heading_use: 'kind, key',
  record_rows: 'id',
  record_findings: 'record, rule',
  finding_counts: 'rule',
  facet_counts: 'facet, value',
  record_keys: '1, 2, 3',
  heading_keys: '1, 2, 3',
  used_terms: '1, 2, 3',
  record_links: 'record, url',
  record_pairs: 'a, b',
  roll_numbers: 'number',
  alike_names: 'heading',
  alike_buckets: 'bucket, heading',
  alike_pairs: 'a, b',
  alike_groups: 'id',
  alike_members: 'heading',
  union_rows: 'row',
  stocktake_seen: 'stocktake, code',
  stocktake_state: 'stocktake',
  '(SELECT stocktake, device, run, file, name, location, person, scans, began, ended FROM stocktake_runs)':
    '1, 2, 3, 4',
};
async function kept(store: Store): Promise<Record<string, object[]>> {
  const found: Record<string, object[]> = {};
  for (const [table, order] of Object.entries(KEPT)) {
    // A count of nothing and no count say the same.
    const some = ['delivery_counts', 'heading_use', 'facet_counts', 'finding_counts'].includes(table)
      ? 'WHERE n <> 0'
      : '';
    found[table] = await store.rows<object>(`SELECT * FROM ${table} ${some} ORDER BY ${order}`);
  }
  return found;
}

const nearWords = async (store: Store): Promise<string[]> =>
  (await store.rows<{ pair: string }>(`SELECT near || ' ' || bucket AS pair FROM alike_near`)).map(
    (r) => r.pair,
  );

const here: NameWork = {
  readForms: (waiting) => Promise.resolve(readForms(waiting)),
  compareNames: (mates) => Promise.resolve(compareNames(mates)),
  readAll: (headings) => Promise.resolve(readAll(headings)),
  indexAll: (read) => Promise.resolve(indexAll(read)),
  meetingOf: (asked) => Promise.resolve(meetingOf(asked)),
  compareMet: (met, names) => Promise.resolve(compareMet({ met, names })),
  nameRows: (asked) => Promise.resolve(nameRows(asked)),
};
async function compareAll(store: Store, comparing?: Comparing): Promise<void> {
  while ((await compareTouched(store, here, comparing)) > 0);
}
/** All names at one go, however few there are. */
const AT_ONE_GO = { many: 1 };

const NAMES = [
  'Reedman, Amos',
  'Reedman, A.',
  'Redman, Amos',
  'Furzedown, Ivy',
  'Furzedowne, Ivy',
  'Furzedown, I.',
];
const marc = (name: string, title: string): MarcRecord => ({
  leader: '00000nam a2200000 i 4500',
  fields: [field('100', '1 ', 'a', name), field('245', '10', 'a', title)],
});
const call = { scheme: 'dewey', prefix: '', item: '', suffix: '', note: '' } as const;
const plain = { fund: '', supplier: '', acquired: '', condition: '', note: '', lastSeen: '' };
/** Acts by their number, those that others need more often. */
const ACTS = [
  0, 0, 0, 1, 2, 3, 3, 3, 4, 5, 6, 6, 6, 7, 8, 9, 9, 9, 10, 10, 11, 11, 11, 11, 12, 12, 13, 13, 13, 14, 14,
  14, 15, 15,
];
const step = fc.record({ act: fc.constantFrom(...ACTS), a: fc.nat(40), b: fc.nat(40) });

/** A small library under random acts, each through commit. */
class World {
  private next = 0;
  readonly entries: number[] = [];
  constructor(readonly store: Store) {}

  async do({ act, a, b }: { act: number; a: number; b: number }): Promise<void> {
    const changes = await this.changesOf(act, a, b);
    if (act === 12 && this.entries.length) {
      const done = await undoEntry(this.store, this.entries[a % this.entries.length]!, 1).catch(() => null);
      if (done && 'entry' in done) this.entries.push(done.entry);
      return;
    }
    if (act === 13) return this.scan(a, b);
    if (changes.length === 0) return;
    const entry = await commit(this.store, { did: TESTED, person: 1, changes }).catch(() => null);
    if (entry !== null) this.entries.push(entry);
  }

  private one<T>(all: readonly T[], n: number): T | undefined {
    return all[n % Math.max(1, all.length)];
  }

  private async changesOf(act: number, a: number, b: number): Promise<Change[]> {
    const { store } = this;
    const id = ++this.next + 100;
    const name = NAMES[a % NAMES.length]!;
    const records = await store.find('record', { order: [['id', 'ASC']] });
    const headings = await store.find('heading', { where: { merged_into: null }, order: [['id', 'ASC']] });
    const copies = await store.find('copy', { order: [['id', 'ASC']] });
    switch (act) {
      case 0:
        return [creation('record', id, marc(name, `Title ${b}`))];
      case 1: {
        const held = this.one(records, b);
        return held ? [update('record', held, marc(name, `Title ${a}`))] : [];
      }
      case 2: {
        const held = this.one(records, a);
        return held ? [removal('record', held)] : [];
      }
      case 3:
        return headingsOf(marc(name, '')).map((u) => creation('heading', id, headingFrom(u)));
      case 4: {
        const [kept, lost] = [this.one(headings, a), this.one(headings, b)];
        if (!kept || !lost || kept.id === lost.id) return [];
        return [update('heading', lost, { ...lost.value, mergedInto: kept.id })];
      }
      case 5: {
        const [x, y] = [this.one(headings, a), this.one(headings, b)];
        return x && y && x.id !== y.id ? [distinctChange(id, x.id, y.id)] : [];
      }
      case 6: {
        const record = this.one(records, a);
        if (!record) return [];
        const holding: Holding = {
          ...call,
          record: record.id,
          branch: 'MR',
          location: 'OPEN',
          class: String(b),
        };
        const status = b % 5 === 0 ? 'missing' : 'available';
        const copy: Copy = {
          ...plain,
          holding: id,
          barcode: `91204${id}`,
          number: 0,
          type: 'BK',
          price: null,
          status,
        };
        return [creation('holding', id, holding), creation('copy', id, copy)];
      }
      case 7: {
        const held = this.one(copies, a);
        if (!held) return [];
        const status = b % 2 ? 'lost' : 'available';
        return [
          update('copy', held, withLocal({ ...held.value, status }, 1 + (b % 2), b % 3 ? `Given ${b}` : '')),
        ];
      }
      case 8: {
        const held = this.one(copies, a);
        return held ? [removal('copy', held)] : [];
      }
      case 9:
        return this.incoming(id, a, b);
      case 10: {
        const value: Stocktake = {
          name: `S${id}`,
          stretch: {
            branch: 'MR',
            locations: [],
            types: [],
            scheme: 'dewey',
            from: a % 2 ? '1' : '',
            to: '',
          },
          ...{ state: 'open', startedOn: '', closedOn: '', seenSince: '' },
        };
        return [creation('stocktake', id, value)];
      }
      case 11: {
        const of = this.one(await store.find('stocktake'), a);
        const codes = [0, 1, 2].flatMap((i) => this.one(copies, b + i)?.value.barcode ?? 'nobody');
        return of ? [creation('scanbatch', id, { stocktake: of.id, name: 'f', on: '', codes })] : [];
      }
      case 14: {
        const copy = this.one(copies, a);
        if (!copy) return [];
        const place = { branch: 'MR', location: 'OPEN', callNumber: '', lastCopy: false };
        const why = { withdrawnOn: '2026-11-29', by: '', reason: '' };
        const of = { copy: copy.value, copyId: copy.id, record: 1, title: '' };
        return [creation('withdrawn', id, { ...of, ...place, ...why })];
      }
      case 15: {
        const rows = (await store.find('withdrawn')).map((w) => Number(w.id));
        const [gone, back] = [rows.filter((r) => r % 2 === a % 2), rows.filter((r) => r % 3 === b % 3)];
        const part = (of: number[]) => ({ holdings: of.length, rows: of, records: [] });
        return [creation('telling', id, { at: '', by: '', gone: part(gone), back: part(back) })];
      }
      default:
        return [];
    }
  }

  private async incoming(id: number, a: number, b: number): Promise<Change[]> {
    const { store } = this;
    const rows = await store.find('incoming', { order: [['id', 'ASC']] });
    const held = this.one(rows, a);
    if (held && b % 3 === 0)
      return [
        update('incoming', held, { ...held.value, state: b % 2 ? 'accepted' : 'waiting', decision: 'add' }),
      ];
    const value: Incoming = {
      ...{
        delivery: 1,
        seq: id,
        decision: 'ask',
        chosen: false,
        target: null,
        state: 'waiting',
        record: null,
      },
      ...{ copies: [], note: '', edits: 0 },
    };
    // A record without a title is one with an error.
    const bad = { leader: '00000nam a2200000 i 4500', fields: [] };
    const own = { marc: b % 2 ? bad : marc(NAMES[0]!, 'Title'), recipe: null };
    return [creation('incoming', id, value), creation('fields', id, own)];
  }

  private async scan(a: number, b: number): Promise<void> {
    const of = this.one(await this.store.find('stocktake'), a);
    const copy = this.one(await this.store.find('copy'), b);
    if (!of) return;
    const send = (run: string) =>
      readyScans(this.store, {
        ...{ person: 1, raw: [copy?.value.barcode ?? 'nobody', 'nobody'] },
        from: { device: 'd', run, number: a },
      });
    const sent = [await send('r'), await send('q'), await send('r')];
    await this.store.write(async (tx) => {
      const inside = this.store.within(tx);
      const { fresh } = await keepScans(inside, { purpose: 'stocktake', work: of.id }, sent, tx);
      await addSeen(inside, of.id, madeOnes(fresh), tx);
    });
  }
}

async function inNewStore(work: (store: Store) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'osier-projections-'));
  const store = await openEmpty(folder);
  try {
    await work(store);
  } finally {
    await store.close();
    rmSync(folder, { recursive: true });
  }
}
const roll = { name: 'R', prefix: '91204', from: 0, to: 999, length: 8, check: false, supplier: '' };
const delivery = { name: 'd', format: 'iso2709', bytes: 0, sha256: 'x', arrived: '' } as const;

test(
  'after any acts, undoing included, every projection is what making it anew gives',
  async () =>
    fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 15, maxLength: 45 }), (steps) =>
        inNewStore(async (store) => {
          const world = new World(store);
          const begin = [creation('roll', 1, roll), creation('delivery', 1, delivery)];
          await commit(store, { did: TESTED, person: 1, changes: begin });
          for (const [i, one] of steps.entries()) {
            await world.do(one);
            if (i % 7 === 0) await compareAll(store);
          }
          await compareAll(store);
          const applied = await kept(store);
          const near = await nearWords(store);
          for (const { rebuild } of PROJECTIONS) await rebuild(store);
          await compareAll(store);
          expect(applied).toEqual(await kept(store));
          // That words lie near each other stays true when no heading has them any more.
          expect(near).toEqual(expect.arrayContaining(await nearWords(store)));
        }),
      ),
      { numRuns: 12, endOnFailure: true },
    ),
  120_000,
);

/** Headings of the library's names, and some more: two that lie near one another, each alone with its own word, and one that is near nobody. */
async function namesAdded(store: Store): Promise<void> {
  const names = NAMES.flatMap((n) => [n, `${n} (Jr)`]);
  const alone = ['Hadleigh, Zeno,', 'Hadbeigh, Zeno,', 'Quillan, Zeno,'].map((a) => ({
    ...{ leader: '', fields: [field('100', '1 ', 'a', a, 'd', '1901-1980')] },
  }));
  const uses = [...names.map((n) => marc(n, '')), ...alone].flatMap((m) => headingsOf(m));
  const changes = uses.map((u, i) => creation('heading', i + 1, headingFrom(u)));
  await commit(store, { did: TESTED, person: 1, changes });
}

/** The pairs and groups that are kept are those that core finds among all headings. */
async function expectAllCompared(store: Store): Promise<void> {
  const all = (await store.find('heading')).map(({ id, value }) => ({ id, heading: value }));
  const expected = lookAlikes(all, () => false);
  const pairs = await store.rows<{ a: number; b: number }>('SELECT a, b FROM alike_pairs ORDER BY a, b');
  expect(pairs.map((p) => `${p.a} ${p.b}`)).toEqual(expected.map((p) => `${p.a} ${p.b}`).sort(byNumbers));
  expect(pairs.length).toBeGreaterThan(3);
  const members = await store.rows<{ members: string }>('SELECT members FROM alike_groups ORDER BY id');
  expect(members.map((m) => m.members).sort()).toEqual(
    lookAlikeGroups(expected)
      .map((g) => JSON.stringify(g.headings))
      .sort(),
  );
  expect(await store.row('SELECT COUNT(*) AS n FROM alike_dirty')).toEqual({ n: 0 });
}

test.each([
  ...(['readForms', 'compareNames'] as const).map((when) => [when, {}] as const),
  ...(['readAll', 'indexAll', 'meetingOf', 'compareMet', 'nameRows'] as const).map(
    (when) => [when, AT_ONE_GO] as const,
  ),
])(
  'what looks alike is what comparing all names gives, also when names come and go before %s, %o',
  async (when, comparing) =>
    inNewStore(async (store) => {
      await namesAdded(store);
      let once = true;
      // One of the names is merged away meanwhile, another is written in another way, and one more is made.
      const meanwhile = async () => {
        if (!once) return;
        once = false;
        const [lost, other] = [(await store.read('heading', 2))!, (await store.read('heading', 3))!];
        const written = headingFrom(headingsOf(marc('Furzedawn, Ivy', ''))[0]!);
        const made = headingFrom(headingsOf(marc('Reedmann, Amos', ''))[0]!);
        const changes = [
          update('heading', lost, { ...lost.value, mergedInto: 1 }),
          update('heading', other, written),
          creation('heading', 90, made),
        ];
        await commit(store, { did: TESTED, person: 1, changes });
      };
      const compare: NameWork = {
        ...here,
        [when]: async (...given: readonly unknown[]) => {
          await meanwhile();
          const answer: unknown = Reflect.apply(here[when], here, given);
          return answer;
        },
      };
      while ((await compareTouched(store, compare, comparing)) > 0);
      expect(once).toBe(false);
      await expectAllCompared(store);
    }),
);

test('all names compared at one go are kept as if one after the other had been', async () =>
  inNewStore(async (store) => {
    await namesAdded(store);
    await compareAll(store);
    const oneByOne = { ...(await kept(store)), near: (await nearWords(store)).sort() };
    await alikeHeadings.rebuild(store);
    await compareAll(store, AT_ONE_GO);
    expect({ ...(await kept(store)), near: (await nearWords(store)).sort() }).toEqual(oneByOne);
    await expectAllCompared(store);
    // What comes later finds all of it, and what goes takes all of its own along.
    const gone = (await store.read('heading', 5))!;
    const made = headingFrom(headingsOf(marc('Furzedownn, Ivy', ''))[0]!);
    const changes = [removal('heading', gone), creation('heading', 91, made)];
    await commit(store, { did: TESTED, person: 1, changes });
    await compareAll(store);
    await expectAllCompared(store);
    expect(await store.row('SELECT COUNT(*) AS n FROM alike_buckets WHERE heading = 5')).toEqual({ n: 0 });
  }));

test('names that were kept already are found while all are compared anew, and what has changed leaves nothing behind', async () =>
  inNewStore(async (store) => {
    await namesAdded(store);
    await compareAll(store);
    const [gone, changed, empty, merged] = await Promise.all(
      [1, 2, 3, 4].map((id) => store.read('heading', id)),
    );
    const written = headingFrom(headingsOf(marc('Quillane, Zeno', ''))[0]!);
    const nameless = {
      ...empty!.value,
      marc: { ...empty!.value.marc, fields: [field('100', '1 ', 'a', '...')] },
    };
    const changes = [
      removal('heading', gone!),
      update('heading', changed!, written),
      update('heading', empty!, nameless),
      update('heading', merged!, { ...merged!.value, mergedInto: 2 }),
    ];
    await commit(store, { did: TESTED, person: 1, changes });
    const buckets = async () =>
      (await store.row<{ n: number }>('SELECT COUNT(*) AS n FROM alike_buckets'))!.n;
    await store.write((tx) =>
      store.run("INSERT OR IGNORE INTO alike_dirty (heading, place) SELECT id, '' FROM headings", {}, tx),
    );
    const atFirst = await buckets();
    let meanwhile = 0;
    const work: NameWork = {
      ...here,
      indexAll: async (read) => {
        meanwhile = await buckets();
        return here.indexAll(read);
      },
    };
    while ((await compareTouched(store, work, AT_ONE_GO)) > 0);
    // All but those of the two that were changed.
    expect(meanwhile).toBeGreaterThan(atFirst / 2);
    await expectAllCompared(store);
    const anew = await kept(store);
    await alikeHeadings.rebuild(store);
    await compareAll(store);
    expect(anew).toEqual(await kept(store));
  }));

test.each([1, 2, 3, 4, 5, 6])(
  'comparing that is broken off when asked the %ith time begins anew',
  async (times) =>
    inNewStore(async (store) => {
      await namesAdded(store);
      let asked = 0;
      await compareTouched(store, here, { ...AT_ONE_GO, isStopped: () => ++asked >= times });
      expect(asked).toBeGreaterThanOrEqual(times);
      await compareAll(store, AT_ONE_GO);
      await expectAllCompared(store);
    }),
);

const byNumbers = (x: string, y: string) => {
  const [a, b] = [x.split(' ').map(Number), y.split(' ').map(Number)];
  return a[0]! - b[0]! || a[1]! - b[1]!;
};

test('a stocktake expects just the copies that core says are in its stretch', async () =>
  inNewStore(async (store) => {
    const classes = ['745.9', '746', '746.4', '746.43', '747', '74', '7'];
    const changes: Change[] = [creation('record', 1, marc(NAMES[0]!, 'T'))];
    classes.forEach((c, i) => {
      for (const [k, location] of ['OPEN', 'BENCH', 'READ'].entries()) {
        const id = i * 3 + k + 1;
        const branch = location === 'READ' ? 'SH' : 'MR';
        const holding: Holding = { ...call, record: 1, branch, location, class: c };
        const status = i === 2 ? 'missing' : 'available';
        const type = i % 2 ? 'VI' : 'BK';
        const copy: Copy = { ...plain, holding: id, barcode: `b${id}`, number: 0, type, price: null, status };
        changes.push(creation('holding', id, holding), creation('copy', id, copy));
      }
    });
    await commit(store, { did: TESTED, person: 1, changes });
    const stretches = [
      { locations: ['OPEN'], types: [], from: '746', to: '746' },
      { locations: [], types: ['BK'], from: '', to: '746' },
      { locations: ['BENCH', 'OPEN'], types: [], from: '746.4', to: '' },
      { also: ['SH'], locations: [], types: [], from: '746', to: '' },
      { also: ['SH', 'HB'], locations: ['READ', 'BENCH'], types: ['BK'], from: '', to: '' },
    ];
    for (const [i, part] of stretches.entries()) {
      const stretch = { branch: 'MR', scheme: 'dewey', ...part } as const;
      const value: Stocktake = {
        name: `S${i}`,
        stretch,
        state: 'open',
        startedOn: '',
        closedOn: '',
        seenSince: '',
      };
      const changes = [creation('stocktake', i + 1, value)];
      await commit(store, { did: TESTED, person: 1, changes });
      const expected: string[] = [];
      for (const { value: copy } of await store.find('copy')) {
        const row = (await shelfCopy(store, 0, copy.barcode))!;
        if (stretchTest(stretch)(row) === null && row.status !== 'missing') expected.push(copy.barcode);
      }
      const rows = await store.rows<{ barcode: string }>(
        'SELECT barcode FROM stocktake_expected WHERE stocktake = :id AND counts = 1',
        { id: i + 1 },
      );
      expect(rows.map((r) => r.barcode).sort()).toEqual(expected.sort());
      expect(expected.length).toBeGreaterThan(0);
    }
  }));
