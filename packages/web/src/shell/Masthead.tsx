// The head of the ledger: whose it is, which site and set lie open, and what helps everywhere: finding, undo, the ring of versions.
import { Moon, Pause, Play, Redo2, Sun, Undo2 } from 'lucide-react';
import { Link } from 'react-router';
import { useEdits, usePreparation } from '../server/hooks.ts';
import { pausePreparation, redo, undo } from '../server/state.ts';
import { Mark, Ring } from '../ui/marks.tsx';
import { skipToWork } from '../ui/reveal.ts';
import { useTheme } from './theme.ts';

function ThemeSwitch() {
  const [theme, turn] = useTheme();
  const next = theme === 'day' ? 'Dusk' : 'Day';
  return (
    <button className="quiet" onClick={turn} aria-label={`Turn to ${next.toLowerCase()}`}>
      {next === 'Dusk' ? <Moon size={15} aria-hidden="true" /> : <Sun size={15} aria-hidden="true" />}
      <span className="max-[900px]:sr-only">{next}</span>
    </button>
  );
}

/** How many versions are made, what is being made, and a way to stop and go on. */
function Progress() {
  const preparation = usePreparation();
  if (!preparation || preparation.wanted === 0) return null;
  const { wanted, made, failed, paused, doing } = preparation;
  const busy = made + failed < wanted;
  return (
    <div
      className="flex items-center gap-2 whitespace-nowrap text-[12.5px] text-ink-2"
      title={doing ? `Making ${doing}` : undefined}
    >
      <Ring part={wanted ? made / wanted : 1} />
      <span
        role="progressbar"
        className="max-[900px]:sr-only"
        aria-label="Versions made"
        aria-valuemin={0}
        aria-valuemax={wanted}
        aria-valuenow={made}
        aria-valuetext={`${made} of ${wanted} versions${busy && paused ? ', stopped' : ''}`}
      >
        {made} of {wanted} versions{failed > 0 && `, ${failed} failed`}
        {busy && paused && ', stopped'}
      </span>
      {(busy || failed > 0) && (
        <button className="chip max-[500px]:px-1.5" onClick={() => void pausePreparation(!paused && busy)}>
          {busy && !paused ? <Pause size={12} aria-hidden="true" /> : <Play size={12} aria-hidden="true" />}
          <span className="max-[500px]:sr-only">
            {busy && !paused ? 'Stop' : busy ? 'Go on' : 'Try again'}
          </span>
        </button>
      )}
    </div>
  );
}

/** On small and zoomed screens, where the path has no foot. */
function SmallUndo() {
  const edits = useEdits();
  return (
    <span className="flex min-[701px]:hidden">
      <button
        className="quiet"
        disabled={!edits?.undo}
        onClick={() => void undo()}
        title={edits?.undoLabel ?? undefined}
      >
        <Undo2 size={16} aria-hidden="true" />
        <span className="max-[500px]:sr-only">Undo</span>
      </button>
      <button
        className="quiet"
        disabled={!edits?.redo}
        onClick={() => void redo()}
        title={edits?.redoLabel ?? undefined}
      >
        <Redo2 size={16} aria-hidden="true" />
        <span className="max-[500px]:sr-only">Redo</span>
      </button>
    </span>
  );
}

/** `children` are the two lines of the title. */
export function Masthead({ children, onFind }: { children?: React.ReactNode; onFind?: () => void }) {
  return (
    <header className="flex min-w-0 items-stretch border-b-2 border-edge bg-paper">
      <button
        className="sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-30 focus:bg-kelp focus:px-3 focus:py-2 focus:text-on-kelp"
        onClick={skipToWork}
      >
        Skip to the work
      </button>
      <Link
        to="/"
        className="flex w-[156px] shrink-0 items-center gap-2 border-r border-rule-strong pl-3.5 font-title text-[15px] font-semibold leading-none tracking-[-.01em] hover:text-kelp-deep max-[700px]:w-auto max-[700px]:px-2.5"
      >
        <Mark /> <span className="max-[700px]:sr-only">Dusky Otter</span>
      </Link>
      <div className="flex min-w-0 flex-1 flex-col justify-center px-4 max-[700px]:px-2.5">{children}</div>
      <div className="flex shrink-0 items-center gap-3.5 pr-4 max-[700px]:gap-1.5 max-[700px]:pr-2">
        {onFind && (
          <>
            <SmallUndo />
            <button
              onClick={onFind}
              className="quiet underline decoration-rule-strong underline-offset-4"
              title="Key: /"
            >
              <span>
                Find<span className="max-[700px]:sr-only"> a photo or action</span>
              </span>
            </button>
          </>
        )}
        {onFind && <Progress />}
        <ThemeSwitch />
      </div>
    </header>
  );
}
