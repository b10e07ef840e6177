import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { App as AntApp, ConfigProvider } from 'antd';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import '@fontsource-variable/instrument-sans/index.css';
import '@fontsource-variable/newsreader/index.css';
import './styles.css';
import { GuestDesk } from './guest/GuestDesk.tsx';
import { Outbox } from './shelf/Outbox.tsx';
import { Shelf } from './shelf/Shelf.tsx';
import { DocumentShell } from './shell/DocumentShell.tsx';
import { Intake } from './stages/Intake.tsx';
import { Motion } from './stages/Motion.tsx';
import { Structure } from './stages/Structure.tsx';
import { NewerVersion } from './stages/NewerVersion.tsx';
import { BroughtBack } from './handover/BroughtBack.tsx';
import { Handover } from './handover/Handover.tsx';
import { Outputs } from './outputs/Outputs.tsx';
import { Languages } from './languages/Languages.tsx';
import { Compare } from './compare/Compare.tsx';
import { cssVariables, theme } from './theme.ts';

for (const [name, value] of Object.entries(cssVariables)) document.documentElement.style.setProperty(name, value);

const router = createBrowserRouter([
  { path: '/', element: <Shelf /> },
  { path: '/outbox', element: <Outbox /> },
  { path: '/t/:token', element: <GuestDesk /> },
  {
    path: '/d/:id',
    element: <DocumentShell />,
    children: [
      { index: true, element: <Navigate to="intake" replace /> },
      { path: 'intake', element: <Intake /> },
      { path: 'structure', element: <Structure /> },
      { path: 'motion', element: <Motion /> },
      { path: 'newer', element: <NewerVersion /> },
      { path: 'outputs', element: <Outputs /> },
      { path: 'compare', element: <Compare /> },
      { path: 'languages', element: <Languages /> },
      { path: 'handover', element: <Handover /> },
      { path: 'corrections', element: <BroughtBack /> },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
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
