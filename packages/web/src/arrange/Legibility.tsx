// Whether words over a picture can be read: the least contrast with the pixels behind them, over all pictures and widths, and
// how much has to be covered where it is too little.
import { contrastOver, LEAST_CONTRAST, scrimFor } from '@dusky-otter/core/arrange';
import type { Arranged, RotatingOptions } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { useQuery } from '@tanstack/react-query';
import { sentenceOf } from '../api/client.ts';
import type { Row } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import { pixelsBehind, type Behind } from './behind-words.ts';

interface Props {
  arranged: Arranged & { options: RotatingOptions };
  address: string;
  rows: readonly Row[];
  change: (arranged: Arranged) => void;
}

/** The piece with the least contrast. */
function worstOf(pieces: readonly Behind[], { ink, scrim }: RotatingOptions) {
  return pieces
    .map((piece) => ({ ...piece, contrast: contrastOver(piece.pixels, ink, scrim) }))
    .reduce((least, one) => (one.contrast < least.contrast ? one : least));
}

export function Legibility({ arranged, address, rows, change }: Props) {
  const { options } = arranged;
  // How much is covered, and in which colour, changes nothing of where words stand.
  const laidOut = JSON.stringify({ ...options, scrim: 0, ink: 'light' });
  const kept = address.replace(/&?as=[^&]*/, '');
  const { data: pieces, error } = useQuery({
    queryKey: ['behind-words', kept, laidOut],
    gcTime: 0,
    queryFn: async ({ signal }) => {
      // What is still being chosen is not measured at each step.
      await new Promise((done) => setTimeout(done, 400));
      return pixelsBehind(address, signal);
    },
  });
  const set = (part: Partial<RotatingOptions>) => change({ ...arranged, options: { ...options, ...part } });
  const worst = pieces && pieces.length > 0 ? worstOf(pieces, options) : null;
  const enough = worst !== null && worst.contrast >= LEAST_CONTRAST;
  const all = pieces?.map(({ pixels }) => pixels) ?? [];
  const needed = worst && !enough ? scrimFor(all, options.ink) : null;
  const row = worst && rows[worst.picture];
  return (
    <section
      className="grid gap-1.5 border-t border-rule-strong pt-3 text-[13px]"
      aria-label="Words that can be read"
    >
      <h2 className="font-title text-[14px] font-[600]">Can the words be read?</h2>
      <div aria-live="polite" className="grid gap-1.5">
        {error && <p role="alert">{sentenceOf(error)}</p>}
        {!pieces && !error && <p className="text-ink-2">Looking behind them at six widths…</p>}
        {pieces?.length === 0 && <p className="text-ink-2">No picture has words here yet.</p>}
        {worst && (
          <>
            <StateTag state={enough ? 'ready' : 'care'}>
              {enough ? 'Everywhere' : 'Not everywhere'}: contrast {worst.contrast.toFixed(1)} at least
            </StateTag>
            <p className="text-ink-2">
              The least is over {row ? shownName(row.words, row.fileName) : 'a picture'} in a window of{' '}
              {worst.width} px; {LEAST_CONTRAST} is needed. Below 640 px the words stand under their picture.
            </p>
          </>
        )}
        {worst && !enough && needed !== null && (
          <button className="btn justify-self-start" onClick={() => set({ scrim: needed })}>
            Cover {Math.round(needed * 100)} % behind them
          </button>
        )}
        {worst && !enough && needed === null && (
          <button
            className="btn justify-self-start"
            onClick={() => set({ ink: options.ink === 'light' ? 'dark' : 'light' })}
          >
            Try them in {options.ink === 'light' ? 'black' : 'white'}
          </button>
        )}
      </div>
    </section>
  );
}
