import { counted } from '@osier/core/changes';
import './mark.css';

export type MarkKind = 'clear' | 'caution' | 'stop' | 'information';
const SHAPES: Record<MarkKind, string> = { clear: '●', caution: '▲', stop: '■', information: '◆' };
export const KIND_OF_SEVERITY = { error: 'stop', warning: 'caution', advice: 'information' } as const;

/** A state by shape and colour, with its name for those who hear it. */
export function Mark({ kind, name, count }: { kind: MarkKind; name?: string; count?: number }) {
  return (
    <span className={`mark-shape ${kind}`} title={name}>
      <span aria-hidden>{SHAPES[kind]}</span>
      {count !== undefined ? <span className="mark-count">{count}</span> : null}
      <span className="unseen">{name ?? kind}</span>
    </span>
  );
}

/** The counts of a record's findings, worst first. */
export function FindingCounts({
  errors,
  warnings,
  advice,
}: {
  errors: number;
  warnings: number;
  advice: number;
}) {
  return (
    <span className="finding-counts">
      {errors ? <Mark kind="stop" name={counted(errors, 'error')} count={errors} /> : null}
      {warnings ? <Mark kind="caution" name={counted(warnings, 'warning')} count={warnings} /> : null}
      {advice ? (
        <Mark
          kind="information"
          name={counted(advice, 'piece of advice', 'pieces of advice')}
          count={advice}
        />
      ) : null}
      {errors + warnings + advice === 0 ? <Mark kind="clear" name="No findings" /> : null}
    </span>
  );
}
