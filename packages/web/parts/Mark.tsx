import { counted } from '@osier/core/changes';
import type { ReactNode } from 'react';
import './mark.css';
import { partWords as wording } from './words';

export type MarkKind = 'clear' | 'caution' | 'stop' | 'information';
/** The four shapes of a state, drawn on a field of 10 by 10. */
const SHAPES: Record<MarkKind, ReactNode> = {
  clear: <circle cx="5" cy="5" r="4.2" />,
  caution: <path d="M5 0.8 9.6 9.2H0.4Z" />,
  stop: <rect x="1" y="1" width="8" height="8" />,
  information: <path d="M5 0.4 9.6 5 5 9.6 0.4 5Z" />,
};

/** The shape of a state alone. */
export const StateShape = ({ kind }: { kind: MarkKind }) => (
  <svg className="state-shape" viewBox="0 0 10 10" aria-hidden>
    {SHAPES[kind]}
  </svg>
);

export const KIND_OF_SEVERITY = { error: 'stop', warning: 'caution', advice: 'information' } as const;

/** A state by shape and colour, with its name for those who hear it. */
export function Mark({ kind, name, count }: { kind: MarkKind; name?: string; count?: number }) {
  return (
    <span className={`mark-shape ${kind}`} title={name}>
      <StateShape kind={kind} />
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
          name={counted(advice, wording.pieceOfAdvice, wording.piecesOfAdvice)}
          count={advice}
        />
      ) : null}
      {errors + warnings + advice === 0 ? <Mark kind="clear" name={wording.noFindings} /> : null}
    </span>
  );
}
