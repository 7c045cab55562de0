// Words that were found in the picture: where they stand, and the way into the texts that carry them.
import { isCarried } from '@dusky-otter/core/words';
import { useState } from 'react';
import { api } from '../api/client.ts';
import { notifyFailure } from '../screen/screen.ts';
import { useSetId, type Row } from '../server/hooks.ts';
import { turnedStyle } from '../ui/CropPicture.tsx';

const percent = (part: number): string => `${part * 100}%`;

/** Outlines over the picture. */
export function ShownBoxes({ row }: { row: Row }) {
  const { shows = [] } = row.original;
  if (shows.length === 0) return null;
  return (
    <div aria-hidden="true" className="pointer-events-none absolute" style={turnedStyle(row)}>
      {shows.map(({ box }, n) => (
        <span
          key={n}
          className="absolute outline-2 outline-offset-2 outline-focus"
          style={{
            left: percent(box.left),
            top: percent(box.top),
            width: percent(box.right - box.left),
            height: percent(box.bottom - box.top),
          }}
        />
      ))}
    </div>
  );
}

/** Pictures are read when there is time; one can be asked for at once. */
function NotYet({ photo }: { photo: number }) {
  const setId = useSetId();
  const [asked, setAsked] = useState(false);
  const look = () => {
    setAsked(true);
    api.lookForWords(setId, photo).catch((error: unknown) => {
      setAsked(false);
      notifyFailure(error);
    });
  };
  return (
    <p className="flex flex-wrap items-baseline gap-2" role="status">
      {asked ? 'Looking for words in the picture…' : 'Words in the picture have not been looked for yet.'}
      {!asked && (
        <button className="chip h-[22px]" onClick={look}>
          Look now
        </button>
      )}
    </p>
  );
}

/** What is shown in words, and whether a text tells it. */
export function WordsInPicture({ row, put }: { row: Row; put: (field: 'alt' | 'longDescription') => void }) {
  const { shows } = row.original;
  if (shows === undefined) return <NotYet photo={row.id} />;
  if (shows.length === 0) return <p>No words were found in the picture.</p>;
  const { alt, caption, longDescription } = row.words;
  const told = isCarried(shows, [alt, caption, longDescription]);
  return (
    <div className="mt-1 flex flex-wrap items-baseline gap-x-2 gap-y-1">
      <span className="max-h-[4.2em] min-w-0 flex-1 basis-[200px] overflow-auto">
        <b className="text-ink">The picture shows:</b> “{shows.map(({ text }) => text).join(' / ')}”
        {told ? ', and the words tell it.' : ''}
      </span>
      {!told && (
        <>
          <button className="chip h-[22px]" onClick={() => put('alt')}>
            Into the alt text
          </button>
          <button className="chip h-[22px]" onClick={() => put('longDescription')}>
            Into the long description
          </button>
        </>
      )}
    </div>
  );
}
