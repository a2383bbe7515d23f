import { lazy, Suspense, type ComponentProps } from 'react';

const BarsChart = lazy(() => import('./BarsChart'));

/** A bar chart whose drawing is loaded when there is one to draw. */
export const LazyBars = (props: ComponentProps<typeof BarsChart>) => (
  <Suspense fallback={null}>
    <BarsChart {...props} />
  </Suspense>
);
