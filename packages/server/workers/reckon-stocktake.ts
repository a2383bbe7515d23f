import {
  CodeSense,
  filedAs,
  reckon,
  stretchTest,
  type ReckonedCopy,
  type Spine,
} from '@osier/core/stocktake';
import { createHash } from 'node:crypto';
import { keptJson } from '../store/kept-json';
import { findingChanges } from './finding-changes';
import type { ReckonOrder, Reckoned } from '../stocktake/reckon-order';

/**
 * A copy as it comes: number, barcode, status, last seen, branch, location, type, key of its place, author, title, call number, record, outcome,
 * when it was scanned and when the loans desk was heard.
 */
type Row = readonly [
  ...[id: number, barcode: string, status: string, lastSeen: string],
  ...[branch: string, location: string, type: string, shelfKey: string],
  ...[author: string, title: string, callNumber: string, record: number, outcome: number | null],
  ...[scanned: string, heard: string],
];

/** Spines in one piece of a picture. */
const PART = 500;

/** Reckons a stocktake from what is kept of it. */
export function reckonStocktake({ plan, copies, runs, digests, findings }: ReckonOrder): Reckoned {
  const rows = copies.flatMap((text) => keptJson<Row[]>(text));
  const outside = stretchTest(plan.stretch, plan.prefixOrder);
  const places = rows.map(([, , , , branch, location, type, shelfKey, , , , , outcome]) =>
    outcome === null ? outside({ branch, location, type, shelfKey }) : null,
  );
  const branchOf = new Map(rows.flatMap((row, i) => (places[i] === null ? [[row[5], row[4]] as const] : [])));
  const locations = [...branchOf.keys()].sort();
  const homes = locations.map((location) => ({
    ...{ branch: branchOf.get(location)!, location },
    order: plan.orders[location] ?? ('call' as const),
  }));
  const statuses = new Set(plan.statuses);
  const name = (of: ReckonOrder['plan']['branches'], code: string) =>
    of.find((x) => x.code === code)?.name ?? code;
  const made = reckon(
    {
      homes,
      copies: rows.map((row, i): ReckonedCopy => {
        const [
          id,
          barcode,
          status,
          lastSeen,
          branch,
          location,
          type,
          call,
          author,
          title,
          callNumber,
          record,
          outcome,
          scanned,
          heard,
        ] = row;
        return {
          ...{ id, barcode, status, lastSeen, branch, location, type, call, callNumber, record, outcome },
          ...{ scanned, heard },
          home:
            outcome !== null || (places[i] === null && status !== 'withdrawn')
              ? locations.indexOf(location)
              : -1,
          outside: places[i] ?? 'location',
          author: filedAs(author),
          title: filedAs(title),
          name: title,
        };
      }),
      runs: runs.map((run) => ({ ...run, codes: keptJson<string[]>(run.codes) })),
    },
    {
      ...{ seenSince: plan.seenSince, skipRunMin: plan.skipRun, codes: CodeSense.ofRules(plan.barcodes) },
      isExpected: (status) => statuses.has(status),
    },
    {
      branchName: (code) => name(plan.branches, code),
      locationName: (code) => name(plan.locations, code),
    },
  );
  const known = new Map(digests.map((d) => [`${d.run} ${d.part}`, d.digest]));
  const pieces = made.spines.flatMap(({ run, spines }) =>
    Array.from({ length: Math.ceil(spines.length / PART) }, (_, part) =>
      pieceOf(run, part, spines.slice(part * PART, (part + 1) * PART)),
    ),
  );
  return {
    changed: made.changed,
    ...findingChanges(findings, made.findings),
    parts: made.spines.map(({ run, spines }) => [run, Math.ceil(spines.length / PART)]),
    spines: pieces.filter((p) => known.get(`${p.run} ${p.part}`) !== p.digest),
  };
}

function pieceOf(run: number, part: number, spines: readonly Spine[]): Reckoned['spines'][number] {
  const states: Record<string, number> = {};
  for (const { state, jumped } of spines) {
    states[state] = (states[state] ?? 0) + 1;
    if (jumped) states.jumped = (states.jumped ?? 0) + jumped;
  }
  const text = JSON.stringify(spines);
  const digest = createHash('sha256').update(text).digest('base64').slice(0, 16);
  return { run, part, digest, states: JSON.stringify(states), spines: text };
}
