import '@fontsource-variable/archivo/wdth.css';
import '@fontsource-variable/source-serif-4/wght.css';
import '@fontsource-variable/source-serif-4/wght-italic.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/500.css';
import './theme/theme.css';
import './theme/base.css';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { queryClient } from './api/queries.ts';
import { App } from './app.tsx';
import { LastResort } from './frame/last-resort.tsx';
import { applyTheme } from './theme/theme.ts';

applyTheme();
const root = document.getElementById('root');
if (!root) throw new Error('The page has no root to draw into.');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <LastResort>
        <App />
      </LastResort>
    </QueryClientProvider>
  </StrictMode>,
);
