// The hand-over's own page at several widths, as it will be: the same markup, styles and files.
import { PHONE, slotById, slotsOf, totalsFor, bytesInWords } from '@dusky-otter/core';
import { useState } from 'react';
import { useParams } from 'react-router';
import { useSetSlots } from '../state/derived.ts';
import { useWork } from '../state/store.ts';

const WIDTHS = [
  { name: 'Phone', width: 390 },
  { name: 'Tablet', width: 820 },
  { name: 'Laptop', width: 1280 },
  { name: 'Desktop', width: 1920 },
] as const;

const HEIGHT = 1400;

export function Rehearse() {
  const setId = Number(useParams().setId);
  const rows = useWork((state) => state.rows);
  const preparation = useWork((state) => state.preparation);
  const setSlots = useSetSlots();
  const [chosen, setChosen] = useState<(typeof WIDTHS)[number]>(WIDTHS[2]);
  const room = Math.max(320, window.innerWidth - 156 - 64);
  const scale = Math.min(1, room / chosen.width);
  const places = new Set(rows.flatMap((row) => [...slotsOf(row, setSlots)]));
  const total = totalsFor(rows, setSlots, {
    viewport: chosen.width,
    density: chosen.width < 500 ? PHONE.density : 1,
  });
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <div className="flex h-[52px] shrink-0 items-center gap-2.5 border-b border-rule px-4">
        <h1 className="mr-1.5 text-[20px] font-[620] leading-none tracking-[-.015em]">
          The page, before it goes out
        </h1>
        <div role="group" aria-label="Width of the screen" className="flex gap-1.5">
          {WIDTHS.map((option) => (
            <button
              key={option.width}
              className="chip"
              aria-pressed={option === chosen}
              onClick={() => setChosen(option)}
            >
              {option.name} {option.width} px
            </button>
          ))}
        </div>
        <span className="ml-auto" />
        <a className="btn" href={`/preview/${setId}/index.html`} target="_blank" rel="noreferrer">
          Open in a window of its own
        </a>
      </div>
      {rows.length === 0 ? (
        <p className="p-10 text-center text-ink-2">
          There is no photo in the set yet, so the page is empty. Add photos at Gather.
        </p>
      ) : (
        <div className="min-h-0 flex-1 overflow-auto bg-stage p-8" tabIndex={0} aria-label="Preview">
          <div className="mx-auto bg-white" style={{ width: chosen.width * scale, height: HEIGHT * scale }}>
            <iframe
              key={`${chosen.width}-${preparation?.made}`}
              title={`The page at ${chosen.width} px`}
              src={`/preview/${setId}/index.html`}
              sandbox="allow-same-origin"
              style={{
                width: chosen.width,
                height: HEIGHT,
                transform: `scale(${scale})`,
                transformOrigin: '0 0',
                border: 0,
              }}
            />
          </div>
        </div>
      )}
      <footer className="flex h-[46px] shrink-0 items-center gap-4 border-t border-rule-strong bg-raised px-4">
        <span>
          <b>{bytesInWords(total.sent)}</b> of pictures on this screen if one scrolls through everything
          {chosen.width < 500 ? ', at 2×' : ', at 1×'}
        </span>
        <span className="ml-auto text-ink-2">
          {scale < 1 ? `Shown at ${Math.round(scale * 100)} %. ` : ''}
          {[...places].map((id) => slotById(id).name).join(', ')}
        </span>
      </footer>
    </main>
  );
}
