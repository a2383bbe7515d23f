import {
  ontoHeadings,
  type AuthorityFileBody,
  type JobState,
  type Review,
  type ReviewRow,
} from '@osier/contract';
import { counted, creation, removal, update } from '@osier/core/changes';
import {
  formOfAuthority,
  formsOfMerge,
  headingText,
  incomingAuthority,
  mergedHeadings,
  type AuthorityOutcome,
  type MergeForms,
} from '@osier/core/headings';
import type { Change, StoredObject } from '@osier/core/kinds';
import { existsSync } from 'node:fs';
import { object, string } from 'yup';
import { notFound } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview, stillAsReviewed } from '../http/reviewed';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { chunkCursor, keptWork, leftOut } from '../jobs/kept-work';
import type { Services } from '../services';
import type { Store } from '../store/store';
import { authorityPath, fileRows, rowsBehind, type FileRow } from './authority-rows';
import { changedTogether, headingsFollowing } from './change-records';
import { identityText, plannedAuthorities, type PlannedAuthority } from './planned-authorities';

/** Records of a chunk. */
const AT_ONCE = 100;

const OUTCOMES: Readonly<Record<AuthorityOutcome, (n: number) => string>> = {
  new: (n) => `${counted(n, 'heading')} will be made.`,
  establishes: (n) => `${counted(n, 'heading')} that only records have will be established.`,
  updates: (n) => `${counted(n, 'authority record')} will be brought up to date.`,
  'changes-form': (n) => `${counted(n, 'heading')} will get another form, in all records that carry it.`,
  same: (n) =>
    `${counted(n, 'record')} of the file ${n === 1 ? 'is' : 'are'} here as ${n === 1 ? 'it is' : 'they are'}.`,
  replaced: (n) =>
    `${counted(n, 'heading')} will be merged into the one that replaces ${n === 1 ? 'it' : 'each'}, in all records that carry ${n === 1 ? 'it' : 'them'}.`,
  deletes: (n) => `${counted(n, 'heading')} without records will be deleted.`,
  left: (n) =>
    `${counted(n, 'record')} of the file cannot be loaded; ${n === 1 ? 'it is' : 'they are'} listed first.`,
};
const ACTS: Readonly<Record<AuthorityOutcome, string>> = {
  new: 'New heading',
  establishes: 'Established',
  updates: 'Brought up to date',
  'changes-form': 'Another form',
  same: 'Nothing to change',
  replaced: 'Replaced',
  deletes: 'Deleted',
  left: 'Left',
};

/** The path of a kept file; 404 where there is none. */
function keptPath({ settings }: Services, sha256: string): string {
  const path = authorityPath(settings.data, sha256);
  if (!existsSync(path)) throw notFound('This file of authority records');
  return path;
}

/** What taking in a file of authority records would change; a page of its records, exceptions first. */
export async function reviewAuthorityFile(
  services: Services,
  { sha256, onto }: Pick<AuthorityFileBody, 'sha256' | 'onto'>,
  from = 0,
): Promise<Review> {
  const store = services.store.aside;
  const shown = await beginReview(store);
  const next = rowsBehind(keptPath(services, sha256), AT_ONCE);
  const page = reviewPage<ReviewRow>(from);
  const seen = new Set<string>();
  const n: Record<AuthorityOutcome, number> = {
    ...{ new: 0, establishes: 0, updates: 0, 'changes-form': 0, replaced: 0, same: 0, deletes: 0, left: 0 },
  };
  let all = 0;
  for (let after = 0; ;) {
    const rows = await next(after);
    if (rows.length === 0) break;
    after = rows.at(-1)!.seq;
    for (const p of await plannedAuthorities(store, rows, seen, onto)) {
      all++;
      n[p.outcome]++;
      shown.see(p.seq, p.outcome, p.note, p.held?.id, p.held?.version, p.into?.id, p.records);
      if (p.outcome !== 'same')
        page.offer(p.note !== null, () => ({
          id: p.seq,
          label: p.incoming.text || `Record ${p.seq}`,
          detail: [
            ACTS[p.outcome] +
              (p.outcome === 'replaced' && p.into ? ` by “${headingText(p.into.value)}”` : ''),
            ...(p.records ? [counted(p.records, 'record')] : []),
          ].join(' · '),
          exception: p.note && (p.outcome === 'left' ? `${p.note} It is left.` : p.note),
          before: p.held && { marc: p.held.value.marc },
          after: p.after && { marc: p.after.marc },
          canLeaveOut: p.outcome !== 'left',
        }));
    }
  }
  const count = all - n.left - n.same;
  return {
    sentence: `${counted(count, 'authority record')} of ${all.toLocaleString('en-GB')} will be loaded.`,
    verb: 'Load',
    noun: { one: 'authority record', many: 'authority records' },
    count,
    consequences: (
      ['new', 'establishes', 'updates', 'changes-form', 'replaced', 'deletes', 'same', 'left'] as const
    ).flatMap((o) => (n[o] ? [OUTCOMES[o](n[o])] : [])),
    ...page.take(),
    token: shown.token(),
  };
}

/** Begins taking in a file of authority records. */
export async function beginAuthorityFile(
  services: Services,
  person: number,
  { sha256, name, onto, token, leaveOut }: AuthorityFileBody,
): Promise<JobState> {
  keptPath(services, sha256);
  await stillAsReviewed(services.store, token, () => reviewAuthorityFile(services, { sha256, onto }));
  const work = { sha256, name, onto, leaveOut };
  return services.jobs.begin('take-authorities', `Loading ${name}`, person, work);
}

const authorityWork = object({
  sha256: string().required(),
  name: string().required(),
  onto: ontoHeadings(),
  leaveOut: leftOut(),
});
const isDone = (p: PlannedAuthority): boolean => p.outcome !== 'left' && p.outcome !== 'same';

/** The change set of some authority records, with the records that carry a heading which gets another form. */
async function changesOf(store: Store, planned: readonly PlannedAuthority[]) {
  const made = planned.filter((p) => p.outcome === 'new');
  let next = made.length ? await store.nextIds('heading', made.length) : 0;
  const headings: Change<'heading'>[] = [];
  for (const p of planned) {
    if (p.outcome === 'new' && p.after) headings.push(creation('heading', next++, p.after));
    else if (p.outcome === 'deletes' && p.held) headings.push(removal('heading', p.held));
    else if (p.after && p.held && p.outcome !== 'replaced') headings.push(update('heading', p.held, p.after));
  }
  const renamed = planned.flatMap((p) => {
    const [kept, lost] = [
      p.after && formOfAuthority(p.after.marc),
      p.held && formOfAuthority(p.held.value.marc),
    ];
    return p.outcome === 'changes-form' && kept && lost
      ? [{ forms: { kept, lost: [lost] }, changing: [p.held!.id] }]
      : [];
  });
  const replaced = planned.flatMap((p) =>
    p.outcome === 'replaced' && p.held && p.into ? mergedInChunk(p.held, p.into, headings) : [],
  );
  const merges = [...renamed, ...replaced];
  const records = await changedTogether(store, merges);
  const { along, made: followed } = await headingsFollowing(
    store,
    merges.map((r) => r.forms),
    headings,
    records,
  );
  return { records, changes: [...records, ...headings, ...along, ...followed] };
}

/**
 * Merges a heading into the one that replaces it, as that is after what is to be done with it already; the changes of the two are put among
 * `headings`. Gives the forms that records change by.
 */
function mergedInChunk(
  held: StoredObject<'heading'>,
  into: StoredObject<'heading'>,
  headings: Change<'heading'>[],
): { readonly forms: MergeForms; readonly changing: readonly number[] } {
  const at = headings.findIndex((c) => c.id === into.id);
  const merging = { kept: { ...into, value: headings[at]?.after ?? into.value }, lost: [held] };
  for (const change of mergedHeadings(merging))
    if (change.id === into.id && at >= 0) headings[at] = { ...headings[at]!, after: change.after };
    else headings.push(change);
  return { forms: formsOfMerge(merging), changing: [held.id] };
}

/** The headings of the records up to a place: work that is taken up again knows what comes twice. */
async function seenBefore(path: string, place: number): Promise<Set<string>> {
  const seen = new Set<string>();
  if (place === 0) return seen;
  for await (const rows of fileRows(path))
    for (const { seq, marc } of rows) {
      if (seq > place) return seen;
      const heading = marc && incomingAuthority(marc).heading;
      if (heading) seen.add(identityText(heading));
    }
  return seen;
}

/** Job: takes in a file of authority records in its order, each by what the library has then. */
export const takeAuthorities =
  (services: Services): JobWork =>
  async (run) => {
    const store = services.store.aside;
    const { sha256, name, onto, leaveOut } = keptWork(authorityWork, run.work);
    const out = new Set(leaveOut);
    const next = rowsBehind(keptPath(services, sha256), AT_ONCE);
    /** The headings that came in earlier chunks: planning a chunk twice must not take it for its own repetition. */
    const seen = await seenBefore(keptPath(services, sha256), keptWork(chunkCursor, run.cursor).place);
    let last: { readonly after: number; readonly added: readonly string[] } = { after: -1, added: [] };
    const totals = await inChunks<FileRow>({ ...services, store }, run, {
      did: (t) => ({
        act: 'take-authorities',
        names: { file: name },
        counts: { headings: t.headings ?? 0, made: t.made ?? 0, records: t.records ?? 0 },
      }),
      next: async (after) => [...(await next(after))],
      placeOf: (row) => row.seq,
      plan: async (chunk, s) => {
        const first = chunk[0]!.seq;
        if (last.after !== first) for (const key of last.added) seen.add(key);
        const here = new Set(seen);
        const planned = await plannedAuthorities(s, chunk, here, onto);
        last = { after: first, added: [...here].filter((key) => !seen.has(key)) };
        const taken = planned.filter((p) => isDone(p) && !out.has(p.seq));
        const { records, changes } = await changesOf(s, taken);
        return {
          changes,
          totals: {
            headings: taken.length,
            made: taken.filter((p) => p.outcome === 'new').length,
            records: records.length,
          },
        };
      },
    });
    if (!totals.headings) return 'There was nothing to load.';
    return `Loaded ${counted(totals.headings, 'authority record')} from “${name}”: ${counted(totals.made ?? 0, 'new heading')}, ${counted(totals.records ?? 0, 'record')} changed.`;
  };
