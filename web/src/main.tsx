import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { App as AntApp, ConfigProvider } from 'antd';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import '@fontsource-variable/instrument-sans/index.css';
import '@fontsource/newsreader/400.css';
import '@fontsource/newsreader/500.css';
import './styles.css';
import { Unavailable } from './shell/Unavailable.tsx';
import { cssVariables, theme } from './theme.ts';

for (const [name, value] of Object.entries(cssVariables)) document.documentElement.style.setProperty(name, value);

/** Each page of the application is fetched where it is opened: a translator's desk brings nothing of the designer's. */
const router = createBrowserRouter([
  {
    errorElement: <Unavailable />,
    hydrateFallbackElement: <></>,
    children: [
      { path: '/', lazy: async () => ({ Component: (await import('./shelf/Shelf.tsx')).Shelf }) },
      { path: '/outbox', lazy: async () => ({ Component: (await import('./shelf/Outbox.tsx')).Outbox }) },
      { path: '/t/:token', lazy: async () => ({ Component: (await import('./guest/GuestDesk.tsx')).GuestDesk }) },
      {
        path: '/d/:id',
        lazy: async () => ({ Component: (await import('./shell/DocumentShell.tsx')).DocumentShell }),
        children: [
          { index: true, element: <Navigate to="intake" replace /> },
          { path: 'intake', lazy: async () => ({ Component: (await import('./stages/Intake.tsx')).Intake }) },
          { path: 'structure', lazy: async () => ({ Component: (await import('./stages/Structure.tsx')).Structure }) },
          { path: 'motion', lazy: async () => ({ Component: (await import('./stages/Motion.tsx')).Motion }) },
          { path: 'newer', lazy: async () => ({ Component: (await import('./stages/NewerVersion.tsx')).NewerVersion }) },
          { path: 'outputs', lazy: async () => ({ Component: (await import('./outputs/Outputs.tsx')).Outputs }) },
          { path: 'compare', lazy: async () => ({ Component: (await import('./compare/Compare.tsx')).Compare }) },
          { path: 'languages', lazy: async () => ({ Component: (await import('./languages/Languages.tsx')).Languages }) },
          { path: 'handover', lazy: async () => ({ Component: (await import('./handover/Handover.tsx')).Handover }) },
          { path: 'corrections', lazy: async () => ({ Component: (await import('./handover/BroughtBack.tsx')).BroughtBack }) },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ConfigProvider theme={theme}>
      <AntApp className="app">
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 2000 } } })}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </AntApp>
    </ConfigProvider>
  </StrictMode>,
);
