// Words before and after a change of many photos: seen before anything of it is done.
import type { Photo, SlotId, Words } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { useState } from 'react';
import { viewAddress } from '../api/client.ts';
import { Tick } from '../ui/Tick.tsx';
import { FIELD_NAMES, inWords } from '../editing/edits.ts';
import { nameOfField } from './table-changes.ts';

export interface WordsChange {
  photo: Pick<Photo, 'id' | 'fileName' | 'words'> & { original: { hash: string } };
  words: Partial<Words>;
  /** The place in which alone they hold; everywhere where left out. */
  place?: { id: SlotId; name: string };
}

/** Photos that are drawn at first, and that come each time more are asked for. */
const SHOWN = 60;

/** Which texts are taken where something else is said already: those are asked about one by one. */
export interface AskedOneByOne {
  isConflict: (photo: number, field: string) => boolean;
  isTaken: (photo: number, field: string) => boolean;
  take: (photo: number, field: string, on: boolean) => void;
}

/** Only what is another text than before. */
export function differing(changes: readonly WordsChange[]): WordsChange[] {
  return changes.flatMap(({ photo, words }) => {
    const other = Object.entries(words).filter(
      ([field, text]) => inWords(text) !== inWords(photo.words[field as keyof Words]),
    );
    return other.length > 0 ? [{ photo, words: Object.fromEntries(other) }] : [];
  });
}

export function ChangeList({ changes, asked }: { changes: readonly WordsChange[]; asked?: AskedOneByOne }) {
  const [shown, setShown] = useState(SHOWN);
  return (
    <div className="mt-3">
      <table className="w-full border-t border-rule text-left text-[13px]">
        <caption className="sr-only">What would become of the words</caption>
        <thead className="text-[12px] text-ink-2">
          <tr>
            <th className="w-[56px] py-1 font-normal">
              <span className="sr-only">Picture</span>
            </th>
            <th className="font-normal">Photo</th>
            <th className="font-normal">Now</th>
            <th className="font-normal">Then</th>
          </tr>
        </thead>
        <tbody>
          {changes.slice(0, shown).flatMap(({ photo, words, place }) =>
            Object.entries(words)
              .map(([field, text]) => ({ field, text, named: nameOfField(field, place?.id) }))
              .map(({ field, text, named }, n) => (
                <tr key={`${photo.id} ${named}`} className="border-t border-rule align-top">
                  <td className="py-1.5">
                    {n === 0 && (
                      <img
                        src={viewAddress(photo.original.hash, 'row')}
                        alt=""
                        className="h-[34px] w-[46px] bg-neutral object-cover"
                      />
                    )}
                  </td>
                  <th scope="row" className="max-w-[150px] py-1.5 pr-2 font-semibold">
                    <span className="block truncate">{shownName(photo.words, photo.fileName)}</span>
                    <span className="block text-[12px] font-normal text-ink-2">
                      {FIELD_NAMES[field as keyof Words]}
                      {place && ` in ${place.name}`}
                    </span>
                  </th>
                  <td className="max-w-[220px] break-words py-1.5 pr-2 text-ink-2">
                    {inWords(photo.words[field as keyof Words]) || 'empty'}
                  </td>
                  <td className="max-w-[220px] break-words py-1.5">
                    {asked?.isConflict(photo.id, named) ? (
                      <Tick
                        checked={asked.isTaken(photo.id, named)}
                        set={(on) => asked.take(photo.id, named, on)}
                        className={asked.isTaken(photo.id, named) ? '' : 'text-ink-2'}
                      >
                        <span>
                          <span className="sr-only">
                            Instead, as {FIELD_NAMES[field as keyof Words]} of{' '}
                            {shownName(photo.words, photo.fileName)}:{' '}
                          </span>
                          {inWords(text)}
                        </span>
                      </Tick>
                    ) : (
                      inWords(text) || 'empty'
                    )}
                  </td>
                </tr>
              )),
          )}
        </tbody>
      </table>
      {changes.length > shown && (
        <p className="mt-2 flex items-baseline gap-2 text-ink-2">
          and {changes.length - shown} more photos
          <button className="chip" onClick={() => setShown(shown + SHOWN)}>
            Show {Math.min(SHOWN, changes.length - shown)} of them
          </button>
        </p>
      )}
    </div>
  );
}
