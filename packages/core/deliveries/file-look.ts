import { briefOf } from '../access';
import { CHECKS, checkerFor, type Severity } from '../checks';
import type { HouseRules } from '../house';
import {
  recogniseFormat,
  recordReader,
  withLeftover,
  type FileFormat,
  type ReadRecord,
  type Repair,
} from '../marc';

/** What is wrong with a file, as far as it has been looked at. */
export interface FileLook {
  readonly format: FileFormat | null;
  /** Why it is no file of records, or what ended the reading, as a sentence. */
  readonly problem: string | null;
  readonly bytes: number;
  readonly records: number;
  readonly unreadable: number;
  /** Records with at least one repair. */
  readonly repaired: number;
  readonly repairs: readonly RepairKind[];
  readonly findings: readonly LookKind[];
  /** Titles of the first records. */
  readonly titles: readonly string[];
}
/** A kind of repair with how many records it was made in. */
export interface RepairKind {
  readonly code: Repair['code'];
  readonly records: number;
  /** The first of its kind: record from 1, byte offset, sentence. */
  readonly example: { readonly record: number; readonly offset: number; readonly message: string };
}
/** What one check found: in how many records, how often, with how many safe fixes. */
export interface LookKind {
  readonly rule: string;
  readonly title: string;
  readonly severity: Severity;
  readonly records: number;
  readonly findings: number;
  readonly safe: number;
  readonly example: { readonly record: number; readonly message: string };
}

const TITLES = 5;
const ORDER: readonly Severity[] = ['error', 'warning', 'advice'];

/** Looks at a file that is fed in pieces: reads every record, checks it, and counts by kind. Nothing is kept of it. */
export function fileLook(house: HouseRules): {
  push(chunk: Uint8Array): void;
  end(): void;
  look(): FileLook;
} {
  let reader: ReturnType<typeof withLeftover> | null = null;
  let format: FileFormat | null = null;
  let problem: string | null = null;
  let [bytes, records, unreadable, repaired] = [0, 0, 0, 0];
  const repairs = new Map<
    string,
    { code: Repair['code']; records: number; example: RepairKind['example'] }
  >();
  const findings = new Map<string, { -readonly [K in keyof LookKind]: LookKind[K] }>();
  const titles: string[] = [];
  const checker = checkerFor(house);
  const take = (read: ReadRecord) => {
    const record = ++records;
    if (read.repairs.length) repaired++;
    const codes = new Set<string>();
    for (const { code, offset, message } of read.repairs) {
      const known = repairs.get(code);
      if (!known) repairs.set(code, { code, records: 1, example: { record, offset, message } });
      else if (!codes.has(code)) known.records++;
      codes.add(code);
    }
    if (!read.record) {
      unreadable++;
      return;
    }
    if (titles.length < TITLES) titles.push(briefOf(read.record).title);
    const rules = new Set<string>();
    for (const { rule, severity, message, fix } of checker.check(read.record)) {
      const key = `${severity} ${rule}`;
      let kind = findings.get(key);
      if (!kind) {
        const title = CHECKS.find((c) => c.rule === rule)?.title ?? rule;
        kind = { rule, title, severity, records: 0, findings: 0, safe: 0, example: { record, message } };
        findings.set(key, kind);
      }
      kind.findings++;
      if (fix?.safe) kind.safe++;
      if (!rules.has(key)) kind.records++;
      rules.add(key);
    }
  };
  return {
    push(chunk) {
      bytes += chunk.length;
      if (problem) return;
      if (!reader) {
        const found = recogniseFormat(chunk);
        if ('problem' in found) {
          problem = found.problem;
          return;
        }
        format = found.format;
        reader = withLeftover(recordReader(format));
      }
      reader.push(chunk).forEach(take);
    },
    end() {
      if (problem) return;
      if (!reader) problem = 'The file is empty.';
      else {
        reader.end().forEach(take);
        problem = reader.problem() ?? (records === 0 ? 'No record in this file could be read.' : null);
      }
    },
    look: () => ({
      format,
      problem,
      bytes,
      records,
      unreadable,
      repaired,
      titles: [...titles],
      repairs: [...repairs.values()].sort((a, b) => b.records - a.records),
      findings: [...findings.values()]
        .map((f) => ({ ...f }))
        .sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity) || b.records - a.records),
    }),
  };
}
