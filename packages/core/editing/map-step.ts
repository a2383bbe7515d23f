import type { EditStep } from './edit-step';
import { mapField, mapGap } from './map-place';

/**
 * A step that was made for a record, as it is after another step on the same record: null where the two concern the same
 * thing. `isBefore` decides between two insertions at one place: whose stands first. Two steps that map over each other
 * give the same record in either order, one mapped `isBefore` and the other not.
 */
export function mapStep(step: EditStep, over: EditStep, isBefore = false): EditStep | null {
  switch (step.step) {
    case 'fields':
      return mapFields(step, over, isBefore);
    case 'move':
      return mapMove(step, over);
    case 'split':
    case 'join':
      return mapCut(step, over);
    default:
      return mapContent(step, over, isBefore);
  }
}

type Step<S extends EditStep['step']> = EditStep & { readonly step: S };

/** The fields whose content a step looks at or changes; none for a step that only puts in or moves whole ones. */
function touched(step: EditStep): readonly number[] {
  switch (step.step) {
    case 'fields':
      return step.removed.map((_, i) => step.at + i);
    case 'move':
      return [];
    case 'join':
      return [step.field, step.field + 1];
    default:
      return [step.field];
  }
}

const meet = (a: EditStep, b: EditStep): boolean => {
  const others = touched(b);
  return touched(a).some((f) => others.includes(f));
};

function mapFields(step: Step<'fields'>, over: EditStep, isBefore: boolean): EditStep | null {
  if (step.removed.length === 0) {
    const at = mapGap(step.at, over, isBefore);
    return at === null ? null : { ...step, at };
  }
  if (meet(step, over) || (over.step === 'move' && stretches(over, step))) return null;
  // What was put in between is kept: the fields that go must still stand together.
  const places = step.removed.map((_, i) => mapField(step.at + i, over));
  const [at] = places;
  return at === null || at === undefined || places.some((p, i) => p !== at + i) ? null : { ...step, at };
}

function mapMove(step: Step<'move'>, over: EditStep): EditStep | null {
  const [from, to] = [mapField(step.from, over), mapField(step.to, over)];
  if (from === null || to === null) return null;
  if (over.step === 'move') {
    const apart =
      Math.max(step.from, step.to) < Math.min(over.from, over.to) ||
      Math.max(over.from, over.to) < Math.min(step.from, step.to);
    return apart ? step : null;
  }
  if (over.step === 'join' || over.step === 'split') {
    // A field that is cut or joined is not the one that moves, nor the one that it moves to.
    const concerned = over.step === 'join' ? [over.field, over.field + 1] : [over.field];
    if (concerned.includes(step.from) || concerned.includes(step.to)) return null;
    // Moved between the two halves it would stand in their way.
    if (over.step === 'join' && between(step, over.field)) return null;
  }
  if (over.step === 'fields' && over.removed.length > 0 && stretches(step, over)) return null;
  return { ...step, from, to };
}

/** Whether a field that moves lands between a field and the next. */
const between = ({ from, to }: Step<'move'>, field: number): boolean =>
  from < to ? to === field : to === field + 1;

/** Whether a move goes out of, into or to the edge of fields that are exchanged. */
function stretches({ from, to }: Step<'move'>, { at, removed }: Step<'fields'>): boolean {
  const within = (f: number) => f >= at && f < at + removed.length;
  return within(from) || within(to);
}

function mapCut(step: Step<'split' | 'join'>, over: EditStep): EditStep | null {
  if (
    over.step === 'fields' &&
    over.removed.length === 0 &&
    step.step === 'join' &&
    over.at === step.field + 1
  )
    return null;
  if (over.step === 'move') {
    const fields = touched(step);
    if (fields.some((f) => f === over.from || f === over.to)) return null;
    if (step.step === 'join' && between(over, step.field)) return null;
  } else if (meet(step, over)) return null;
  const field = mapField(step.field, over);
  return field === null ? null : { ...step, field };
}

function mapContent(
  step: Step<'subfields' | 'indicator' | 'text'>,
  over: EditStep,
  isBefore: boolean,
): EditStep | null {
  if (over.step === 'fields' && meet(step, over)) return null;
  if ((over.step === 'split' || over.step === 'join') && meet(step, over)) return null;
  const field = mapField(step.field, over);
  if (field === null) return null;
  if (step.step !== over.step || step.field !== over.field) return { ...step, field };
  if (step.step === 'indicator') return over.step === 'indicator' && over.which !== step.which ? step : null;
  if (over.step === 'indicator') return step;
  const at = mapRange(step, over, isBefore);
  return at === null ? null : { ...step, at };
}

interface Range {
  readonly at: number;
  readonly removed: { readonly length: number };
  readonly inserted: { readonly length: number };
}

/** Where a stretch begins after another one of the same list was exchanged; null when they overlap. */
function mapRange(range: Range, over: Range, isBefore: boolean): number | null {
  const [end, overEnd] = [range.at + range.removed.length, over.at + over.removed.length];
  if (range.at === over.at && (range.removed.length === 0 || over.removed.length === 0)) {
    const first = range.removed.length === over.removed.length ? isBefore : range.removed.length === 0;
    return first ? range.at : range.at + over.inserted.length - over.removed.length;
  }
  if (end <= over.at) return range.at;
  return range.at >= overEnd ? range.at - over.removed.length + over.inserted.length : null;
}
