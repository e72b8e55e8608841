import '@fontsource/bricolage-grotesque/700.css';
import '@fontsource-variable/public-sans/wght.css';
import 'faces.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Navigate, Route, Routes } from 'react-router';
import { ApiProblem } from './api/client.js';
import { followChanges } from './app/follow-changes.js';
import { GuardedRouter } from './ui/guarded-router.js';
import { Missing } from './app/missing.js';
import { Shell } from './app/shell.js';
import { GlobalStyle } from './global-style.js';
import { NoticesProvider } from './ui/notices.js';
import { fetchedLate, Part } from './ui/part.js';
import { SettingsProvider } from './ui/settings.js';

const client = new QueryClient({
  defaultOptions: {
    // The server is on this machine: whether the browser thinks that it is online has nothing to do with it.
    // A refusal will not change by asking again; a server that was away may be back.
    queries: { retry: (failures, error) => failures < 3 && error instanceof ApiProblem && error.status === 0, staleTime: 5_000, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

followChanges(client);

// Either is shown sooner without the other.
const JobsPage = fetchedLate(() => import('./jobs/jobs-page.js').then((m) => m.JobsPage));
const DocsPage = fetchedLate(() => import('./app/docs-page.js').then((m) => m.DocsPage));
const JobPage = fetchedLate(() => import('./app/job-page.js').then((m) => m.JobPage));

/** Every address of the application. */
function Screens() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route
          path="/"
          element={
            <Part name="The list of jobs" fallback={<p role="status">Fetching the jobs …</p>}>
              <JobsPage />
            </Part>
          }
        />
        <Route path="/jobs/:id" element={<Navigate to="artwork" replace />} />
        <Route
          path="/jobs/:id/:station"
          element={
            <Part name="The job" fallback={<p role="status">Fetching the job …</p>}>
              <JobPage />
            </Part>
          }
        />
        <Route
          path="/docs/:name"
          element={
            <Part name="This page" fallback={<p role="status">Fetching the page …</p>}>
              <DocsPage />
            </Part>
          }
        />
        <Route path="*" element={<Missing />} />
      </Route>
    </Routes>
  );
}

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <SettingsProvider>
        <GlobalStyle />
        <NoticesProvider>
          <Part name="This screen" fallback={null}>
            <GuardedRouter>
              <Screens />
            </GuardedRouter>
          </Part>
        </NoticesProvider>
      </SettingsProvider>
    </QueryClientProvider>
  </StrictMode>,
);
