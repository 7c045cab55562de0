// The frame around every view of a set: bar, path, drop target, notices, keys that work everywhere.
import { useCallback, useEffect, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link, Outlet, useLocation, useParams } from 'react-router';
import { gather } from '../gather/arrivals.ts';
import { DropSign } from '../gather/DropSign.tsx';
import { meant, NOTHING_THERE } from '../gather/dropped.ts';
import { usePaste } from '../gather/pasted.ts';
import { clearScreen, notify, notifyFailure, openSheet, useScreen } from '../screen/screen.ts';
import { OpenSetContext, useCounts, useHeader, useOpenSet, useSet, useSite } from '../server/hooks.ts';
import { closeSet, openSet, redo, undo } from '../server/state.ts';
import { Finder } from './Finder.tsx';
import { Meetings } from './Meetings.tsx';
import { KeysHelp } from './KeysHelp.tsx';
import { Notices } from './Notices.tsx';
import { Path } from './Path.tsx';
import { Masthead } from './Masthead.tsx';
import { STOPS } from '../screen/stops.ts';
import { isTyping } from '../ui/typing.ts';
import type { ShellContext } from '../screen/shell-context.ts';

/** Views beside the path's stops. */
const BESIDE: Record<string, string | undefined> = {
  places: 'Places',
  measure: 'Measure a page',
  page: 'The page',
  reading: 'How the page is heard',
  rules: 'Rules',
  limit: 'A limit for the page',
};

function useGlobalKeys(onFind: () => void, onHelp: () => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isTyping(event.target)) return;
      const control = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (control && key === 'z') {
        event.preventDefault();
        void (event.shiftKey ? redo() : undo());
      } else if (event.key === '/' && !control) {
        event.preventDefault();
        onFind();
      } else if (event.key === '?') {
        event.preventDefault();
        onHelp();
      }
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, [onFind, onHelp]);
}

/** The set of the address, and everything that shows it. */
export function SetShell() {
  return (
    <OpenSetContext value={useOpenSet()}>
      <Shell />
    </OpenSetContext>
  );
}

function Shell() {
  const setId = Number(useParams().setId);
  const { pathname } = useLocation();
  const set = useSet();
  const site = useSite();
  const photos = useCounts()?.filters.all ?? 0;
  const { error, refetch } = useHeader();
  const [finding, setFinding] = useState(false);
  const helping = useScreen((state) => state.sheet === 'keys');
  useEffect(() => {
    clearScreen();
    openSet(setId);
    return closeSet;
  }, [setId]);
  const view = pathname.split('/')[3] ?? '';
  const heading =
    STOPS.find(({ id }) => id === view)?.heading ?? (Object.hasOwn(BESIDE, view) ? BESIDE[view] : undefined);
  useEffect(() => {
    document.title = [heading, set?.name, 'Dusky Otter'].filter(Boolean).join(' · ');
  }, [heading, set]);
  useGlobalKeys(
    useCallback(() => setFinding(true), []),
    useCallback(() => openSheet('keys'), []),
  );
  const take = (dropped: readonly File[]) => {
    const files = meant(dropped);
    if (files.length === 0) notify(NOTHING_THERE, 'bad');
    else gather(setId, files).catch(notifyFailure);
  };
  usePaste(take);
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: take,
    noClick: true,
    noKeyboard: true,
    // Every kind is taken and judged by the server: a file that is no photo gets its row with the reason.
    useFsAccessApi: false,
  });
  return (
    <div
      {...getRootProps({ role: undefined, tabIndex: undefined })}
      className="grid h-full grid-cols-[156px_minmax(0,1fr)] grid-rows-[56px_minmax(0,1fr)] max-[700px]:grid-cols-1 max-[700px]:grid-rows-[56px_auto_minmax(0,1fr)]"
    >
      <input {...getInputProps({ id: 'photos-to-add', style: { display: 'none' } })} />
      <div className="col-span-full grid">
        <Masthead onFind={() => setFinding(true)}>
          {set && (
            <>
              <Link
                to="/"
                className="w-fit max-w-full truncate text-[12px] leading-tight text-ink-2 hover:text-ink hover:underline"
              >
                {site?.name}
              </Link>
              <span className="flex min-w-0 items-baseline gap-2.5">
                <b className="truncate font-title text-[17px] font-[620] leading-tight tracking-[-.01em]">
                  {set.name}
                </b>
                <span className="whitespace-nowrap text-[12px] text-ink-2 max-[700px]:sr-only">
                  {photos} {photos === 1 ? 'photo' : 'photos'}
                </span>
              </span>
            </>
          )}
        </Masthead>
      </div>
      <Path setId={setId} />
      {error && !set ? (
        <main className="bg-sheet p-8">
          <h1 className="text-[20px] font-[620]">This set can’t be shown</h1>
          <p className="my-3 max-w-[60ch]">{error.message}</p>
          <div className="flex gap-2">
            <button className="btn btn-main" onClick={() => void refetch()}>
              Try again
            </button>
            <Link to="/" className="btn">
              Sites and sets
            </Link>
          </div>
        </main>
      ) : set ? (
        <Outlet context={{ chooseFiles: open, take } satisfies ShellContext} />
      ) : (
        <main className="bg-sheet p-8 text-ink-2">Opening the set…</main>
      )}
      {isDragActive && <DropSign said="Let go to add the photos" />}
      <Finder open={finding} onClose={() => setFinding(false)} setId={setId} chooseFiles={open} />
      <KeysHelp open={helping} onClose={() => openSheet(null)} />
      <Meetings />
      <Notices />
    </div>
  );
}
