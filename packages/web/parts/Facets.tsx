import { Button } from 'antd';
import { useState } from 'react';
import { partWords as wording } from './words';

export interface Facet {
  readonly value: string;
  readonly name: string;
  readonly count: number;
}

/** Facets as chips, the first `most` of them at first; the chosen one is pressed, pressing it again shows all. */
export function Facets({
  facets,
  chosen,
  onChoose,
  label,
  most,
}: {
  facets: readonly Facet[];
  chosen: string | undefined;
  onChoose: (value: string | undefined) => void;
  label?: string;
  most?: number;
}) {
  const [all, setAll] = useState(false);
  const there = facets.filter((f) => f.count > 0 || f.value === chosen);
  const shown = all || most === undefined ? there : there.filter((f, i) => i < most || f.value === chosen);
  if (shown.length === 0) return null;
  return (
    <>
      {label ? <span className="facet-name">{label}</span> : null}
      {shown.map((f) => (
        <Button
          size="small"
          shape="round"
          key={f.value}
          className="facet"
          aria-pressed={f.value === chosen}
          onClick={() => onChoose(f.value === chosen ? undefined : f.value)}
        >
          {f.name}
          <span className="n">{f.count.toLocaleString('en-GB')}</span>
        </Button>
      ))}
      {there.length > shown.length ? (
        <Button size="small" shape="round" className="facet" onClick={() => setAll(true)}>
          {wording.more(there.length - shown.length)}
        </Button>
      ) : null}
    </>
  );
}
