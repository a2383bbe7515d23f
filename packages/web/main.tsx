import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { queries } from './api/queries';
import { Osier } from './Osier';
import './styles/fonts';
import './styles/tokens.css';
import './styles/shared.css';
import { Themed } from './styles/Themed';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Themed>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Osier />
        </BrowserRouter>
      </QueryClientProvider>
    </Themed>
  </StrictMode>,
);

/** Chinese, Japanese and Korean come after all else: most pages have none. */
const whenIdle = (work: () => void) =>
  'requestIdleCallback' in window ? window.requestIdleCallback(work) : setTimeout(work, 1000);
whenIdle(() => void import('./styles/cjk-fonts'));
