import type { ReactNode } from 'react';

/** The heading of an area: its name, one sentence of state, its acts. */
export function AreaHead({
  name,
  state,
  children,
}: {
  name: string;
  state: ReactNode;
  children?: ReactNode;
}) {
  return (
    <div className="area-head">
      <h1>{name}</h1>
      <p>{state}</p>
      <div className="area-acts">{children}</div>
    </div>
  );
}
