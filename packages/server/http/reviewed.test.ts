import type {
  IncomingDetail,
  IncomingPage,
  JobState,
  LookAlikePage,
  Problem,
  RecordDetail,
  Review,
  SearchAnswer,
  FindingPage,
  WithdrawalList,
} from '@osier/contract';
import { readFileSync } from 'node:fs';
import { catalogueOf, demoFile, startTesting, type Ask } from '../testing/running';

/** What was reviewed is what is done: for each batch act, something is changed between its review and the act. */
let t: Awaited<ReturnType<typeof startTesting>>;
let head: Ask;
beforeAll(async () => {
  t = await startTesting();
  head = await t.as(1);
});
afterAll(() => t.stop());

const CHANGED = /^Something has changed since this was reviewed\. Nothing was done/;
const deliver = async (name: string, as = name) => {
  const { body } = await head<{ delivery: number; job: number }>(
    'POST',
    `/deliveries?name=${as}`,
    readFileSync(demoFile(name)),
  );
  await t.jobDone(head, body.job);
  return body.delivery;
};
const reviewOf = async (path: string, body: object = {}) =>
  (await head<Review>('POST', `${path}/review`, body)).body;
const incoming = async (delivery: number, facet = '') =>
  (await head<IncomingPage>('GET', `/deliveries/${delivery}/incoming?facet=${facet}`)).body.rows;
const noteOn = async (delivery: number, id: number, note: string) => {
  const { version } = (await head<IncomingDetail>('GET', `/deliveries/${delivery}/incoming/${id}`)).body;
  expect((await head('PUT', `/deliveries/${delivery}/incoming/${id}`, { version, note })).status).toBe(200);
};
/** Adds a word to the title of a record of the catalogue. */
const retitle = async (id: number) => {
  const { version, marc } = (await head<RecordDetail>('GET', `/records/${id}`)).body;
  const fields = marc.fields.map((f) =>
    f.tag === '245' && 'subfields' in f
      ? { ...f, subfields: f.subfields.map((s, i) => (i ? s : { ...s, value: `Revised ${s.value}` })) }
      : f,
  );
  expect((await head('PUT', `/records/${id}`, { version, marc: { ...marc, fields } })).status).toBe(200);
};

/** Does an act with the token of a review after something was changed: it is refused, nothing is done, and the review made anew is taken. */
async function holds(
  path: string,
  body: object,
  between: () => Promise<unknown>,
): Promise<{ status: number; body: unknown }> {
  const { token } = await reviewOf(path, body);
  await between();
  const before = await catalogueOf(t.running);
  const refused = await head<Problem>('POST', path, { ...body, token });
  expect([refused.status, refused.body.detail]).toEqual([409, expect.stringMatching(CHANGED)]);
  expect(await catalogueOf(t.running)).toEqual(before);
  return head('POST', path, { ...body, token: (await reviewOf(path, body)).token });
}
const jobOf = async ({ status, body }: { status: number; body: unknown }) => {
  expect(status).toBe(202);
  return t.jobDone(head, (body as JobState).id);
};

test('a delivery: cleaned, accepted, taken back', async () => {
  const id = await deliver('tallow-and-pike.mrc');
  const recipe = 'house-style';
  const [one, two] = (await reviewOf(`/deliveries/${id}/clean`, { recipe })).rows;
  await jobOf(await holds(`/deliveries/${id}/clean`, { recipe }, () => noteOn(id, one!.id, 'Look at this.')));
  await jobOf(await holds(`/deliveries/${id}/accept`, {}, () => noteOn(id, two!.id, 'And at this.')));
  const became = (await incoming(id, 'accepted')).find((r) => r.record !== null)!.record!;
  await jobOf(await holds(`/deliveries/${id}/take-back`, {}, () => retitle(became)));
  // What was changed since is what stays.
  expect((await incoming(id, 'accepted')).map((r) => r.record)).toEqual([became]);
});

test('an unchanged review is acted on, whatever is done elsewhere', async () => {
  const id = await deliver('lyngby-exchange.xml', 'other.xml');
  const { token } = await reviewOf(`/deliveries/${id}/accept`);
  await retitle(1200);
  expect((await jobOf(await head('POST', `/deliveries/${id}/accept`, { token }))).state).toBe('done');
});

test('a recipe over what a search finds', async () => {
  const found = (await head<SearchAnswer>('GET', '/records?q=willow')).body.rows;
  const review = await reviewOf('/records/clean', { recipe: 'house-style', q: 'willow' });
  const touched = review.rows[0]?.id ?? found[0]!.id;
  await jobOf(await holds('/records/clean', { recipe: 'house-style', q: 'willow' }, () => retitle(touched)));
});

test('what somebody changes while long work goes on is left as it is, and the entry says so', async () => {
  const id = await deliver('tallow-and-pike.mrc', 'second.mrc');
  const rows = await incoming(id, 'add');
  const { token } = await reviewOf(`/deliveries/${id}/accept`);
  // The job is begun with what was reviewed; a note comes before its first chunk is planned.
  const { jobs } = t.running.services;
  const asOf = parseInt(token, 10);
  await noteOn(id, rows[0]!.id, 'Wait with this one.');
  const job = await jobs.begin('accept-delivery', 'Accepting second.mrc', 1, {
    delivery: id,
    leaveOut: [],
    asOf,
  });
  const done = await t.jobDone(head, job.id);
  expect(done.message).toContain('1 left as it was, because somebody changed it since the review');
  expect((await incoming(id, 'waiting')).map((r) => r.id)).toContain(rows[0]!.id);
  const entry = (await head<{ sentence: string }>('GET', `/daybook/${done.entry!}`)).body;
  expect(entry.sentence).toContain('1 left as it was');
});

test('headings that are merged', async () => {
  await t.running.services.background.idle();
  const [group] = (await head<LookAlikePage>('GET', '/headings/look-alikes')).body.rows;
  const [kept, lost] = group!.headings;
  const body = { kept: kept!.id, lost: [lost!.id] };
  const [row] = (await reviewOf('/headings/merge', body)).rows;
  expect((await holds('/headings/merge', body, () => retitle(row!.id))).status).toBe(200);
});

test('an entry that is taken back', async () => {
  const id = await deliver('lyngby-exchange.xml');
  const [a, b] = await incoming(id);
  const decided = await head<{ entry: number }>('POST', `/deliveries/${id}/decisions`, {
    incoming: [a!.id, b!.id],
    decision: 'skip',
  });
  const path = `/daybook/${decided.body.entry}/undo`;
  // One of the two is put back by hand meanwhile: less goes back than was shown.
  const back = () =>
    head('POST', `/deliveries/${id}/decisions`, { incoming: [a!.id], decision: a!.decision });
  const { token } = await reviewOf(path);
  await back();
  const refused = await head<Problem>('POST', path, { token });
  expect(refused.status).toBe(409);
});

test('findings of a stocktake that are settled', async () => {
  const begun = await head<{ id: number }>('POST', '/stocktakes', {
    name: 'Reviewed',
    branch: 'MR',
    from: '746',
    to: '746',
  });
  const path = `/stocktakes/${begun.body.id}`;
  const { rows } = (await head<FindingPage>('GET', `${path}/outcomes?outcome=skipped`)).body;
  const items = rows.slice(0, 2).map((f) => ({ finding: 'missing', code: f.code, act: 'mark-missing' }));
  const copy = rows[0]!.copy!;
  const settled = await holds(`${path}/settle`, { items }, async () =>
    head('PUT', `/copies/${copy}`, {
      version: (await t.running.services.store.read('copy', copy))!.version,
      note: 'Seen in May.',
    }),
  );
  expect(settled.status).toBe(200);
});

test('copies that are withdrawn', async () => {
  const made = await head<{ id: number }>('POST', '/withdrawal-lists', { name: 'Reviewed', branch: 'MR' });
  const path = `/withdrawal-lists/${made.body.id}`;
  const [record] = (await head<SearchAnswer>('GET', '/records?q=&branch=MR')).body.rows.filter(
    (r) => r.copies > 1,
  );
  const { holdings } = (await head<RecordDetail>('GET', `/records/${record!.id}`)).body;
  const copies = holdings.filter((h) => h.holding.branch === 'MR').flatMap((h) => h.copies);
  await head('POST', `${path}/scans`, { codes: copies.map((c) => c.copy.barcode) });
  const { verdicts } = (await head<WithdrawalList>('GET', path)).body;
  const clear = verdicts.find((v) => v.verdict !== 'stop')!.candidate!;
  const { version } = copies.find((c) => c.id === clear.copyId)!;
  const gone = await holds(`${path}/withdraw`, { copies: [clear.copyId] }, () =>
    head('PUT', `/copies/${clear.copyId}`, { version, status: 'lost' }),
  );
  expect(gone.status).toBe(200);
});
