import type { IncomingBody, IncomingDetail, IncomingPage, IncomingRow, KeptRepair } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { update } from '@osier/core/changes';
import type { Finding } from '@osier/core/checks';
import {
  rulesWith,
  withFields,
  type Incoming,
  type IncomingFields,
  type IncomingRecord,
} from '@osier/core/deliveries';
import type { ProposedCopy } from '@osier/core/holdings';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import {
  describe,
  likeness,
  mergeFields,
  OUTCOMES,
  replaceRecord,
  type Match,
  type Outcome,
} from '@osier/core/matching';
import { marcOf } from '../catalogue/records';
import { quoted } from '../daybook/sentences';
import { notFound, wrong } from '../http/problem';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import type { Store } from '../store/store';
import { asChanged, checkedCopies, copiesAfter } from './copies';
import { readIncoming } from './incoming-records';
import { keptJson, keptValue } from '../store/kept-json';
import { copyWork, settingsFor, type CopyWork } from './settings';

interface IncomingColumns {
  id: number;
  version: number;
  value: string;
  seq: number;
  title: string;
  author: string;
  isbn: string;
  year: string;
  decision: Outcome;
  copies: number;
  copy_problems: number;
  note: string;
  state: IncomingRow['state'];
  record: number | null;
  errors: number;
  warnings: number;
  advice: number;
  matches: string;
  repeats: number | null;
  repairs: string;
  recipe: string | null;
}
const FACETS: Record<string, string> = {
  waiting: "i.state = 'waiting'",
  accepted: "i.state = 'accepted'",
  skipped: "i.state = 'skipped'",
  ...Object.fromEntries(OUTCOMES.map((o) => [o, `i.state = 'waiting' AND i.decision = '${o}'`])),
  held: "r.matches <> '[]'",
  twice: 'r.repeats IS NOT NULL',
  copies_yes: 'i.copies > 0',
  copies_no: 'i.copies = 0',
  problem: "i.state = 'waiting' AND (i.copy_problems > 0 OR f.errors > 0)",
  ready:
    "i.state = 'waiting' AND i.decision IN ('add', 'replace', 'merge', 'copies') AND i.copy_problems = 0",
  noted: "i.note <> ''",
  errors: 'f.errors > 0',
  warnings: 'f.warnings > 0',
  repaired: "r.repairs <> '[]'",
};
/** Records that wait and in which a check found something. */
const HAS_RULE =
  "i.state = 'waiting' AND EXISTS (SELECT 1 FROM json_each(f.findings) n WHERE json_extract(n.value, '$.rule') = :rule)";
/** An incoming record (`i`), its fields (`f`), and what was found when it was read (`r`). */
export const TABLES =
  'incoming i JOIN incoming_fields f ON f.id = i.id JOIN incoming_read r ON r.incoming = i.id';
const FROM = `FROM ${TABLES} WHERE i.delivery = :id`;

const COLUMNS = `i.*, f.title, f.author, f.isbn, f.year, f.errors, f.warnings, f.advice, json_extract(f.value, '$.recipe') AS recipe,
  r.matches, r.repeats, r.repairs`;

const rowOf = (c: IncomingColumns): IncomingRow => {
  const { chosen, target } = keptValue('incoming', c.value);
  return {
    id: c.id,
    version: c.version,
    seq: c.seq,
    title: c.title,
    author: c.author,
    isbn: c.isbn,
    year: c.year,
    decision: c.decision,
    chosen,
    copies: c.copies,
    copyProblems: c.copy_problems,
    note: c.note,
    state: c.state,
    record: c.record,
    errors: c.errors,
    warnings: c.warnings,
    advice: c.advice,
    target,
    recipe: c.recipe,
    matches: keptJson<Match[]>(c.matches),
    repeats: c.repeats,
    repairs: keptJson<unknown[]>(c.repairs).length,
  };
};

/** What comes after the exceptions: a record that waits, is decided, and has nothing wrong. */
const EXCEPTION =
  "CASE WHEN i.state = 'waiting' AND (i.decision = 'ask' OR i.copy_problems > 0 OR f.errors > 0) THEN 0 ELSE 1 END";
const FAR = 10_000_000;

/** The condition of a facet on incoming records (`i`) and what was read of them (`r`); `:rule` is its parameter. */
export function facetCondition(facet: string | undefined): { condition: string; rule: string | undefined } {
  const rule = /^rule:([a-z0-9-]+)$/.exec(facet ?? '')?.[1];
  const own = facet && Object.hasOwn(FACETS, facet) ? FACETS[facet] : undefined;
  const condition = rule === undefined ? (facet ? own : '1') : HAS_RULE;
  if (!condition) throw wrong('facet', `There is no facet “${facet}”.`);
  return { condition, rule };
}

/** A page of a delivery's records, exceptions first, else in file order, with how many fall under each facet. */
export async function listIncoming(
  { store }: Services,
  id: number,
  facet: string | undefined,
  after: number,
  limit = 200,
): Promise<IncomingPage> {
  const { condition, rule } = facetCondition(facet);
  // In a list of what waits, what a person must look at comes first.
  const first = !facet || facet === 'waiting' ? EXCEPTION : '0';
  const rows = await store.rows<IncomingColumns & { place: number }>(
    `WITH page AS (SELECT i.id AS one, (${first}) * ${FAR} + i.seq AS place ${FROM} AND ${condition} AND place > :after ORDER BY place LIMIT ${limit + 1})
     SELECT ${COLUMNS}, page.place FROM page CROSS JOIN ${TABLES} WHERE i.id = page.one ORDER BY page.place`,
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
    next: rows.length > limit ? rows[limit - 1]!.place : null,
    total:
      (Object.hasOwn(facets, facet ?? 'all') ? facets[facet ?? 'all'] : undefined) ??
      (await store.row<{ n: number }>(`SELECT COUNT(*) AS n ${FROM} AND ${condition}`, { id, rule }))!.n,
    facets,
  };
}

export async function incomingDetail(
  { store }: Services,
  id: number,
  incoming: number,
): Promise<IncomingDetail> {
  const c = await store.row<IncomingColumns & { fields: string; findings: string; original: string }>(
    `SELECT ${COLUMNS}, f.value AS fields, f.findings, r.original ${FROM} AND i.id = :incoming`,
    { id, incoming },
  );
  if (!c) throw notFound(`Record ${incoming} of this delivery`);
  const row = rowOf(c);
  const { marc } = keptValue('fields', c.fields);
  const delivery = (await store.read('delivery', id))!;
  const ids = [...new Set([...row.matches.map((m) => m.record), ...(row.target ? [row.target] : [])])];
  const held = await store.readMany('record', ids);
  const copies = await store.rows<{ record: number; n: number }>(
    'SELECT h.record, COUNT(c.id) AS n FROM holdings h JOIN copies c ON c.holding = h.id WHERE h.record IN (:ids) GROUP BY 1',
    { ids },
  );
  const description = describe(marc);
  const target = held.find((h) => h.id === row.target);
  const house = rulesWith((await store.house()).value, settingsFor(delivery.value));
  return {
    ...row,
    marc,
    original: keptJson<MarcRecord>(c.original),
    findings: keptJson<Finding[]>(c.findings),
    repairList: keptJson<KeptRepair[]>(c.repairs),
    proposedCopies: [...keptValue('incoming', c.value).copies],
    held: ids.flatMap((of) => {
      const h = held.find((x) => x.id === of);
      return h
        ? [
            {
              id: h.id,
              marc: h.value,
              likeness: likeness(description, describe(h.value)),
              copies: copies.find((x) => x.record === of)?.n ?? 0,
            },
          ]
        : [];
    }),
    becomes: target ? becomes(row.decision, target.value, marc, house) : null,
  };
}

function becomes(decision: Outcome, held: MarcRecord, incoming: MarcRecord, house: HouseRules) {
  if (decision === 'replace') return replaceRecord(held, incoming, house);
  return decision === 'merge' ? mergeFields(held, incoming, house) : null;
}

/** Saves a waiting record as a person corrected it: its fields, its copies, or a note. */
export const changeIncoming = (
  { store }: Services,
  person: number,
  id: number,
  incoming: number,
  body: IncomingBody,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, (s) => planCorrection(s, id, incoming, body));

async function planCorrection(
  store: Store,
  id: number,
  incoming: number,
  { version, marc: given, copies, note }: IncomingBody,
) {
  const marc = given && marcOf(given);
  const held = await readIncoming(store, id, incoming);
  if (!held) throw notFound(`Record ${incoming} of this delivery`);
  if (held.value.state !== 'waiting') throw wrong('incoming', 'This record is no longer waiting.');
  const delivery = (await store.read('delivery', id))!;
  const work = await copyWork(store, settingsFor(delivery.value));
  const now = held.fields.value;
  const next: Incoming = {
    ...held.value,
    ...(note !== undefined && { note: note.trim() }),
    copies: await copiesOf(store, work, held, marc, copies),
  };
  const row = { ...held, version };
  const changes = marc
    ? withFields(row, { marc, recipe: now.recipe ?? 'by hand' }, next)
    : [update('incoming', row, next)];
  const title = quoted(briefOf(marc ?? now.marc).title);
  const sentence = marc
    ? `Corrected the incoming record ${title}`
    : copies
      ? `Changed the copies of the incoming record ${title}`
      : `Wrote a note on the incoming record ${title}`;
  return { act: 'correct', sentence, changes };
}

/** Copies given by hand, or read anew from changed fields; each with what is wrong with it. */
async function copiesOf(
  store: Store,
  work: CopyWork,
  { value, fields }: IncomingRecord,
  marc: MarcRecord | undefined,
  given: IncomingBody['copies'],
): Promise<readonly ProposedCopy[]> {
  if (given) {
    return (await checkedCopies(store, work, [{ seq: value.seq, copies: asChanged(given, work) }]))[0]!;
  }
  if (!marc) return value.copies;
  const { copies, anew } = copiesAfter(fields.value.marc, marc, value.copies, work);
  return anew ? (await checkedCopies(store, work, [{ seq: value.seq, copies }]))[0]! : copies;
}
