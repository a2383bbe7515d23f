import { QueryClientProvider } from '@tanstack/react-query';
import { ConfigProvider } from 'antd';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { queries } from './api/queries';
import { Osier } from './Osier';
import './styles/fonts';
import './styles/tokens.css';
import './styles/shared.css';
import { theme } from './styles/theme';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ConfigProvider theme={theme}>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <Osier />
        </BrowserRouter>
      </QueryClientProvider>
    </ConfigProvider>
  </StrictMode>,
);
