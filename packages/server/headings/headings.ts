import type { HeadingDetail, HeadingRow, LookAlikeGroup, Review, ReviewRow } from '@osier/contract';
import { briefOf } from '@osier/core/access';
import { counted, type Versioned } from '@osier/core/changes';
import type { Change, StoredObject } from '@osier/core/kinds';
import {
  distinctChange,
  formText,
  headingIdentity,
  headingText,
  identityOf,
  lookAlikeGroups,
  lookAlikes,
  mergePlan,
  NotMergeable,
  seeFroms,
  type Heading,
  type MergePlan,
} from '@osier/core/headings';
import type { MarcRecord } from '@osier/core/marc';
import { foldedWords } from '@osier/core/text';
import { newHeadings } from '../catalogue/records';
import { quoted } from '../daybook/sentences';
import { notFound, wrong } from '../http/problem';
import { reviewPage } from '../http/review-page';
import type { Services } from '../services';
import { commitPlan } from '../store/commit';
import { HEADING_KEY_KIND } from '../store/index-records';
import type { Store } from '../store/store';

const USES = `(SELECT COUNT(*) FROM record_keys k WHERE k.kind = ${HEADING_KEY_KIND} AND k.key = h.key)`;
const COLUMNS = `h.id, h.text, h.kind, h.merged_into AS mergedInto, ${USES} AS records`;

/** Headings in alphabetical order whose text has all these words. */
export async function listHeadings(
  { store }: Services,
  q: string,
  kind: string | undefined,
  after: number,
): Promise<{ rows: HeadingRow[]; next: number | null }> {
  const words = foldedWords(q).slice(0, 6);
  const params: Record<string, unknown> = { kind, after };
  const conditions = ['h.merged_into IS NULL', ...(kind ? ['h.kind = :kind'] : [])];
  words.forEach((w, i) => {
    params[`w${i}`] = `%${w.toUpperCase()}%`;
    conditions.push(`h.key LIKE :w${i}`);
  });
  const rows = await store.rows<HeadingRow>(
    `SELECT ${COLUMNS} FROM headings h WHERE ${conditions.join(' AND ')} ORDER BY h.text COLLATE NOCASE, h.id LIMIT 101 OFFSET :after`,
    params,
  );
  return { rows: rows.slice(0, 100), next: rows.length > 100 ? after + 100 : null };
}

interface Grouped {
  readonly stamp: string;
  readonly groups: ReturnType<typeof lookAlikeGroups>;
  readonly byId: ReadonlyMap<number, Heading>;
}
/** The groups of a store as they were last worked out; good as long as no heading and no noted pair has changed. */
const grouped = new WeakMap<Store, Grouped>();

async function lookAlikesNow(store: Store): Promise<Grouped> {
  const stamp = JSON.stringify(
    await store.row(
      'SELECT COUNT(*) AS n, SUM(version) AS versions, MAX(id) AS last, (SELECT COUNT(*) || MAX(id) FROM distinct_pairs) AS pairs FROM headings',
    ),
  );
  const known = grouped.get(store);
  if (known?.stamp === stamp) return known;
  const headings = await store.select('heading', "kind = 'personal' AND merged_into IS NULL");
  const apart = await store.rows<{ a: number; b: number }>('SELECT a, b FROM distinct_pairs');
  const pairs = new Set(apart.map((p) => `${p.a} ${p.b}`));
  const numbered = headings.map((h) => ({ id: h.id, heading: h.value }));
  const groups = lookAlikeGroups(lookAlikes(numbered, (a, b) => pairs.has(`${a} ${b}`)));
  const fresh = { stamp, groups, byId: new Map(headings.map((h) => [h.id, h.value])) };
  grouped.set(store, fresh);
  return fresh;
}

/** How many groups of names look alike. */
export const lookAlikeCount = async ({ store }: Services): Promise<number> =>
  (await lookAlikesNow(store)).groups.length;

/** Groups of personal headings that look alike, surest first. */
export async function lookAlikeList({ store }: Services): Promise<LookAlikeGroup[]> {
  const { groups, byId } = await lookAlikesNow(store);
  const ids = groups.flatMap((g) => g.headings);
  if (ids.length === 0) return [];
  const rows = new Map(
    (await store.rows<HeadingRow>(`SELECT ${COLUMNS} FROM headings h WHERE h.id IN (:ids)`, { ids })).map(
      (r) => [r.id, r],
    ),
  );
  const titles = await store.rows<{ heading: number; title: string }>(
    `SELECT h.id AS heading, r.title FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key JOIN records r ON r.id = k.record WHERE h.id IN (:ids) ORDER BY r.id`,
    { ids },
  );
  return groups.map((g) => ({
    headings: g.headings.map((id) => ({
      ...rows.get(id)!,
      seeFrom: seeFroms(byId.get(id)!).map(formText),
      titles: titles
        .filter((t) => t.heading === id)
        .slice(0, 4)
        .map((t) => t.title),
    })),
    pairs: g.pairs,
  }));
}

export async function headingDetail({ store }: Services, id: number): Promise<HeadingDetail> {
  const heading = await store.read('heading', id);
  const row = await store.row<HeadingRow>(`SELECT ${COLUMNS} FROM headings h WHERE h.id = :id`, { id });
  if (!heading || !row) throw notFound(`Heading ${id}`);
  const usedBy = await store.rows<{ id: number; title: string; year: string }>(
    `SELECT r.id, r.title, r.year FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key JOIN records r ON r.id = k.record WHERE h.id = :id ORDER BY r.sort LIMIT 200`,
    { id },
  );
  const mergedFrom = await store.rows<{ id: number; text: string }>(
    'SELECT id, text FROM headings WHERE merged_into = :id ORDER BY id',
    { id },
  );
  return {
    ...row,
    version: heading.version,
    marc: heading.value.marc,
    seeFrom: seeFroms(heading.value).map(formText),
    mergedFrom,
    usedBy,
  };
}

async function plan(
  store: Store,
  keptId: number,
  lostIds: readonly number[],
): Promise<{
  kept: StoredObject<'heading'>;
  lost: StoredObject<'heading'>[];
  records: StoredObject<'record'>[];
  plan: MergePlan;
}> {
  if (lostIds.includes(keptId)) throw wrong('kept', 'The kept form cannot be merged into itself.');
  const [kept] = await store.readMany('heading', [keptId]);
  const lost = await store.readMany('heading', lostIds);
  if (!kept || lost.length !== new Set(lostIds).size) throw notFound('One of these headings');
  const odd = [kept, ...lost].find((h) => h.value.mergedInto !== null);
  if (odd)
    throw wrong(
      'lost',
      `${quoted(headingText(odd.value))} was merged into heading ${odd.value.mergedInto} already.`,
    );
  const mixed = lost.find((l) => l.value.kind !== kept.value.kind);
  if (mixed)
    throw wrong(
      'lost',
      `${quoted(headingText(mixed.value))} is a ${mixed.value.kind} heading, the kept form is ${kept.value.kind}.`,
    );
  const rows = await store.rows<{ record: number }>(
    `SELECT k.record FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key = h.key WHERE h.id IN (:lostIds)
     UNION SELECT k.record FROM headings h JOIN record_keys k ON k.kind = ${HEADING_KEY_KIND} AND k.key > h.key || '$' AND k.key < h.key || '%'
       WHERE h.id IN (:lostIds) AND h.kind IN ('topic', 'place')`,
    { lostIds },
  );
  const records = await store.readMany(
    'record',
    rows.map((r) => r.record),
  );
  const merge = merged(kept, lost, records);
  const marcs = merge.records.flatMap((c) => c.after ?? []);
  // A subject that carries its subdivisions along may be a form that no heading knows yet.
  const made = (await newHeadings(store, marcs)).filter((c) => !isKnown(merge, c));
  return { kept, lost, records, plan: { ...merge, changes: [...merge.changes, ...made] } };
}

function merged(
  kept: StoredObject<'heading'>,
  lost: StoredObject<'heading'>[],
  records: StoredObject<'record'>[],
) {
  try {
    return mergePlan(kept, lost, records);
  } catch (error) {
    if (error instanceof NotMergeable) throw wrong('lost', error.message);
    throw error;
  }
}

/** Whether a heading that would be made is one that the merge has already. */
function isKnown(merge: MergePlan, { after }: Change<'heading'>): boolean {
  if (after === null) return false;
  const key = headingIdentity(identityOf(after));
  return merge.headings.some((c) => c.after !== null && headingIdentity(identityOf(c.after)) === key);
}

/** What a merge would change, a page of its records from row `from` on. */
export async function reviewMerge(
  { store }: Services,
  keptId: number,
  lostIds: readonly number[],
  from = 0,
): Promise<Review> {
  const { kept, lost, plan: merge } = await plan(store, keptId, lostIds);
  const notes = new Map<number, string>();
  for (const n of merge.notes)
    notes.set(n.record, [notes.get(n.record), n.message].filter(Boolean).join(' '));
  const page = reviewPage<ReviewRow>(from);
  const count = merge.records.length;
  for (const { id, before, after } of merge.records) {
    const exception = notes.get(id) ?? null;
    page.offer(exception !== null, () => {
      const brief = briefOf(before!);
      return {
        id,
        label: brief.title,
        detail: [brief.author, brief.year].filter(Boolean).join(' · '),
        exception,
        before: { marc: before! },
        after: { marc: after! },
        canLeaveOut: false,
      };
    });
  }
  return {
    sentence: `${counted(count, 'record')} will carry ${quoted(headingText(kept.value))}.`,
    verb: `Merge ${counted(lost.length + 1, 'heading')} into 1`,
    count: lost.length,
    consequences: lost.map(
      (l) => `${quoted(headingText(l.value))} becomes a see-from; its number ${l.id} leads to ${kept.id}.`,
    ),
    ...page.take(),
  };
}

/** Merges headings into one. */
export const merge = (
  { store }: Services,
  person: number,
  keptId: number,
  lostIds: readonly number[],
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    const { kept, lost, plan: merged } = await plan(s, keptId, lostIds);
    const records = merged.records.length;
    const sentence = `Merged ${counted(lost.length + 1, 'heading')} into ${quoted(headingText(kept.value))}: ${counted(records, 'record')} changed`;
    return { act: 'merge', sentence, changes: merged.changes };
  });

/** Remembers that two headings are two people. */
export const keepApart = (
  { store }: Services,
  person: number,
  a: number,
  b: number,
): Promise<{ entry: number; sentence: string }> =>
  commitPlan(store, person, async (s) => {
    if (a === b) throw wrong('b', 'A heading cannot be kept apart from itself. Choose two headings.');
    const [x, y] = [await s.read('heading', a), await s.read('heading', b)];
    if (!x || !y) throw notFound('One of these headings');
    const merged = [x, y].find((h) => h.value.mergedInto !== null);
    if (merged)
      throw wrong(
        'b',
        `${quoted(headingText(merged.value))} was merged into heading ${merged.value.mergedInto}.`,
      );
    const [low, high] = [Math.min(a, b), Math.max(a, b)];
    const [known] = await s.select('distinct', 'a = :low AND b = :high', { low, high });
    if (known) throw wrong('b', 'It is noted already that these are two people.');
    const sentence = `Noted that ${quoted(headingText(x.value))} and ${quoted(headingText(y.value))} are two people`;
    return { act: 'keep-apart', sentence, changes: [distinctChange(await s.nextIds('distinct', 1), a, b)] };
  });
