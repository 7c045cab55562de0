// The hand-over's own page at several widths, as it will be: the same markup, styles and files.
import { standable } from '@dusky-otter/core/slots';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client.ts';
import { useCounts, useEdition, usePreparation, useSet, useSetId, useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { stopOf } from '../screen/stops.ts';
import { Head } from '../ui/Head.tsx';

const WIDTHS = [
  { name: 'Phone', width: 390 },
  { name: 'Tablet', width: 820 },
  { name: 'Laptop', width: 1280 },
  { name: 'Desktop', width: 1920 },
] as const;

const HEIGHT = 1400;

export function Rehearse() {
  const setId = useSetId();
  const counts = useCounts();
  const preparation = usePreparation();
  const set = useSet();
  const site = useSite();
  const edition = useEdition();
  const left = preparation ? preparation.wanted - preparation.made - preparation.failed : 0;
  const [chosen, setChosen] = useState<(typeof WIDTHS)[number]>(WIDTHS[2]);
  const narrow = window.innerWidth <= 700;
  const room = Math.max(280, window.innerWidth - (narrow ? 32 : 156 + 64));
  const scale = Math.min(1, room / chosen.width);
  const phone = chosen.width < 500;
  const { data: sent } = useQuery({
    queryKey: ['sent', setId, chosen.width, edition],
    queryFn: () => api.sent(setId, chosen.width, phone ? 2 : 1),
  });
  const any = (counts?.filters.all ?? 0) > 0;
  const places = standable(site?.slots ?? []).filter(({ id }) => counts?.places[id] !== undefined);
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title={stopOf('rehearse').heading}>
        <div role="group" aria-label="Width of the screen" className="flex flex-wrap gap-1.5">
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
        {any && (
          <button
            className={`btn ${set?.rehearsed ? '' : 'btn-main'}`}
            onClick={() =>
              edit(set?.rehearsed ? 'page to be looked at again' : 'page rehearsed', [
                { kind: 'set', change: { rehearsed: !set?.rehearsed } },
              ])
            }
          >
            {set?.rehearsed ? 'Look at it again' : 'The page is right'}
          </button>
        )}
      </Head>
      {!any ? (
        <p className="p-10 text-center text-ink-2">
          There is no photo in the set yet, so the page is empty. Add photos at Gather.
        </p>
      ) : (
        <div
          className="min-h-0 flex-1 overflow-auto bg-stage p-8 max-[700px]:p-4"
          tabIndex={0}
          aria-label="Preview"
        >
          <div className="mx-auto bg-white" style={{ width: chosen.width * scale, height: HEIGHT * scale }}>
            <iframe
              key={`${chosen.width}-${edition}`}
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
      <footer className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-4 border-t border-rule-strong bg-raised px-4">
        <span>
          <b>{sent ? bytesInWords(sent.sent) : '–'}</b> of pictures on this screen if one scrolls through
          everything
          {phone ? ', at 2×' : ', at 1×'}
        </span>
        <span className="ml-auto text-ink-2">
          {left > 0 && `${left} versions are still being made; the page is shown anew when they are there. `}
          {scale < 1 ? `Shown at ${Math.round(scale * 100)} %. ` : ''}
          {places.map(({ name }) => name).join(', ')}
        </span>
      </footer>
    </main>
  );
}
