import type { RequestProblem } from '../api/request';

/** What is wrong with one field of a form, beside it. */
export function FieldProblem({ of, field }: { of: RequestProblem | null; field: string }) {
  const message = of?.field(field);
  return message ? (
    <span className="field-problem" role="alert">
      {message}
    </span>
  ) : null;
}
