import { useId, type ReactNode } from 'react';
import './overview.css';

/** What a pane shows when nothing is opened: sections side by side as there is room. */
export const Overview = ({ children, isWide = false }: { children: ReactNode; isWide?: boolean }) => (
  <div className={isWide ? 'overview wide' : 'overview'}>{children}</div>
);

/** A section of an overview. */
export function OverviewSection({ title, children }: { title: string; children: ReactNode }) {
  const id = useId();
  return (
    <section className="overview-section" aria-labelledby={id}>
      <h2 id={id}>{title}</h2>
      {children}
    </section>
  );
}
