// The dark bar on top: mark, where one is, finding, the ring of versions, the theme.
import { Moon, Pause, Play, Search, Sun } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { pausePreparation, useWork } from '../state/store.ts';
import { Mark, Ring } from '../ui/marks.tsx';

function ThemeSwitch() {
  const [theme, setTheme] = useState(document.documentElement.dataset.theme ?? 'day');
  const next = theme === 'day' ? 'dusk' : 'day';
  return (
    <button
      className="flex h-[30px] items-center gap-1.5 px-1 text-[#cfc8d8] hover:text-white"
      onClick={() => {
        document.documentElement.dataset.theme = next;
        localStorage.setItem('theme', next);
        setTheme(next);
      }}
    >
      {next === 'dusk' ? <Moon size={15} aria-hidden="true" /> : <Sun size={15} aria-hidden="true" />}
      <span className="max-[700px]:sr-only">{next === 'dusk' ? 'Dusk' : 'Day'}</span>
    </button>
  );
}

/** How many versions are made, what is being made, and a way to stop and go on. */
function Progress() {
  const preparation = useWork((state) => state.preparation);
  if (!preparation || preparation.wanted === 0) return null;
  const { wanted, made, failed, paused, doing } = preparation;
  const busy = made + failed < wanted;
  return (
    <div
      className="flex items-center gap-2 whitespace-nowrap text-[12.5px] text-[#cfc8d8]"
      title={doing ? `Making ${doing}` : undefined}
    >
      <Ring part={wanted ? made / wanted : 1} />
      <span
        role="progressbar"
        className="max-[700px]:text-[0px]"
        aria-label="Versions made"
        aria-valuemin={0}
        aria-valuemax={wanted}
        aria-valuenow={made}
        aria-valuetext={`${made} of ${wanted} versions`}
      >
        {made} of {wanted} versions{failed > 0 && `, ${failed} failed`}
      </span>
      {(busy || failed > 0) && (
        <button
          className="flex items-center gap-1 rounded-paper border border-[#565068] max-[700px]:hidden px-1.5 py-1 leading-none hover:text-white"
          onClick={() => void pausePreparation(!paused && busy)}
        >
          {busy && !paused ? <Pause size={12} aria-hidden="true" /> : <Play size={12} aria-hidden="true" />}
          {busy && !paused ? 'Stop' : busy ? 'Go on' : 'Try again'}
        </button>
      )}
    </div>
  );
}

export function TopBar({ children, onFind }: { children?: React.ReactNode; onFind?: () => void }) {
  return (
    <header className="flex min-w-0 items-center gap-4 overflow-hidden bg-[#221f2b] pl-3.5 pr-4 max-[700px]:gap-2 text-[#f3f0ea]">
      <Link
        to="/"
        className="flex items-center gap-2 whitespace-nowrap font-title text-[16px] font-semibold leading-none tracking-[-.01em]"
      >
        <Mark /> Dusky Otter
      </Link>
      {children}
      <span className="ml-auto" />
      {onFind && (
        <button
          onClick={onFind}
          className="flex h-[30px] w-[240px] min-w-0 max-[700px]:w-auto items-center gap-2 rounded-paper border border-[#4a4558] bg-[#2e2a3a] px-2.5 text-[13px] text-[#b9b2c4]"
        >
          <Search size={14} aria-hidden="true" />{' '}
          <span className="truncate max-[700px]:sr-only">Find a photo or action</span>
          <kbd className="ml-auto max-[700px]:hidden rounded-[2px] border border-[#565068] px-1.5 py-0.5 font-figure text-[11px] text-[#cfc8d8]">
            /
          </kbd>
        </button>
      )}
      <Progress />
      <ThemeSwitch />
    </header>
  );
}
