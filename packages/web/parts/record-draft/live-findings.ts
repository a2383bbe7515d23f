import type { Finding } from '@osier/core/checks';
import {
  mapFieldOver,
  mapTransaction,
  transactionBetween,
  transactionOfEdits,
  type EditTransaction,
} from '@osier/core/editing';
import type { HouseRules } from '@osier/core/house';
import type { MarcRecord } from '@osier/core/marc';
import { useEffect, useRef, useState } from 'react';
import type { CheckAnswer, CheckOrder } from '../../workers/check-record';
import { useHouse } from '../use-house';

/** A worker that checks records; the last question is the one that counts. */
interface RecordChecker {
  ask(record: MarcRecord, house: HouseRules, fix: boolean): Promise<CheckAnswer>;
  close(): void;
}

function recordChecker(): RecordChecker {
  const worker = new Worker(new URL('../../workers/check-record.ts', import.meta.url), { type: 'module' });
  const waiting = new Map<number, (answer: CheckAnswer) => void>();
  let last = 0;
  worker.onmessage = ({ data }: MessageEvent<CheckAnswer>) => {
    waiting.get(data.n)?.(data);
    waiting.delete(data.n);
  };
  return {
    ask: (record, house, fix) =>
      new Promise((resolve) => {
        const n = ++last;
        waiting.set(n, resolve);
        worker.postMessage({ n, record, house, fix } satisfies CheckOrder);
      }),
    close: () => worker.terminate(),
  };
}

/** The findings of a record as it is edited, and its fixing; both are worked out beside the page. */
export interface LiveFindings {
  readonly findings: readonly Finding[];
  /** The transaction of a finding's fix for the record as it is now; null where what it concerns was edited since it was found. */
  readonly fixOf: (finding: Finding) => EditTransaction | null;
  /** The record with every safe fix, and how many there were; null while the rules of the house are not known. */
  readonly fixAll: (record: MarcRecord) => Promise<CheckAnswer | null>;
}

/** Findings of a record as they stand in an edited one: in their fields, wherever those are by now. */
function placed(findings: readonly Finding[], of: MarcRecord, now: MarcRecord): readonly Finding[] {
  if (of === now || findings.length === 0) return findings;
  const steps = transactionBetween(of, now);
  return findings.flatMap((f) => {
    const field = mapFieldOver(f.where.field, steps);
    return field === null ? [] : [field === f.where.field ? f : { ...f, where: { ...f.where, field } }];
  });
}

/** A fix that was found in a record, in the record as it is now: its fields are others by now, and may stand elsewhere. */
export function fixNow({ fix }: Finding, of: MarcRecord, now: MarcRecord): EditTransaction | null {
  if (!fix) return null;
  const found = transactionOfEdits(of, fix.edits);
  return of === now ? found : mapTransaction(found, transactionBetween(of, now));
}

/** Keeps findings true while a record is edited: `saved` are those of the record as it stands, `edited` is what was typed over it. */
export function useLiveFindings(
  saved: { readonly marc: MarcRecord; readonly findings: readonly Finding[] },
  edited: MarcRecord | null,
): LiveFindings {
  const house = useHouse();
  // Most records are only read: the worker is begun when one is edited.
  const checker = useRef<RecordChecker | null>(null);
  const ask = (record: MarcRecord, rules: HouseRules, fix: boolean) =>
    (checker.current ??= recordChecker()).ask(record, rules, fix);
  const [live, setLive] = useState<{ of: MarcRecord; findings: readonly Finding[] } | null>(null);
  useEffect(
    () => () => {
      checker.current?.close();
      checker.current = null;
    },
    [],
  );
  useEffect(() => {
    if (!edited || !house) return;
    let isWanted = true;
    void (checker.current ??= recordChecker()).ask(edited, house, false).then(({ findings }) => {
      if (isWanted) setLive({ of: edited, findings });
    });
    return () => {
      isWanted = false;
    };
  }, [edited, house]);
  // Until the worker has answered, what was found before stands, each in its field.
  const found = edited && live ? { marc: live.of, findings: live.findings } : saved;
  return {
    findings: edited ? placed(found.findings, found.marc, edited) : saved.findings,
    fixOf: (finding) => fixNow(finding, found.marc, edited ?? saved.marc),
    fixAll: async (record) => (house ? ask(record, house, true) : null),
  };
}
