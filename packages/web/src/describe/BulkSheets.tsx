// Texts for a selection: by a pattern, or by finding and replacing, each with what would become of it.
import type { Photo, WordsText } from '@dusky-otter/core/contract';
import { slotsOf } from '@dusky-otter/core/plan';
import { slotsIn } from '@dusky-otter/core/slots';
import { filled, LONGEST_TEXT, placeholdersIn, replaced } from '@dusky-otter/core/words';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { sentenceOf } from '../api/client.ts';
import { useSet, useSetPlaces, useSite, type OpenSet } from '../server/hooks.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { FIELD_NAMES, saveManyWords } from '../editing/edits.ts';
import { photosOf } from '../editing/photos.ts';
import { ChangeList, differing, type WordsChange } from './ChangeList.tsx';
import { Tick } from '../ui/Tick.tsx';

interface Props {
  ids: readonly number[];
  setId: number;
  onClose: () => void;
}

const TEXTS: readonly WordsText[] = ['alt', 'caption', 'title', 'credit', 'longDescription'];
const BY_PATTERN: readonly WordsText[] = ['caption', 'title', 'credit'];

/** What may stand in braces, and what it is. */
const PLACEHOLDERS = {
  title: 'its title',
  caption: 'its caption',
  alt: 'its alt text',
  credit: 'its credit',
  place: 'where it goes',
  file: 'its file name',
  date: 'when it was taken',
  number: 'its place in the selection',
  set: 'the set',
  site: 'the site',
} as const;

const dateOf = ({ original: { takenAt } }: Photo): string =>
  takenAt
    ? new Date(takenAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
    : '';

function valuesOf(
  photo: Photo,
  number: number,
  { site, set, setPlaces }: OpenSet,
): Record<keyof typeof PLACEHOLDERS, string> {
  const { title, caption, alt, credit } = photo.words;
  const places = site ? slotsIn(site, slotsOf(photo, setPlaces)).map(({ name }) => name) : [];
  return {
    ...{ title, caption, alt, credit },
    place: places.join(', '),
    file: photo.fileName.replace(/\.[^.]+$/, ''),
    date: dateOf(photo),
    number: String(number),
    set: set?.name ?? '',
    site: site?.name ?? '',
  };
}

const usePhotos = ({ setId, ids }: Props) =>
  useQuery({ queryKey: ['bulk', setId, ids], queryFn: () => photosOf(setId, ids), staleTime: 0, gcTime: 0 });

/** The frame of both: what is asked, what would become of it, and the button that does it. */
function Bulk({
  title,
  about,
  label,
  changes,
  problem,
  reading,
  onClose,
  children,
}: {
  title: string;
  about: string;
  label: string;
  changes: readonly WordsChange[];
  problem: string | null;
  reading: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  const found = differing(changes);
  const tooLong = found.some(({ words }) =>
    Object.values(words).some((text) => typeof text === 'string' && text.length > LONGEST_TEXT),
  );
  const wrong = problem ?? (tooLong ? `A text would be longer than ${LONGEST_TEXT} characters.` : null);
  const apply = () => {
    saveManyWords(
      label,
      found.map(({ photo, words }) => ({ id: photo.id, words })),
    );
    onClose();
  };
  return (
    <Sheet open onClose={onClose} title={title} about={about} wide>
      <div className="grid gap-3">{children}</div>
      {wrong !== null && (
        <p role="alert" className="mt-3 text-rust">
          {wrong}
        </p>
      )}
      <p role="status" className="mt-3 text-ink-2">
        {reading
          ? 'Reading the photos…'
          : found.length === 0
            ? 'Nothing would change.'
            : `${found.length} ${found.length === 1 ? 'photo changes' : 'photos change'}.`}
      </p>
      {found.length > 0 && <ChangeList changes={found} />}
      <div className="mt-4 flex gap-2">
        <button className="btn btn-main" disabled={found.length === 0 || wrong !== null} onClick={apply}>
          Change {found.length > 0 ? found.length : ''} {found.length === 1 ? 'photo' : 'photos'}
        </button>
        <button className="btn" onClick={onClose}>
          Cancel
        </button>
      </div>
    </Sheet>
  );
}

export function PatternSheet(props: Props) {
  const { data: photos = [], error, isPending } = usePhotos(props);
  const around = { site: useSite(), set: useSet(), setPlaces: useSetPlaces() };
  const [field, setField] = useState<WordsText>('caption');
  const [pattern, setPattern] = useState('');
  const [over, setOver] = useState(false);
  const unknown = placeholdersIn(pattern).filter((name) => !Object.hasOwn(PLACEHOLDERS, name));
  const changes = photos
    .map((photo, n) => ({
      photo,
      words: { [field]: filled(pattern, valuesOf(photo, n + 1, around)) },
    }))
    .filter(({ photo }) => pattern.trim() !== '' && (over || photo.words[field].trim() === ''));
  return (
    <Bulk
      title="Fill in by a pattern"
      about="One text for all, with what each photo has of its own in braces."
      label={`${FIELD_NAMES[field]} of ${props.ids.length} photos by a pattern`}
      changes={changes}
      reading={isPending}
      problem={
        error
          ? sentenceOf(error)
          : unknown.length > 0
            ? `There is no {${unknown[0]}}. There are: ${Object.keys(PLACEHOLDERS).join(', ')}.`
            : null
      }
      onClose={props.onClose}
    >
      <label className="block font-semibold">
        Into
        <select
          className="field mt-1"
          value={field}
          onChange={(event) => setField(event.target.value as WordsText)}
        >
          {BY_PATTERN.map((one) => (
            <option key={one} value={one}>
              {FIELD_NAMES[one]}
            </option>
          ))}
        </select>
      </label>
      <label className="block font-semibold">
        Pattern
        <input
          className="field mt-1 text-[15px]"
          placeholder="{title}, {place}"
          value={pattern}
          onChange={(event) => setPattern(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap gap-1" role="group" aria-label="Put in">
        {Object.entries(PLACEHOLDERS).map(([name, what]) => (
          <button key={name} className="chip" title={what} onClick={() => setPattern(`${pattern}{${name}}`)}>
            {`{${name}}`}
          </button>
        ))}
      </div>
      <Tick checked={over} set={setOver}>
        Also where there is a text already
      </Tick>
    </Bulk>
  );
}

export function ReplaceSheet(props: Props) {
  const { data: photos = [], error, isPending } = usePhotos(props);
  const [find, setFind] = useState('');
  const [replacement, setReplacement] = useState('');
  const [exactCase, setExactCase] = useState(false);
  const [wholeWords, setWholeWords] = useState(true);
  const [fields, setFields] = useState<ReadonlySet<WordsText>>(new Set(TEXTS));
  const how = { find, replacement, exactCase, wholeWords };
  const changes = photos.map((photo) => ({
    photo,
    words: Object.fromEntries(
      TEXTS.filter((field) => fields.has(field)).map((field) => [field, replaced(photo.words[field], how)]),
    ),
  }));
  const box = (name: string, checked: boolean, change: (on: boolean) => void) => (
    <Tick key={name} checked={checked} set={change}>
      {name}
    </Tick>
  );
  return (
    <Bulk
      title="Find and replace"
      about="Over the words of what is selected; each change is shown before it is made."
      label={`“${find}” replaced in words`}
      changes={changes}
      reading={isPending}
      problem={error ? sentenceOf(error) : null}
      onClose={props.onClose}
    >
      <div className="grid grid-cols-2 gap-3 max-[600px]:grid-cols-1">
        <label className="block font-semibold">
          Find
          <input
            className="field mt-1 text-[15px]"
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        </label>
        <label className="block font-semibold">
          Replace by
          <input
            className="field mt-1 text-[15px]"
            value={replacement}
            onChange={(event) => setReplacement(event.target.value)}
          />
        </label>
      </div>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {box('Whole words only', wholeWords, setWholeWords)}
        {box('Capitals as typed', exactCase, setExactCase)}
      </div>
      <div role="group" aria-label="Look in" className="flex flex-wrap gap-x-4 gap-y-1">
        {TEXTS.map((field) =>
          box(FIELD_NAMES[field], fields.has(field), (on) => {
            const next = new Set(fields);
            if (on) next.add(field);
            else next.delete(field);
            setFields(next);
          }),
        )}
      </div>
    </Bulk>
  );
}
