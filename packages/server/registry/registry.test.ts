import type {
  HeadingDetail,
  JobState,
  Problem,
  RecordDetail,
  RegistryAnswer,
  RegistryNewsList,
  RegistryTaken,
  Review,
  SetUp,
} from '@osier/contract';
import { headingText, registryName, type RegistryName } from '@osier/core/headings';
import { isData, type MarcRecord } from '@osier/core/marc';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { REGISTRY, REGISTRY_HOST, registryNames } from '../../../demo/registry';
import { nameRegistry } from '../../standins/registry';
import { startTesting, type Ask } from '../testing/running';
import { namesNumbered, registryOf } from './ask';
import { checkRegistryAtNight } from './check';

const names = registryNames();
let outside: Server;
let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  outside = nameRegistry(names, 0).listen(0, '127.0.0.1');
  await new Promise((r) => outside.once('listening', r));
  const { port } = outside.address() as AddressInfo;
  t = await startTesting({
    neighbourHosts: new Map([[REGISTRY_HOST, { host: '127.0.0.1', port }]]),
  });
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(async () => {
  outside.close();
  await t.stop();
});

const ask = async (name: string) =>
  (await assistant!<RegistryAnswer>('GET', `/registry?name=${encodeURIComponent(name)}`)).body;
const detail = async (id: number) => (await cataloguer!<HeadingDetail>('GET', `/headings/${id}`)).body;
const news = async () => (await assistant!<RegistryNewsList>('GET', '/registry/news')).body;
const take = (takes: { number: string; heading: number | null }[], by = cataloguer!) =>
  by<RegistryTaken & Problem>('POST', '/registry/take', { takes });
/** Takes names and does what the review says. */
async function load(takes: { number: string; heading: number | null }[]) {
  const file = (await take(takes)).body;
  const review = (await cataloguer!<Review>('POST', '/headings/file/review', file)).body;
  const begun = await cataloguer!<JobState>('POST', '/headings/file', { ...file, token: review.token });
  return { review, job: await t.jobDone(cataloguer!, begun.body.id) };
}
const check = async () => {
  const begun = await cataloguer!<JobState & Problem>('POST', '/registry/check', {});
  return begun.status === 202 ? t.jobDone(cataloguer!, begun.body.id) : begun.body;
};
const textsHere = async () =>
  new Map((await t.running.services.store.find('heading')).map((h) => [headingText(h.value), Number(h.id)]));
/** A name of the registry of which the library has a heading as `here` says, and none in the registry's own form unless both are wanted. */
async function known(here: (name: RegistryName) => string, both: boolean) {
  const held = await textsHere();
  const at = names.findIndex((marc) => {
    const name = registryName(marc)!;
    return held.has(here(name)) && held.has(name.text) === both;
  });
  const name = registryName(names[at]!)!;
  return { at, name, id: held.get(here(name))! };
}
const undated = ({ text }: RegistryName) => text.replace(/, \d.*$/, '');

test('a name is asked for by words that may go on; its forms, sources and members are told', async () => {
  const { name } = await known((n) => n.text, true);
  const [surname] = name.text.split(',');
  const answer = await ask(`${surname}, ${name.text.split(', ')[1]![0]}`);
  expect(answer).toMatchObject({ registry: REGISTRY.name, state: 'found', message: '' });
  const found = answer.names.find((n) => n.number === name.number)!;
  expect(found).toMatchObject({ text: name.text, heading: null, isGone: false });
  expect(found.seeFroms.length).toBeGreaterThan(0);
  expect(found.sources[0]).toContain('Osmere printers');
  expect(found.forms.map((f) => f.members)).toEqual(
    found.forms.map((f) => f.members).toSorted((a, b) => b - a),
  );
  expect((await ask('Nobody of that name')).state).toBe('none');
  expect((await ask('" or 1=1 (')).state).not.toBe('failed');
});

test('a heading takes form, number and other forms of the registry, with its records, and undone all is as before', async () => {
  const { name, id } = await known(undated, false);
  const before = await detail(id);
  expect(before.records).toBeGreaterThan(0);
  const { review, job } = await load([{ number: name.number, heading: id }]);
  expect(review.consequences).toContain('1 heading will get another form, in all records that carry it.');
  const after = await detail(id);
  expect([after.text, after.records]).toEqual([name.text, before.records]);
  const tags = after.marc.fields.map((f) => f.tag);
  expect(tags).toEqual(expect.arrayContaining(['001', '046', '100', '400', '670']));
  expect(tags).not.toContain('990');
  const record = (await cataloguer!<RecordDetail>('GET', `/records/${before.usedBy[0]!.id}`)).body;
  expect(JSON.stringify(record.marc)).toContain(/\d{4}-/.exec(name.text)![0]);
  await cataloguer!('POST', `/daybook/${job.entry}/undo`, {});
  expect(await detail(id)).toMatchObject({ text: before.text, marc: before.marc, records: before.records });
});

test('where the library has both forms, they are to be merged, and nothing is taken', async () => {
  const { name, id } = await known((n) => n.seeFroms[1] ?? '', true);
  const before = await detail(id);
  const { review } = await load([{ number: name.number, heading: id }]);
  expect([review.count, review.rows[0]!.exception]).toEqual([
    0,
    expect.stringMatching(/Merge these two first\. It is left/),
  ]);
  expect((await detail(id)).marc).toEqual(before.marc);
});

test('a form that only the library has becomes that of the registry; the registry’s change of mind is told, taken, and then no news any more', async () => {
  const { name, at } = await known(undated, false);
  const form = undated(name);
  const made = await cataloguer!<{ id: number } & Problem>('POST', '/headings', {
    kind: 'personal',
    form: `${form} of Osmere`,
    source: 'By hand',
  });
  expect(made.body.id).toEqual(expect.any(Number));
  const { id } = made.body;
  const { review } = await load([{ number: name.number, heading: id }]);
  const now = await detail(id);
  expect(review.count).toBe(1);
  expect(now.text).toBe(name.text);
  const other = now.marc.fields.filter((f) => f.tag === '400').map((f) => JSON.stringify(f));
  expect(other.join()).toContain('of Osmere');
  expect((await ask(name.text)).names.find((n) => n.number === name.number)?.heading).toBe(id);
  expect(JSON.stringify(now.marc)).not.toContain('"990"');

  expect((await check()).message).toMatch(/it says the same of all of them/);
  expect(await news()).toMatchObject({ registry: REGISTRY.name, total: 0, rows: [] });
  const was = names[at]!;
  const renamed = (marc: MarcRecord): MarcRecord => ({
    ...marc,
    fields: marc.fields.map((f) =>
      isData(f) && f.tag === '100'
        ? { ...f, subfields: [{ code: 'a', value: `${form} Septimus,` }, f.subfields[1]!] }
        : f,
    ),
  });
  names[at] = renamed(was);
  expect((await check()).message).toMatch(/of 1 it says something else/);
  const told = await news();
  expect([told.total, told.rows[0]]).toEqual([
    1,
    expect.objectContaining({ heading: id, says: 'form', number: name.number }),
  ]);
  expect(told.rows[0]!.form).toContain('Septimus');
  await load([{ number: name.number, heading: id }]);
  expect((await detail(id)).text).toContain('Septimus');
  expect((await news()).total).toBe(0);
  // One that is no more is told with what takes its place.
  const last = names[at];
  names[at] = { ...last, leader: last.leader.replace(/^(.....)n/, '$1d') };
  await check();
  expect((await news()).rows[0]).toMatchObject({ heading: id, says: 'gone' });
  names[at] = was;
});

test('that a name is missing in an answer which is cut short does not make it one that is no more', async () => {
  const { services } = t.running;
  const registry = (await registryOf(services))!;
  const numbers = names.slice(0, 5).map((n) => registryName(n)!.number.slice('(FRN)'.length));
  const whole = await namesNumbered(services, registry, [...numbers, 'frn999999']);
  expect([whole.names.map((n) => n.text).sort(), whole.unread.size]).toEqual([
    names
      .slice(0, 5)
      .map((n) => registryName(n)!.text)
      .sort(),
    0,
  ]);
  // One by which nothing can be begun is in the answer and is no name.
  const was = names[2]!;
  names[2] = { ...was, leader: was.leader.replace(/^(......)z/, '$1a') };
  const found = await namesNumbered(services, registry, numbers);
  expect([found.names.length, [...found.unread]]).toEqual([4, [numbers[2]]]);
  names[2] = was;
});

test('exported records have the numbers of their headings where the house wants them', async () => {
  const { name, id } = await known(undated, false);
  await load([{ number: name.number, heading: id }]);
  const { usedBy } = await detail(id);
  const file = async () =>
    String(
      (await assistant!<string>('GET', `/records/${usedBy[0]!.id}/export?as=marcxml&holdings=none`)).body,
    );
  const house = async () => (await head!<SetUp>('GET', '/set-up')).body.house;
  const put = async (writesNumbers: boolean) => {
    const { version, value } = await house();
    expect((await head!('PUT', '/set-up/house', { version, ...value, writesNumbers })).status).toBe(200);
  };
  const numbered = `<subfield code="0">${name.number}</subfield>`;
  expect(await file()).not.toContain(numbered);
  await put(true);
  const text = await file();
  expect(text.split(numbered)).toHaveLength(2);
  await put(false);
  expect(await file()).not.toContain(numbered);
});

test('at night the registry is asked once', async () => {
  const jobs = () =>
    t.running.services.store.rows("SELECT id FROM jobs WHERE kind = 'check-registry' AND person = 0");
  const before = (await jobs()).length;
  const since = Date.now() + 60_000;
  await checkRegistryAtNight(t.running.services, since);
  expect(await jobs()).toHaveLength(before + 1);
  const dusk = Date.now() - 60_000;
  while (t.running.services.jobs.running().length) await new Promise((r) => setTimeout(r, 20));
  await checkRegistryAtNight(t.running.services, dusk);
  expect(await jobs()).toHaveLength(before + 1);
});

test('a registry that does not answer is told and is in nobody’s way; what it does not have, or is no number of it, is refused', async () => {
  expect((await take([{ number: '(FRN)frn999999', heading: null }])).body.detail).toMatch(
    /has no .* any more/,
  );
  expect((await take([{ number: '(XYZ)1', heading: null }])).body.detail).toMatch(/is no number of FRN/);
  expect((await take([{ number: '(FRN)frn000001', heading: null }], assistant)).status).toBe(403);
  const house = async () => (await head!<SetUp>('GET', '/set-up')).body.house;
  const put = async (registry: object) => {
    const { version, value } = await house();
    return head!<Problem>('PUT', '/set-up/house', { version, ...value, registry });
  };
  const { value } = await house();
  expect(
    (await put({ ...value.registry, address: REGISTRY.address.replace('/names', '/down') })).status,
  ).toBe(200);
  expect(await ask('Withers')).toMatchObject({
    state: 'failed',
    names: [],
    message: expect.stringContaining('503') as string,
  });
  expect((await take([{ number: '(FRN)frn000001', heading: null }])).body.detail).toMatch(
    /could not be asked/,
  );
  expect(await check()).toMatchObject({ state: 'failed' });
  expect((await put({ ...value.registry, agency: '' })).body.fields?.[0]?.field).toBe('registry.agency');
  expect((await put({ ...value.registry, address: 'ftp://x' })).body.fields?.[0]?.field).toBe(
    'registry.address',
  );
  expect((await put({ name: '', address: '', agency: '' })).status).toBe(200);
  expect(await ask('Withers')).toMatchObject({ registry: null, state: 'none' });
  expect(await news()).toMatchObject({ registry: null, rows: [] });
});
