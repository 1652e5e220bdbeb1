import '@fontsource-variable/bricolage-grotesque/wght.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/500.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { BenchPage } from './bench/BenchPage.js';
import { FinishPage } from './finish/FinishPage.js';
import { IntakePage } from './intake/IntakePage.js';
import { JobsPage } from './jobs/JobsPage.js';
import { GlobalStyle } from './look/GlobalStyle.js';
import { ProofPage } from './proof/ProofPage.js';
import { ReferencePage } from './reference/ReferencePage.js';
import { LostPage } from './look/LostPage.js';

const router = createBrowserRouter([
  { path: '/', element: <JobsPage />, errorElement: <LostPage /> },
  { path: '/intake/:pictureId', element: <IntakePage />, errorElement: <LostPage /> },
  { path: '/bench/:pictureId', element: <BenchPage />, errorElement: <LostPage /> },
  { path: '/finish/:pictureId', element: <FinishPage />, errorElement: <LostPage /> },
  { path: '/proof/:pictureId', element: <ProofPage />, errorElement: <LostPage /> },
  { path: '/reference', element: <ReferencePage />, errorElement: <LostPage /> },
  { path: '*', element: <LostPage /> },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <GlobalStyle />
    <RouterProvider router={router} />
  </StrictMode>,
);
