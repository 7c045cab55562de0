// Chooses a file that is to take a photo's place. What it would change is shown before anything is.
import type { Photo } from '@dusky-otter/core/contract';
import { useRef } from 'react';
import { useSetId } from '../server/hooks.ts';
import { gather } from './arrivals.ts';

export function ReplaceButton({
  photo,
  className,
}: {
  photo: Pick<Photo, 'id' | 'fileName'>;
  className: string;
}) {
  const setId = useSetId();
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        className={className}
        aria-label={`Replace the picture of ${photo.fileName}`}
        onClick={() => input.current?.click()}
      >
        Replace
      </button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={`A file for ${photo.fileName}`}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void gather(setId, [file], { replaces: photo.id });
          // The same file may be chosen once more.
          event.target.value = '';
        }}
      />
    </>
  );
}
