import { counted } from '@osier/core/changes';
import type { Finding } from '@osier/core/checks';
import {
  edited,
  fieldToFill,
  filledFromText,
  isFieldLines,
  pastedFields,
  redone,
  transactionBetween,
  undone,
  usualField,
  withLeader,
  withOtherTag,
  withPartner,
  type Edited,
  type EditMeaning,
  type StarterField,
  type EditTransaction,
} from '@osier/core/editing';
import {
  compareRecords,
  differs,
  isControl,
  isData,
  placeFor,
  withField,
  type Field,
  type MarcRecord,
} from '@osier/core/marc';
import { useState } from 'react';
import { useDrafts, type Draft } from '../../shell/drafts';
import { useShell } from '../../shell/shell-store';
import { fieldWords } from '../field-editor/words';
import { partWords as wording } from '../words';
import { editHistoryOf, useHistories } from './edit-histories';
import { useLiveFindings } from './live-findings';

/** A field to come, and before which field of the record; `isAsked` when a starter asks for it. */
export interface AddedField {
  readonly at: number;
  readonly field: Field;
  readonly isAsked: boolean;
}

/** A record as it stands saved, and where the piece with it is. */
export interface SavedRecord {
  readonly version: number;
  readonly marc: MarcRecord;
  readonly findings: readonly Finding[];
  readonly title: string;
  readonly path: string;
  /** It stands nowhere yet: its 008 follows what is typed. */
  readonly isNew?: boolean;
}

/** A record that is edited: every change goes to a draft, which is saved as one, and can be undone in it. */
export interface RecordDraft {
  /** The record with what was changed. */
  readonly marc: MarcRecord;
  readonly draft: Draft | null;
  readonly findings: readonly Finding[];
  /** Safe fixes that wait. */
  readonly fixable: number;
  readonly adding: AddedField | null;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly set: (draft: Draft | null) => void;
  readonly apply: (transaction: EditTransaction, meant?: EditMeaning) => void;
  /** Makes the record another one in one step. */
  readonly become: (next: MarcRecord) => void;
  /** A field is opened, or closed again. */
  readonly hold: (isOpen: boolean) => void;
  /** Exchanges a field (-1: the leader), or deletes it with null; gives its place, which is another one for another tag. */
  readonly changeField: (at: number, field: Field | null) => number;
  readonly removeFields: (places: readonly number[]) => void;
  readonly duplicate: (places: readonly number[]) => void;
  readonly join: (at: number) => void;
  readonly split: (at: number) => void;
  /** Gives a field its 880; the place of that, or null where it can have none. */
  readonly addPartner: (at: number) => number | null;
  /** Whether a text that was pasted there is fields, and not words of a field. */
  readonly isPasteOfFields: (text: string, target: EventTarget) => boolean;
  readonly paste: (text: string) => void;
  readonly fix: (finding: Finding) => void;
  readonly fixAll: () => Promise<void>;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Opens a field to come at its place, by its tag. */
  readonly beginTag: (tag: string) => void;
  /** Opens a field that a starter asks for. */
  readonly beginField: (asked: StarterField, at: number) => void;
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
  const history = useHistories((s) => s.of[key]);
  const { say, complain } = useShell();
  const [begun, setBegun] = useState<(AddedField & { readonly of: string }) | null>(null);
  const adding = begun?.of === key ? begun : null;
  // While a field is open, the record stays as it was seen: what somebody else saves meanwhile is met when the draft is saved.
  const [seen, setSeen] = useState<{ readonly of: string; readonly saved: SavedRecord } | null>(null);
  const held = seen?.of === key ? seen.saved : null;
  const { version, marc: standing, findings, title, path, isNew = false } = held ?? saved ?? NOTHING;
  const live = useLiveFindings({ marc: standing, findings }, draft?.marc ?? (isNew ? standing : null));
  const marc = draft?.marc ?? standing;
  const base = draft?.base ?? standing;
  const keepRecord = (next: MarcRecord) =>
    keep(
      key,
      differs(compareRecords(base, next)) || next.leader !== base.leader
        ? { version: draft?.version ?? version, base, marc: next, title, path }
        : null,
    );
  const step = (to: Edited | null, otherwise: string) => {
    if (!to) return say(otherwise);
    useHistories.getState().set(key, to.history);
    keepRecord(to.record);
  };
  /** Steps through the history; another page may have edited the draft meanwhile, and then there is none. */
  const through = (go: (now: Edited) => Edited | null, otherwise: string) => {
    try {
      step(go({ record: marc, history: editHistoryOf(key) }), otherwise);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      useHistories.getState().set(key, null);
      say(otherwise);
    }
  };
  const become = (next: MarcRecord) => {
    const full = isNew ? filledFromText(marc, next) : next;
    step(edited({ record: marc, history: editHistoryOf(key) }, transactionBetween(marc, full)), '');
  };
  const apply = (transaction: EditTransaction, meant?: EditMeaning) =>
    step(edited({ record: marc, history: editHistoryOf(key) }, transaction, meant), '');
  const withoutFields = (places: readonly number[]): MarcRecord => ({
    ...marc,
    fields: marc.fields.filter((_, at) => !places.includes(at)),
  });
  const hold = (isOpen: boolean) => setSeen(isOpen && !draft && saved ? { of: key, saved } : null);
  const begin = (field: Field, at: number, isAsked: boolean) => {
    hold(true);
    setBegun({ of: key, at, field, isAsked });
  };
  return {
    marc,
    draft,
    findings: live.findings,
    fixable: live.findings.filter((f) => f.fix?.safe).length,
    adding,
    canUndo: (history?.done.length ?? 0) > 0,
    canRedo: (history?.undone.length ?? 0) > 0,
    set: (next) => {
      useHistories.getState().set(key, null);
      keep(key, next);
    },
    apply,
    become,
    hold,
    changeField: (at, field) => {
      if (at < 0) {
        if (field && isControl(field)) become(withLeader(marc, field.value.padEnd(24).slice(0, 24)).record);
      } else if (field === null) become(withoutFields([at]));
      else if (isData(field) && field.tag !== marc.fields[at]?.tag) {
        const made = withOtherTag(marc, at, field);
        apply(made.transaction);
        return made.field;
      } else become({ ...marc, fields: marc.fields.map((f, i) => (i === at ? field : f)) });
      return at;
    },
    removeFields: (places) => become(withoutFields(places)),
    duplicate: (places) => {
      const last = places.at(-1);
      const inserted = places.flatMap((at) => marc.fields[at] ?? []);
      if (last !== undefined) apply([{ step: 'fields', at: last + 1, removed: [], inserted }]);
    },
    join: (at) => {
      const [one, other] = [marc.fields[at], marc.fields[at + 1]];
      if (!one || !other || !isData(one) || !isData(other)) return complain(fieldWords.cannotBeJoined);
      const { subfields: _, ...second } = other;
      apply([{ step: 'join', field: at, at: one.subfields.length, second }]);
    },
    split: (at) => {
      const one = marc.fields[at];
      if (!one || !isData(one) || one.subfields.length < 2) return complain(fieldWords.cannotBeSplit);
      // Before the first code that comes again, else before the last subfield.
      const again = one.subfields.findIndex(
        (s, i) => i > 0 && one.subfields.slice(0, i).some((earlier) => earlier.code === s.code),
      );
      const { subfields: _, ...second } = one;
      apply([{ step: 'split', field: at, at: again > 0 ? again : one.subfields.length - 1, second }]);
    },
    addPartner: (at) => {
      const made = withPartner(marc, at);
      if (!made) {
        complain(fieldWords.hasAPartner);
        return null;
      }
      apply(made.transaction);
      return made.field;
    },
    isPasteOfFields: (text, target) =>
      isFieldLines(text) && (!(target instanceof HTMLInputElement) || /\n\s*\S/.test(text)),
    paste: (text) => {
      const { fields, problems } = pastedFields(text);
      if (fields.length) {
        become(fields.reduce(withField, marc));
        say(fieldWords.pasted(fields.length));
      }
      if (problems.length) complain(problems.join(' '));
    },
    fix: (finding) => {
      const transaction = live.fixOf(finding);
      if (transaction) apply(transaction, finding.fix?.safe ? { fixOf: finding.rule } : undefined);
      else if (finding.fix) say(fieldWords.editedSinceFound);
    },
    fixAll: async () => {
      const fixed = await live.fixAll(marc);
      if (!fixed?.corrected) return;
      become(fixed.record);
      say(wording.fixedSaveTheRecordTo(counted(fixed.corrected, 'finding')));
    },
    undo: () => through(undone, fieldWords.nothingToUndo),
    redo: () => through(redone, fieldWords.nothingToRedo),
    beginTag: (tag) => begin(usualField(tag, marc.leader), placeFor(marc, tag), false),
    beginField: (asked, at) => begin(fieldToFill(asked), at, true),
    added: (f) => {
      hold(false);
      setBegun(null);
      if (!adding || !f) return;
      const at = f.tag === adding.field.tag ? adding.at : placeFor(marc, f.tag);
      become({ ...marc, fields: [...marc.fields.slice(0, at), f, ...marc.fields.slice(at)] });
    },
  };
}
