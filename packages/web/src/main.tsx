// Starts the web application: fonts, styles, routes.
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import './ui/styles.css';
import { lazy, StrictMode, Suspense, type ReactNode } from 'react';
import { QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { FrameBench } from './frame/FrameBench.tsx';
import { Rehearse } from './rehearse/Rehearse.tsx';
import { NotFoundPage } from './shell/NotFound.tsx';
import { beginState, client } from './server/state.ts';
import { SiteList } from './shell/SiteList.tsx';
import { SetShell } from './shell/SetShell.tsx';
import { Worktable } from './worktable/Worktable.tsx';

// Screens that are not opened every day come when they are.
const Places = lazy(async () => ({ default: (await import('./places/Places.tsx')).Places }));
const Measure = lazy(async () => ({ default: (await import('./measure/Measure.tsx')).Measure }));
const WeighBench = lazy(async () => ({ default: (await import('./weigh/WeighBench.tsx')).WeighBench }));
const DescribeBench = lazy(async () => ({
  default: (await import('./describe/DescribeBench.tsx')).DescribeBench,
}));
const Arrange = lazy(async () => ({ default: (await import('./arrange/Arrange.tsx')).Arrange }));
const Reading = lazy(async () => ({ default: (await import('./describe/Reading.tsx')).Reading }));
const PageLimit = lazy(async () => ({ default: (await import('./weigh/PageLimit.tsx')).PageLimit }));
const Policy = lazy(async () => ({ default: (await import('./policy/Policy.tsx')).Policy }));
const opening = <main className="bg-sheet p-8 text-ink-2">Opening…</main>;
const late = (screen: ReactNode) => <Suspense fallback={opening}>{screen}</Suspense>;

// Edits that an earlier visit left behind are taken up before anything is shown.
await beginState();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <Routes>
          <Route path="/" element={<SiteList />} />
          <Route path="/sets/:setId" element={<SetShell />}>
            <Route index element={<Navigate to="gather" replace />} />
            <Route path="frame/:photoId" element={<FrameBench />} />
            <Route path="weigh/:photoId" element={late(<WeighBench />)} />
            <Route path="describe/:photoId" element={late(<DescribeBench />)} />
            <Route path="arrange/:slot" element={late(<Arrange />)} />
            <Route path="reading" element={late(<Reading />)} />
            <Route path="rehearse" element={<Rehearse />} />
            <Route path="places" element={late(<Places />)} />
            <Route path="rules" element={late(<Policy />)} />
            <Route path="limit" element={late(<PageLimit />)} />
            <Route path="measure" element={late(<Measure />)} />
            <Route path=":stop" element={<Worktable />} />
          </Route>
          <Route path="*" element={<NotFoundPage />} />
        </Routes>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
