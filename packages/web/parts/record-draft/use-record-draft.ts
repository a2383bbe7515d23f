import { counted } from '@osier/core/changes';
import type { Finding } from '@osier/core/checks';
import {
  applyEdits,
  compareRecords,
  differs,
  field,
  placeFor,
  type Field,
  type MarcRecord,
} from '@osier/core/marc';
import { useEffect, useRef, useState } from 'react';
import { useDrafts, type Draft } from '../../shell/drafts';
import { useShell } from '../../shell/shell-store';
import type { AddedField } from '../FieldView';
import { useLiveFindings } from './live-findings';
import { partWords as wording } from '../words';

/** A record as it stands saved, and where the piece with it is. */
export interface SavedRecord {
  readonly version: number;
  readonly marc: MarcRecord;
  readonly findings: readonly Finding[];
  readonly title: string;
  readonly path: string;
}

/** A record that is edited: every change goes to a draft, which is saved as one. */
export interface RecordDraft {
  /** The record with what was changed. */
  readonly marc: MarcRecord;
  readonly draft: Draft | null;
  readonly findings: readonly Finding[];
  /** Safe fixes that wait. */
  readonly fixable: number;
  readonly adding: AddedField | null;
  readonly set: (draft: Draft | null) => void;
  readonly changeField: (at: number, field: Field | null) => void;
  readonly fix: (finding: Finding) => void;
  readonly fixAll: () => Promise<void>;
  /** Opens a field to come at its place. */
  readonly beginField: (tag: string) => void;
  readonly added: (field: Field | null) => void;
}

const NOTHING: SavedRecord = {
  version: 0,
  marc: { leader: '', fields: [] },
  findings: [],
  title: '',
  path: '',
};

/** What is kept under a key now, also what was kept a moment ago. */
export const draftNow = (key: string): Draft | null => useDrafts.getState().drafts[key] ?? null;

/** Edits a record by way of a draft that is kept in the browser under a key. */
export function useRecordDraft(key: string, saved: SavedRecord | null): RecordDraft {
  const draft = useDrafts((s) => s.drafts[key]) ?? null;
  const keep = useDrafts((s) => s.keep);
  const say = useShell((s) => s.say);
  const [adding, setAdding] = useState<AddedField | null>(null);
  const { version, marc: standing, findings, title, path } = saved ?? NOTHING;
  const live = useLiveFindings(findings, draft?.marc ?? null);
  const marc = draft?.marc ?? standing;
  const base = draft?.base ?? standing;
  const set = (next: Draft | null) => keep(key, next);
  const change = (next: MarcRecord) =>
    set(
      differs(compareRecords(base, next)) || next.leader !== base.leader
        ? { version: draft?.version ?? version, base, marc: next, title, path }
        : null,
    );
  return {
    marc,
    draft,
    findings: live.findings,
    fixable: live.findings.filter((f) => f.fix?.safe).length,
    adding,
    set,
    changeField: (at, f) =>
      change(applyEdits(marc, [f === null ? { op: 'remove', at } : { op: 'replace', at, field: f }])),
    fix: (finding) => finding.fix && change(applyEdits(marc, finding.fix.edits)),
    fixAll: async () => {
      const fixed = await live.fixAll(marc);
      if (!fixed?.corrected) return;
      change(fixed.record);
      say(wording.fixedSaveTheRecordTo(counted(fixed.corrected, 'finding')));
    },
    beginField: (tag) =>
      setAdding({
        at: placeFor(marc, tag),
        field: tag.startsWith('00') ? { tag, value: '' } : field(tag, '  ', 'a', ''),
      }),
    added: (f) => {
      if (adding && f) change(applyEdits(marc, [{ op: 'insert', at: adding.at, field: f }]));
      setAdding(null);
    },
  };
}

/** Ctrl S saves from anywhere on the page, whether capitals are locked or not. */
export function useSaveKey(save: () => void): void {
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== 'KeyS' || !event.ctrlKey) return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
