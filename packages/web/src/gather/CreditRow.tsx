// Names that files bring: asked about before one stands with a caption.
import { saveManyWords } from '../editing/edits.ts';
import { photosOf } from '../editing/photos.ts';
import { notifyFailure } from '../screen/screen.ts';
import { useSetId } from '../server/hooks.ts';
import { some } from '../ui/some.ts';
import { StateTag } from '../ui/marks.tsx';
import { dismissCredits, useGathering } from './arrivals.ts';

/** Names that are said; more are counted. */
const NAMED = 3;

export function CreditRow() {
  const setId = useSetId();
  const credits = useGathering((state) => state.credits);
  const here = credits.filter((one) => one.setId === setId);
  if (here.length === 0) return null;
  const names = [...new Set(here.map(({ credit }) => credit))];
  const more = names.length - NAMED;
  const show = async () => {
    // They may not be on the part of the table that was read.
    const photos = await photosOf(
      setId,
      here.map(({ photo }) => photo),
    );
    const open = photos.filter(({ words }) => words.credit === '');
    saveManyWords(
      `credit of ${some(open.length, 'photo', 'photos')}`,
      open.map(({ id, original }) => ({ id, words: { credit: original.found.credit } })),
    );
    dismissCredits(setId);
  };
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-3 border-b border-rule-strong bg-sheet py-2 pl-[56px] pr-4 max-[700px]:pl-2.5">
      <StateTag state="todo">
        {`${some(here.length, 'file brings', 'files bring')} a name: ${names.slice(0, NAMED).join(', ')}${more > 0 ? ` and ${more} more` : ''}`}
      </StateTag>
      <span className="min-w-0 text-ink-2">
        It stands on no page yet. Each photo’s bench offers it later, too.
      </span>
      <span className="ml-auto flex gap-1.5">
        <button className="chip" onClick={() => void show().catch(notifyFailure)}>
          Show it with the captions
        </button>
        <button className="chip" onClick={() => dismissCredits(setId)}>
          Leave it out
        </button>
      </span>
    </div>
  );
}
