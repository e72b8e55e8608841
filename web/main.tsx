import '@fontsource/bricolage-grotesque/700.css';
import '@fontsource-variable/public-sans/wght.css';
import 'faces.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, type ReactNode } from 'react';
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
    queries: {
      retry: (failures, error) => failures < 3 && error instanceof ApiProblem && error.status === 0,
      staleTime: 5_000,
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
});

followChanges(client);

// Either is shown sooner without the other.
const JobsPage = fetchedLate(
  () => import('./jobs/jobs-page.js'),
  (m) => m.JobsPage,
);
const CuttingListPage = fetchedLate(
  () => import('./cutting-list/cutting-list-page.js'),
  (m) => m.CuttingListPage,
);
const StraightThroughPage = fetchedLate(
  () => import('./cutting-list/straight-through-page.js'),
  (m) => m.StraightThroughPage,
);
const BatchPage = fetchedLate(
  () => import('./cutting-list/batch-page.js'),
  (m) => m.BatchPage,
);
const DocsPage = fetchedLate(
  () => import('./app/docs-page.js'),
  (m) => m.DocsPage,
);
const ShopPlace = fetchedLate(
  () => import('./shop/shop-place.js'),
  (m) => m.ShopPlace,
);
const LetIn = fetchedLate(
  () => import('./app/let-in.js'),
  (m) => m.LetIn,
);
const JobPage = fetchedLate(
  () => import('./app/job-page.js'),
  (m) => m.JobPage,
);

/** A screen that is fetched when its address is first visited. */
function screen(name: string, fetching: string, page: ReactNode): ReactNode {
  return (
    <Part name={name} fallback={<p role="status">{fetching}</p>}>
      {page}
    </Part>
  );
}

/** Every address of the application. */
function Screens() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route path="/" element={screen('The list of jobs', 'Fetching the jobs …', <JobsPage />)} />
        <Route path="/jobs/:id" element={<Navigate to="artwork" replace />} />
        <Route path="/jobs/:id/:station" element={screen('The job', 'Fetching the job …', <JobPage />)} />
        <Route
          path="/cutting-list"
          element={screen('The cutting list', 'Fetching the cutting list …', <CuttingListPage />)}
        />
        <Route
          path="/cutting-list/job/:id"
          element={screen('The job', 'Fetching the job …', <StraightThroughPage />)}
        />
        <Route path="/cutting-list/:id" element={screen('The batch', 'Fetching the batch …', <BatchPage />)} />
        <Route path="/shop" element={<Navigate to="films" replace />} />
        <Route path="/shop/:screen" element={screen('The shop', 'Fetching the shop …', <ShopPlace />)} />
        <Route path="/shop/:screen/:id" element={screen('The shop', 'Fetching the shop …', <ShopPlace />)} />
        <Route path="/let-in" element={screen('This page', 'Fetching the page …', <LetIn />)} />
        <Route path="/docs/:name" element={screen('This page', 'Fetching the page …', <DocsPage />)} />
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
