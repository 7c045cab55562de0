// How far the second pass has come, which looks for smaller files, and a way to have it now.
import { bytesInWords } from '@dusky-otter/core/weight';
import { usePreparation, useSite } from '../server/hooks.ts';
import { askThorough } from '../server/state.ts';

export function ThoroughPass() {
  const preparation = usePreparation();
  const site = useSite();
  if (!preparation || !site || preparation.thorough.wanted === 0) return null;
  const { wanted, made, saved, now } = preparation.thorough;
  const less = saved > 0 ? `, ${bytesInWords(saved)} less so far` : '';
  const isOver = made >= wanted;
  return (
    <p className="flex flex-wrap items-center gap-x-2 gap-y-1 text-[12.5px] text-ink-2">
      {isOver ? (
        `For every file a smaller one that looks the same was looked for${saved > 0 ? `: ${bytesInWords(saved)} less` : ''}.`
      ) : (
        <>
          <span
            role="progressbar"
            aria-label="Smaller files looked for"
            aria-valuemin={0}
            aria-valuemax={wanted}
            aria-valuenow={made}
            aria-valuetext={`${made} of ${wanted} files`}
          >
            Smaller files that look the same: looked for {made} of {wanted}
            {less}
            {now ? '…' : site.policy.thorough === false ? '.' : ', more when nothing else is to do.'}
          </span>
          <button className="chip" onClick={() => void askThorough(!now)}>
            {now ? 'No hurry' : 'Look for them now'}
          </button>
        </>
      )}
    </p>
  );
}
