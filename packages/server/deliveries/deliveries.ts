import type {
  DeliveryRow,
  IncomingDetail,
  IncomingPage,
  IncomingRow,
  KeptRepair,
  RecordBody,
} from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted, creation, update } from '@osier/core/changes';
import type { Finding } from '@osier/core/checks';
import type { Delivery, Incoming } from '@osier/core/deliveries';
import { recogniseFormat, type MarcRecord } from '@osier/core/marc';
import type { Decision, Match } from '@osier/core/matching';
import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { quoted } from '../daybook/sentences';
import { notFound, ProblemError, wrong } from '../http/problem';
import type { Services } from '../services';
import { commit } from '../store/commit';
import { deliveryPath } from './read-delivery';

const LARGEST = 600 * 1024 * 1024;

/** Takes a file in: looks whether it is MARC, keeps it, and starts reading it. A file that is not MARC leaves nothing. */
export async function takeIn(
  { store, settings, jobs }: Services,
  person: number,
  name: string,
  body: Readable,
): Promise<{ delivery: number; job: number }> {
  const temporary = join(settings.data, 'deliveries', `arriving-${randomUUID()}`);
  await mkdir(dirname(temporary), { recursive: true });
  try {
    const { head, bytes, sha256 } = await keepFile(body, temporary);
    const recognised = recogniseFormat(head);
    if ('problem' in recognised)
      throw new ProblemError(415, `${quoted(name)} was not taken in. ${recognised.problem}`);
    await rename(temporary, deliveryPath(settings.data, sha256));
    const id = await store.nextIds('delivery', 1);
    const value: Delivery = {
      name,
      format: recognised.format,
      bytes,
      sha256,
      arrived: new Date().toISOString(),
    };
    await commit(store, {
      act: 'deliver',
      person,
      sentence: `Took in the delivery ${quoted(name)}`,
      changes: [creation('delivery', id, value)],
      also: (tx) =>
        store.run(
          "INSERT INTO readings (delivery, state, unreadable, repaired) VALUES (:id, 'reading', 0, 0)",
          { id },
          tx,
        ),
    });
    const job = await jobs.begin('read-delivery', `Reading ${name}`, person, { delivery: id });
    return { delivery: id, job: job.id };
  } finally {
    await rm(temporary, { force: true });
  }
}

async function keepFile(
  body: Readable,
  path: string,
): Promise<{ head: Uint8Array; bytes: number; sha256: string }> {
  const file = createWriteStream(path);
  const hash = createHash('sha256');
  const head: Buffer[] = [];
  let bytes = 0;
  try {
    for await (const chunk of body as AsyncIterable<Buffer>) {
      if (bytes < 65536) head.push(chunk);
      bytes += chunk.length;
      if (bytes > LARGEST)
        throw new ProblemError(413, 'A delivery may have up to 600 MB. Split the file and try again.');
      hash.update(chunk);
      if (!file.write(chunk)) await new Promise<void>((resolve) => file.once('drain', () => resolve()));
    }
  } finally {
    file.end();
    await finished(file);
  }
  return { head: Buffer.concat(head), bytes, sha256: hash.digest('hex') };
}

interface DeliveryColumns {
  id: number;
  value: string;
  state: DeliveryRow['state'];
  problem: string | null;
  unreadable: number;
  repaired: number;
  records: number;
  waiting: number;
  accepted: number;
  skipped: number;
}
const COUNTS = `SELECT d.id, d.value, r.state, r.problem, r.unreadable, r.repaired, COUNT(i.id) AS records,
  COALESCE(SUM(i.state = 'waiting'), 0) AS waiting, COALESCE(SUM(i.state = 'accepted'), 0) AS accepted, COALESCE(SUM(i.state = 'skipped'), 0) AS skipped
  FROM deliveries d LEFT JOIN readings r ON r.delivery = d.id LEFT JOIN incoming i ON i.delivery = d.id`;

export async function listDeliveries({ store, jobs }: Services, only?: number): Promise<DeliveryRow[]> {
  const rows = await store.rows<DeliveryColumns>(
    `${COUNTS} ${only ? 'WHERE d.id = :only' : ''} GROUP BY d.id ORDER BY d.id DESC`,
    { only },
  );
  const running = jobs.running();
  return Promise.all(
    rows.map(async ({ value, ...r }) => {
      const d = JSON.parse(value) as Delivery;
      const same = await store.row<{ id: number; value: string }>(
        'SELECT id, value FROM deliveries WHERE sha256 = :sha256 AND id < :id ORDER BY id LIMIT 1',
        { sha256: d.sha256, id: r.id },
      );
      const before = same ? (JSON.parse(same.value) as Delivery) : null;
      return {
        ...r,
        name: d.name,
        format: d.format,
        bytes: d.bytes,
        arrived: d.arrived,
        job: running.find((j) => j.work.delivery === r.id)?.id ?? null,
        sameAs: same && before ? { id: same.id, name: before.name, arrived: before.arrived } : null,
      };
    }),
  );
}

interface IncomingColumns {
  id: number;
  version: number;
  value: string;
  seq: number;
  title: string;
  author: string;
  isbn: string;
  year: string;
  decision: Decision;
  state: IncomingRow['state'];
  record: number | null;
  errors: number;
  warnings: number;
  advice: number;
  findings: string;
  matches: string;
  repeats: number | null;
  repairs: string;
  original: string;
  taken: string;
}
const FACETS: Record<string, string> = {
  waiting: "i.state = 'waiting'",
  accepted: "i.state = 'accepted'",
  skipped: "i.state = 'skipped'",
  add: "i.state = 'waiting' AND i.decision = 'add'",
  replace: "i.state = 'waiting' AND i.decision = 'replace'",
  skip: "i.state = 'waiting' AND i.decision = 'skip'",
  held: "r.matches <> '[]'",
  twice: 'r.repeats IS NOT NULL',
  errors: 'i.errors > 0',
  warnings: 'i.warnings > 0',
  repaired: "r.repairs <> '[]'",
};
/** Records that wait and in which a check found something. */
const HAS_RULE =
  "i.state = 'waiting' AND EXISTS (SELECT 1 FROM json_each(i.findings) f WHERE json_extract(f.value, '$.rule') = :rule)";
const FROM = 'FROM incoming i JOIN incoming_read r ON r.incoming = i.id WHERE i.delivery = :id';

const rowOf = (c: IncomingColumns): IncomingRow => {
  const value = JSON.parse(c.value) as { target: number | null; recipe: string | null };
  return {
    id: c.id,
    version: c.version,
    seq: c.seq,
    title: c.title,
    author: c.author,
    isbn: c.isbn,
    year: c.year,
    decision: c.decision,
    state: c.state,
    record: c.record,
    errors: c.errors,
    warnings: c.warnings,
    advice: c.advice,
    target: value.target,
    recipe: value.recipe,
    matches: JSON.parse(c.matches) as Match[],
    repeats: c.repeats,
    repairs: (JSON.parse(c.repairs) as unknown[]).length,
  };
};

/** A page of a delivery's records in file order, with how many fall under each facet. */
export async function listIncoming(
  { store }: Services,
  id: number,
  facet: string | undefined,
  after: number,
  limit = 200,
): Promise<IncomingPage> {
  const rule = /^rule:([a-z0-9-]+)$/.exec(facet ?? '')?.[1];
  const condition = rule === undefined ? (facet ? FACETS[facet] : '1') : HAS_RULE;
  if (!condition) throw wrong('facet', `There is no facet “${facet}”.`);
  const rows = await store.rows<IncomingColumns>(
    `SELECT i.*, r.matches, r.repeats, r.repairs ${FROM} AND ${condition} AND i.seq > :after ORDER BY i.seq LIMIT ${limit + 1}`,
    { id, after, rule },
  );
  const sums = Object.entries(FACETS)
    .map(([name, c]) => `COALESCE(SUM(${c}), 0) AS "${name}"`)
    .join(', ');
  const facets = (await store.row<Record<string, number>>(`SELECT COUNT(*) AS "all", ${sums} ${FROM}`, {
    id,
  }))!;
  return {
    rows: rows.slice(0, limit).map(rowOf),
    next: rows.length > limit ? rows[limit - 1]!.seq : null,
    total:
      facets[facet ?? 'all'] ??
      (await store.row<{ n: number }>(`SELECT COUNT(*) AS n ${FROM} AND ${condition}`, { id, rule }))!.n,
    facets,
  };
}

export async function incomingDetail(
  { store }: Services,
  id: number,
  incoming: number,
): Promise<IncomingDetail> {
  const c = await store.row<IncomingColumns>(
    `SELECT i.*, r.matches, r.repeats, r.repairs, r.original, r.taken ${FROM} AND i.id = :incoming`,
    { id, incoming },
  );
  if (!c) throw notFound(`Record ${incoming} of this delivery`);
  const row = rowOf(c);
  const held = await store.readMany(
    'record',
    row.matches.map((m) => m.record),
  );
  const marc = (JSON.parse(c.value) as { marc: MarcRecord }).marc;
  return {
    ...row,
    marc,
    original: JSON.parse(c.original) as MarcRecord,
    findings: [
      ...takenFindings(marc, JSON.parse(c.taken) as { barcode: string; has: string }[]),
      ...(JSON.parse(c.findings) as Finding[]),
    ],
    repairList: JSON.parse(c.repairs) as KeptRepair[],
    held: held.map((h) => ({ id: h.id, marc: h.value })),
  };
}

function takenFindings(marc: MarcRecord, taken: readonly { barcode: string; has: string }[]): Finding[] {
  return taken.map(({ barcode, has }) => {
    const at = marc.fields.findIndex(
      (f) => 'subfields' in f && f.subfields.some((s) => s.code === 'p' && s.value === barcode),
    );
    const tag = marc.fields[at]?.tag ?? '852';
    return {
      rule: 'barcode-taken',
      severity: 'error',
      where: { field: at, tag, occurrence: 0 },
      message: `Barcode ${barcode} is already on ${quoted(has)}.`,
    };
  });
}

/** Saves a waiting record as a person corrected it. */
export async function changeIncoming(
  { store }: Services,
  person: number,
  id: number,
  incoming: number,
  { version, marc }: RecordBody,
): Promise<{ entry: number; sentence: string }> {
  const held = await store.read('incoming', incoming);
  if (!held || held.value.delivery !== id) throw notFound(`Record ${incoming} of this delivery`);
  if (held.value.state !== 'waiting') throw wrong('incoming', 'This record is no longer waiting.');
  const next = { ...held.value, marc: marc as MarcRecord, recipe: held.value.recipe ?? 'by hand' };
  const sentence = `Corrected the incoming record ${quoted(briefOf(next.marc).title)}`;
  return {
    sentence,
    entry: await commit(store, {
      act: 'correct',
      person,
      sentence,
      changes: [update<Incoming>('incoming', { ...held, version }, next)],
    }),
  };
}

/** Decides what is done with records of a delivery. */
export async function decide(
  { store }: Services,
  person: number,
  id: number,
  ids: readonly number[],
  decision: Decision,
  target?: number | null,
): Promise<{ entry: number }> {
  const rows = (await store.readMany('incoming', ids)).filter(
    (r) => r.value.delivery === id && r.value.state === 'waiting',
  );
  if (rows.length === 0) throw wrong('incoming', 'None of these records is still waiting.');
  const without = rows.filter((r) => decision === 'replace' && (target ?? r.value.target) === null);
  if (without.length)
    throw wrong(
      'decision',
      `${counted(without.length, 'record')} can replace nothing, because nothing in the catalogue matches.`,
    );
  const changes = rows.map((r) =>
    update('incoming', r, { ...r.value, decision, target: target ?? r.value.target }),
  );
  return {
    entry: await commit(store, {
      act: 'decide',
      person,
      sentence: `Chose “${decision}” for ${counted(rows.length, 'incoming record')}`,
      changes,
    }),
  };
}
