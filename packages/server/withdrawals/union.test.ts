// The file of deletions is read by MARC::Record (Debian: libmarc-record-perl) and yaz-marcdump (Debian: yaz).
import type { Review, UnionItem, WithdrawalList } from '@osier/contract';
import { recordReader, type MarcRecord } from '@osier/core/marc';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startTesting, type Ask } from '../testing/running';

let t: Awaited<ReturnType<typeof startTesting>>;
let [head, cataloguer, assistant]: Ask[] = [];
beforeAll(async () => {
  t = await startTesting();
  [head, cataloguer, assistant] = [await t.as(1), await t.as(2), await t.as(3)];
});
afterAll(() => t.stop());

interface Open {
  readonly rows: UnionItem[];
  readonly next: number | null;
  readonly holdings: number;
  readonly records: number;
  readonly back: number;
  readonly loansDesk: { readonly waiting: number; readonly refused: number };
}
const open = async () => (await cataloguer!<Open>('GET', '/union-notices/open')).body;
/** The file is UTF-8 throughout: its bytes are those of its text. */
const fileOf = async (id: number, as: string) =>
  Buffer.from((await head!<string>('GET', `/union-notices/${id}/file?as=${as}`)).body);
const aside = () => t.running.services.store.aside;

/** Titles all of whose copies stand at Millrace and may go: one of one holding, and copies that are on a holding of a title with others. */
async function titles(): Promise<{ record: number; holding: number; codes: string }[]> {
  return aside().rows<{ record: number; holding: number; codes: string }>(
    `SELECT h.record, h.id AS holding, json_group_array(c.barcode) AS codes FROM holdings h JOIN copies c ON c.holding = h.id
      WHERE h.branch = 'MR' AND c.status = 'available' AND NOT EXISTS (SELECT 1 FROM holdings o WHERE o.record = h.record AND o.id <> h.id)
        AND NOT EXISTS (SELECT 1 FROM copies o WHERE o.holding = h.id AND o.status <> 'available')
      GROUP BY h.id ORDER BY h.id`,
  );
}

const codesOf = (x: { codes: string }) => JSON.parse(x.codes) as string[];

async function withdrawAll(codes: string[], lastCopy: string): Promise<number> {
  const { body } = await cataloguer!<{ id: number }>('POST', '/withdrawal-lists', {
    ...{ name: `Union ${codes[0]} ${lastCopy}`, branch: 'MR', reason: 'worn' },
  });
  const path = `/withdrawal-lists/${body.id}`;
  await cataloguer!('POST', `${path}/scans`, { codes });
  const { verdicts } = (await cataloguer!<WithdrawalList>('GET', path)).body;
  const copies = verdicts.filter((v) => v.verdict !== 'stop').map((v) => v.candidate!.copyId);
  expect(copies).toHaveLength(codes.length);
  const done = await head!<{ entry: number }>('POST', `${path}/withdraw`, { copies, lastCopy });
  expect(done.status).toBe(200);
  return done.body.entry;
}

function read(bytes: Buffer): MarcRecord[] {
  const reader = recordReader('iso2709');
  return [...reader.push(bytes), ...reader.end()].flatMap((r) => (r.record ? [r.record] : []));
}

test('the union catalogue is told of records deleted and holdings removed, once; what comes back after that is told too', async () => {
  expect(await open()).toMatchObject({ holdings: 0, records: 0, back: 0 });
  const some = (await titles()).filter((x) => codesOf(x).length === 1);
  const [gone, kept] = [some[0]!, some[1]!];
  const goneEntry = await withdrawAll(codesOf(gone), 'delete');
  await withdrawAll(codesOf(kept), 'suppress');

  const told = await open();
  expect(told.rows.map((r) => [r.record, r.holding, r.what, r.copies])).toEqual([
    [gone.record, gone.holding, 'record', 1],
    [kept.record, kept.holding, 'holding', 1],
  ]);
  expect(told).toMatchObject({ holdings: 2, records: 1, back: 0, next: null });
  // The same by an independent count.
  const [counted] = await aside().rows<{ n: number; gone: number }>(
    `SELECT COUNT(DISTINCT json_extract(value, '$.copy.holding')) AS n, SUM(record NOT IN (SELECT id FROM records)) AS gone FROM withdrawn WHERE gone = 0
        AND json_extract(value, '$.copy.holding') NOT IN (SELECT id FROM holdings)`,
  );
  expect(counted).toEqual({ n: 2, gone: 1 });

  // Undone before anybody was told: nothing to tell.
  const early = await head!<{ entry: number }>('POST', `/daybook/${goneEntry}/undo`);
  expect(await open()).toMatchObject({ holdings: 1, records: 0, back: 0 });
  const redone = (await head!<{ entry: number }>('POST', `/daybook/${early.body.entry}/undo`)).body.entry;
  expect(await open()).toMatchObject({ holdings: 2, records: 1 });

  expect((await cataloguer!('POST', '/union-notices', {})).status).toBe(403);
  const other = await head!<{ detail: string }>('POST', '/union-notices', { holdings: 1 });
  expect([other.status, other.body.detail]).toEqual([422, expect.stringContaining('Look at the list again')]);
  const notice = await head!<{ id: number; entry: number; sentence: string }>('POST', '/union-notices', {
    holdings: 2,
  });
  expect(notice.body.sentence).toBe('Told the union catalogue of 1 record deleted, 2 holdings removed');
  expect(await open()).toMatchObject({ rows: [], holdings: 0, records: 0, back: 0 });
  expect((await head!('POST', '/union-notices', {})).status).toBe(422);

  const bytes = await fileOf(notice.body.id, 'iso2709');
  const records = read(bytes);
  expect(records.map((r) => [r.leader[5], r.leader[6] === 'x' || r.leader[6] === 'v'])).toEqual([
    ['d', false],
    ['d', true],
    ['d', true],
  ]);
  const inPerl = marcRecordReads(bytes);
  expect(inPerl.map((r) => r.status)).toEqual(['d', 'd', 'd']);
  expect(inPerl[1]!.barcode).toBe(codesOf(gone)[0]);
  expect(inPerl[2]!.barcode).toBe(codesOf(kept)[0]);
  const xml = (await fileOf(notice.body.id, 'marcxml')).toString('utf8');
  expect(xml.match(/<leader>.....d/g)).toHaveLength(3);

  // After telling, undoing says so, and what is back is to be told.
  const review = await head!<Review>('POST', `/daybook/${redone}/undo/review`);
  expect(review.body.consequences.join(' ')).toContain(
    'The union catalogue was told that 1 copy of these had gone.',
  );
  await head!('POST', `/daybook/${redone}/undo`);
  expect(await open()).toMatchObject({
    rows: [{ record: gone.record, what: 'back' }],
    ...{ holdings: 0, records: 0, back: 1 },
  });
  // The file of the notice is what was told then, though one of its records is back.
  expect(await fileOf(notice.body.id, 'iso2709')).toEqual(bytes);
  const back = await head!<{ id: number; entry: number }>('POST', '/union-notices', {});
  const file = read(await fileOf(back.body.id, 'iso2709'));
  expect(file.map((r) => r.leader[5])).toEqual(['n', 'n']);
  expect(await open()).toMatchObject({ holdings: 0, back: 0 });

  // A notice that was not sent is undone: all of it is to be told again.
  await head!('POST', `/daybook/${back.body.entry}/undo`);
  expect(await open()).toMatchObject({ holdings: 0, back: 1 });
  expect((await assistant!('GET', '/union-notices/open')).status).toBe(200);
  const all = await cataloguer!<{ id: number }[]>('GET', '/union-notices');
  expect(all.body.map((n) => n.id)).toEqual([notice.body.id]);
});

test('the loans desk is told of copies that went, and of those that came back', async () => {
  const some = (await titles()).filter((x) => codesOf(x).length === 1);
  const [code] = codesOf(some[5]!);
  const stateOf = async () => (await t.running.services.loans.ask([code!], { anew: true })).of(code!).state;
  expect(await stateOf()).toBe('available');
  const entry = await withdrawAll([code!], 'delete');
  await t.running.services.background.idle();
  // Circulation status 01 (other): the desk lends it no more.
  expect(await stateOf()).toBe('not known');
  expect((await open()).loansDesk).toEqual({ waiting: 0, refused: 0 });
  await head!('POST', `/daybook/${entry}/undo`);
  await t.running.services.background.idle();
  expect(await stateOf()).toBe('available');
});

/** What MARC::Record reads of a file: record status, and the barcode of a holding (876 $p). */
function marcRecordReads(bytes: Buffer): { status: string; barcode: string }[] {
  const folder = mkdtempSync(join(tmpdir(), 'osier-union-'));
  const file = join(folder, 'notice.mrc');
  writeFileSync(file, bytes);
  try {
    const out = execFileSync('perl', [
      '-e',
      `use MARC::Batch; my $b = MARC::Batch->new('USMARC', $ARGV[0]); $b->strict_on;
       while (my $r = $b->next) { die join(';', $r->warnings) if $r->warnings; my $f = $r->field('876'); print substr($r->leader, 5, 1), "\\t", ($f ? $f->subfield('p') : ''), "\\n"; }`,
      file,
    ]).toString('utf8');
    const dumped = execFileSync('yaz-marcdump', ['-n', file]).toString('utf8');
    expect(dumped).not.toMatch(/Invalid|error/i);
    return out
      .trim()
      .split('\n')
      .map((line) => line.split('\t'))
      .map(([status = '', barcode = '']) => ({ status, barcode }));
  } finally {
    rmSync(folder, { recursive: true });
  }
}
