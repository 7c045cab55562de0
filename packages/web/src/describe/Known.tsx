// What is known of a photo without asking anybody: what its file says, and where it goes.
import { slotsOf } from '@dusky-otter/core/plan';
import { slotsIn } from '@dusky-otter/core/slots';
import { WordsInPicture } from './WordsInPicture.tsx';
import { useSetPlaces, useSite, type Row } from '../server/hooks.ts';

const spoken = (local: string): string =>
  new Date(local).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  });

interface Props {
  row: Row;
  takeOver: (field: 'alt' | 'caption' | 'title' | 'credit') => void;
  /** Puts the words that the picture shows into a text. */
  put: (field: 'alt' | 'longDescription') => void;
}

export function Known({ row, takeOver, put }: Props) {
  const site = useSite();
  const setPlaces = useSetPlaces();
  const { takenAt, camera, hasPosition, found } = row.original;
  const places = site ? slotsIn(site, slotsOf(row, setPlaces)).map(({ name }) => name) : [];
  const facts = [
    takenAt && `Taken ${spoken(takenAt)}${camera ? ` with ${camera}` : ''}.`,
    hasPosition && 'It says where it was taken; that doesn’t go out.',
    places.length > 0 ? `Goes to ${places.join(', ')}.` : 'Goes nowhere yet.',
  ].filter(Boolean);
  const offered = (['alt', 'caption', 'title', 'credit'] as const).filter(
    (field) => found[field] !== '' && found[field] !== row.words[field],
  );
  return (
    <section
      aria-label="What the file knows"
      className="border-t border-rule bg-sheet px-4 py-2.5 text-[12.5px] text-ink-2"
    >
      <p>
        <b className="text-ink">The file knows:</b> {facts.join(' ')}
      </p>
      <WordsInPicture row={row} put={put} />
      {offered.length > 0 && (
        <ul className="mt-1 grid gap-1">
          {offered.map((field) => (
            <li key={field} className="flex items-baseline gap-2">
              <span className="min-w-0">
                {field === 'alt' ? 'Alt text' : field.charAt(0).toUpperCase() + field.slice(1)} “
                {found[field].slice(0, 120)}”
              </span>
              <button className="chip h-[22px]" onClick={() => takeOver(field)}>
                Take it over
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
