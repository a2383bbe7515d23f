import type { MarcRecord } from '@osier/core/marc';
import type { KeyboardEvent } from 'react';
import type { RecordDraft } from '../record-draft/use-record-draft';

/** What the keys of a field view do in it. */
interface ViewActs {
  readonly edit: (at: number) => void;
  readonly select: (selected: ReadonlySet<number>) => void;
  readonly focus: (at: number) => void;
  readonly fillIn: (prompt: number) => void;
  readonly fix: (at: number) => void;
}

/** The places of the fields that an act concerns: those that are selected, else the one with the focus. The leader is none. */
export function selectedIn(target: EventTarget | null, selected: ReadonlySet<number>): number[] {
  if (selected.size) return [...selected].sort((a, b) => a - b);
  const row = target instanceof Element ? target.closest<HTMLElement>('.field-row[data-at]') : null;
  const at = Number(row?.dataset.at ?? -1);
  return at >= 0 ? [at] : [];
}

const rowBeside = (row: HTMLElement, isDown: boolean): HTMLElement | null => {
  let next = row;
  for (;;) {
    const beside = isDown ? next.nextElementSibling : next.previousElementSibling;
    if (!(beside instanceof HTMLElement)) return null;
    if (beside.classList.contains('field-row')) return beside;
    next = beside;
  }
};

/** The keys on a row of a field view, and undo and redo in it. Keys in a field that is edited are its own. */
export function fieldKeys(
  event: KeyboardEvent<HTMLElement>,
  {
    record,
    edit,
    selected,
    act,
  }: {
    readonly record: MarcRecord;
    readonly edit: RecordDraft | undefined;
    readonly selected: ReadonlySet<number>;
    readonly act: ViewActs | undefined;
  },
): void {
  const row = event.target;
  if (!(row instanceof HTMLElement) || !row.classList.contains('field-row')) return;
  const { key, ctrlKey, altKey, shiftKey, metaKey } = event;
  const done = () => {
    event.preventDefault();
    event.stopPropagation();
  };
  const isDown = key === 'ArrowDown';
  const prompt = row.dataset.prompt;
  if ((isDown || key === 'ArrowUp') && !altKey) {
    done();
    const next = rowBeside(row, isDown);
    next?.focus();
    if (shiftKey && act && next) {
      const both = [row, next].map((r) => Number(r.dataset.at ?? -1)).filter((at) => at >= 0);
      act.select(new Set([...selected, ...both]));
    }
    return;
  }
  if (!edit || !act) return;
  if (prompt !== undefined) {
    if (key !== 'Enter' && key !== ' ') return;
    done();
    return act.fillIn(Number(prompt));
  }
  const at = Number(row.dataset.at);
  const places = selectedIn(row, selected);
  if (ctrlKey || metaKey) {
    const letter = key.toLowerCase();
    if (letter === 'z' || letter === 'y') {
      done();
      if (letter === 'y' || shiftKey) edit.redo();
      else edit.undo();
    } else if (letter === 'a') {
      done();
      act.select(new Set(record.fields.map((_, i) => i)));
    }
    return;
  }
  if (altKey) {
    if (key !== 'ArrowUp' && !isDown) return;
    done();
    const to = at + (isDown ? 1 : -1);
    if (at < 0 || to < 0 || to >= record.fields.length) return;
    act.focus(to);
    return edit.apply([{ step: 'move', from: at, to }]);
  }
  const first = places[0] ?? at;
  const acts: Readonly<Record<string, () => void>> = {
    Enter: () => act.edit(at),
    ' ': () => act.select(flipped(selected, at)),
    Escape: () => act.select(new Set()),
    Delete: () => {
      act.focus(Math.min(first, record.fields.length - places.length - 1));
      act.select(new Set());
      edit.removeFields(places);
    },
    d: () => {
      act.focus((places.at(-1) ?? at) + 1);
      edit.duplicate(places);
    },
    j: () => edit.join(at),
    s: () => edit.split(at),
    '8': () => {
      const partner = edit.addPartner(at);
      if (partner !== null) act.edit(partner);
    },
    f: () => act.fix(at),
  };
  const doing = Object.hasOwn(acts, key) ? acts[key] : undefined;
  if (!doing || (key === 'Escape' && selected.size === 0) || (at < 0 && key !== 'Enter' && key !== 'f'))
    return;
  done();
  doing();
}

function flipped(selected: ReadonlySet<number>, at: number): ReadonlySet<number> {
  const next = new Set(selected);
  if (!next.delete(at)) next.add(at);
  return next;
}
