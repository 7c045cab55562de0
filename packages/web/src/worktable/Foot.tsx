// What can be done with the photos on the table: what they weigh in all, and copying, placing, binning, downloading.
import type { Filter } from '@dusky-otter/core/contract';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { wordsSaid } from '../describe/Progress.tsx';
import { WordsMenu } from '../describe/WordsMenu.tsx';
import { DownloadSheet } from '../handover/DownloadSheet.tsx';
import { LanguagesLink } from '../languages/LanguagesLink.tsx';
import { openSheet, useScreen } from '../screen/screen.ts';
import { useCounts } from '../server/hooks.ts';
import { idsQuery } from '../server/state.ts';
import { WeighMenu } from '../weigh/WeighMenu.tsx';
import { CopyMenu } from './CopyMenu.tsx';
import { binSelected } from '../editing/edits.ts';
import { FrameMenu } from './FrameMenu.tsx';
import { PlaceMenu } from './PlaceMenu.tsx';

/** What the buttons act on, in words. */
function actingOn(chosen: number, hidden: number, all: number): string {
  if (chosen > 0)
    return hidden > 0 ? `${chosen} selected, ${hidden} more hidden by the filter` : `${chosen} selected`;
  if (hidden > 0) return `${hidden} selected, hidden by the filter`;
  return all === 1 ? 'The photo goes' : `All ${all} photos go`;
}

/** Of what is selected only what stands under the filter is acted on: what a filter hides is not seen. */
export function Foot({ setId, filter, describing }: { setId: number; filter: Filter; describing: boolean }) {
  const counts = useCounts();
  const selected = useScreen((state) => state.selected);
  const downloading = useScreen((state) => state.sheet === 'download');
  // Asked for only where something may be hidden.
  const { data } = useQuery({ ...idsQuery(setId, filter), enabled: selected.size > 0 });
  const chosen = useMemo(
    () => (data ? data.ids.filter((id) => selected.has(id)) : [...selected]),
    [data, selected],
  );
  const all = counts?.filters.all ?? 0;
  const acting = chosen.length > 0 ? chosen : null;
  // Beside the acts on what is selected there is less room.
  const beside = acting ? 'max-[1520px]:hidden' : 'max-[1380px]:hidden';
  return (
    <footer className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-3 gap-y-1.5 whitespace-nowrap border-t border-rule-strong bg-raised px-4 py-1.5 text-[13px] max-[700px]:gap-2 max-[700px]:px-2.5">
      <span className={`flex items-baseline gap-2 ${acting ? 'max-[1280px]:hidden' : 'max-[1120px]:hidden'}`}>
        {describing ? (
          counts ? (
            wordsSaid(counts.words)
          ) : (
            ''
          )
        ) : (
          <>
            {' '}
            <b className="text-[14.5px] font-[680]">{bytesInWords(counts?.camera ?? 0)}</b> from the camera
            <span aria-hidden="true">⟶</span>
            <b className="text-[14.5px] font-[680]">{bytesInWords(counts?.phone.sent ?? 0)}</b>{' '}
            <span>
              on a phone<span className={beside}>,</span>
            </span>{' '}
            <span className={`flex items-baseline gap-2 ${beside}`}>
              <b className="text-[14.5px] font-[680]">{bytesInWords(counts?.laptop.sent ?? 0)}</b> on a retina
              laptop
            </span>
            <span className={beside}>{counts?.laptop.complete === false ? 'so far' : ''}</span>
          </>
        )}
      </span>
      {describing && <LanguagesLink className="chip" />}
      <span className="ml-auto truncate text-ink-2 max-[820px]:ml-0 max-[820px]:basis-full">
        {actingOn(chosen.length, selected.size - chosen.length, all)}
      </span>
      {chosen.length > 0 && (
        <button className="btn max-[700px]:px-2" onClick={() => void binSelected(filter)}>
          Put into bin
        </button>
      )}
      <CopyMenu ids={acting} setId={setId} any={all > 0} />
      <FrameMenu ids={chosen} setId={setId} />
      {describing ? <WordsMenu ids={chosen} setId={setId} /> : <WeighMenu ids={chosen} setId={setId} />}
      <PlaceMenu ids={chosen} setId={setId} />
      <button className="btn max-[700px]:px-2" disabled={all === 0} onClick={() => openSheet('download')}>
        Download
      </button>
      <DownloadSheet open={downloading} onClose={() => openSheet(null)} ids={acting} setId={setId} />
    </footer>
  );
}
