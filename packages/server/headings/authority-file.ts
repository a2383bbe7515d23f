import {
  ontoHeadings,
  type AuthorityFileBody,
  type JobState,
  type Review,
  type ReviewRow,
} from '@osier/contract';
import { counted } from '@osier/core/changes';
import { headingText, incomingAuthority, type AuthorityOutcome } from '@osier/core/headings';
import { existsSync } from 'node:fs';
import { object, string } from 'yup';
import { notFound } from '../http/problem';
import { reviewPage } from '../http/review-page';
import { beginReview, stillAsReviewed } from '../http/reviewed';
import { inChunks } from '../jobs/in-chunks';
import type { JobWork } from '../jobs/jobs';
import { chunkCursor, keptWork, leftOut } from '../jobs/kept-work';
import type { Services } from '../services';
import { authorityChanges, notesOfAuthority } from './authority-changes';
import { authorityPath, fileRows, rowsBehind, type FileRow } from './authority-rows';
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
      const notes = await notesOfAuthority(store, p);
      shown.see(p.seq, p.outcome, p.note, p.held?.id, p.held?.version, p.into?.id, p.records, notes);
      const own = p.note && p.outcome === 'left' ? `${p.note} It is left.` : p.note;
      const exception = [own, notes].filter(Boolean).join(' ') || null;
      if (p.outcome !== 'same')
        page.offer(exception !== null, () => ({
          id: p.seq,
          label: p.incoming.text || `Record ${p.seq}`,
          detail: [
            ACTS[p.outcome] +
              (p.outcome === 'replaced' && p.into ? ` by “${headingText(p.into.value)}”` : ''),
            ...(p.records ? [counted(p.records, 'record')] : []),
          ].join(' · '),
          exception,
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
        const { records, changes } = await authorityChanges(s, taken);
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
