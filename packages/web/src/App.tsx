// The routes: which screen stands at which address.
import { lazy, startTransition, StrictMode, Suspense, type ReactNode } from 'react';
import { QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { NotFoundPage } from './shell/NotFoundPage.tsx';
import { client } from './server/state.ts';
import { SiteList } from './shell/SiteList.tsx';

// Each screen comes when it is opened: what is evaluated at once would block the first one.
const SetShell = lazy(async () => ({ default: (await import('./shell/SetShell.tsx')).SetShell }));
const Worktable = lazy(async () => ({ default: (await import('./worktable/Worktable.tsx')).Worktable }));
const FrameBench = lazy(async () => ({ default: (await import('./frame/FrameBench.tsx')).FrameBench }));
const Rehearse = lazy(async () => ({ default: (await import('./rehearse/Rehearse.tsx')).Rehearse }));
const Places = lazy(async () => ({ default: (await import('./places/Places.tsx')).Places }));
const Measure = lazy(async () => ({ default: (await import('./measure/Measure.tsx')).Measure }));
const WeighBench = lazy(async () => ({ default: (await import('./weigh/WeighBench.tsx')).WeighBench }));
const DescribeBench = lazy(async () => ({
  default: (await import('./describe/DescribeBench.tsx')).DescribeBench,
}));
const Shelves = lazy(async () => ({ default: (await import('./arrange/Shelves.tsx')).Shelves }));
const Arrange = lazy(async () => ({ default: (await import('./arrange/Arrange.tsx')).Arrange }));
const Texts = lazy(async () => ({ default: (await import('./languages/Texts.tsx')).Texts }));
const Page = lazy(async () => ({ default: (await import('./page/Page.tsx')).Page }));
const Reading = lazy(async () => ({
  default: (await import('./describe/ReadingPreview.tsx')).ReadingPreview,
}));
const PageLimit = lazy(async () => ({ default: (await import('./weigh/PageLimit.tsx')).PageLimit }));
const Policy = lazy(async () => ({ default: (await import('./policy/PolicyPanel.tsx')).PolicyPanel }));
const opening = <main className="bg-sheet p-8 text-ink-2">Opening…</main>;
const late = (screen: ReactNode) => <Suspense fallback={opening}>{screen}</Suspense>;

const screens = (
  <StrictMode>
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <Routes>
          <Route path="/" element={<SiteList />} />
          <Route path="/sets/:setId" element={late(<SetShell />)}>
            <Route index element={<Navigate to="gather" replace />} />
            <Route path="frame/:photoId" element={late(<FrameBench />)} />
            <Route path="weigh/:photoId" element={late(<WeighBench />)} />
            <Route path="describe/:photoId" element={late(<DescribeBench />)} />
            <Route path="arrange" element={late(<Shelves />)} />
            <Route path="arrange/:slot" element={late(<Arrange />)} />
            <Route path="page" element={late(<Page />)} />
            <Route path="texts" element={late(<Texts />)} />
            <Route path="reading" element={late(<Reading />)} />
            <Route path="rehearse" element={late(<Rehearse />)} />
            <Route path="places" element={late(<Places />)} />
            <Route path="rules" element={late(<Policy />)} />
            <Route path="limit" element={late(<PageLimit />)} />
            <Route path="measure" element={late(<Measure />)} />
            <Route path=":stop" element={late(<Worktable />)} />
          </Route>
          <Route path="*" element={<NotFoundPage />} />
        </Routes>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>
);

/** Draws the screen of the address that is open. */
export function show(root: HTMLElement): void {
  // In small pieces: the first drawing of a large screen blocks nothing for long.
  startTransition(() => createRoot(root).render(screens));
}
