// Words from a table: what it would change, what it contradicts, what it can't be understood of, and what is still to come.
import { placementsFor, type Command, type Photo, type WordsPreview } from '@dusky-otter/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf, wordsAddress } from '../api/client.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { useSite } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { StateTag } from '../ui/marks.tsx';
import { photosOf } from '../worktable/photos.ts';
import { ChangeList } from './ChangeList.tsx';

interface Read {
  name: string;
  text: string;
  preview: WordsPreview;
}

const some = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

function Choose({ setId, read }: { setId: number; read: (file: File) => void }) {
  const { data: plan, refetch } = useQuery({ queryKey: ['plan', setId], queryFn: () => api.plan(setId) });
  return (
    <div className="grid gap-3">
      <p>
        A CSV file whose first line names its columns: <b>file</b> or <b>sha256</b>, and any of role, alt
        text, caption, title, credit, long description, link, new window, place. What a cell leaves empty
        stays as it is.
      </p>
      <div className="flex flex-wrap gap-2">
        <label className="btn btn-main cursor-pointer focus-within:outline-2 focus-within:outline-focus">
          Choose a table
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            className="sr-only"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) read(file);
            }}
          />
        </label>
        <a className="btn" href={wordsAddress(setId)} download>
          Take the words out as a table
        </a>
      </div>
      {plan !== undefined && plan.count > 0 && (
        <p className="flex flex-wrap items-baseline gap-2 border-t border-rule pt-3">
          Words wait for {some(plan.count, 'file', 'files')} still to come:{' '}
          {plan.names.slice(0, 5).join(', ')}
          {plan.count > 5 && ' …'}
          <button
            className="chip"
            onClick={() => void api.dropPlan(setId).then(() => refetch(), notifyFailure)}
          >
            Forget them
          </button>
        </p>
      )}
    </div>
  );
}

function Result({ found, over, setOver }: { found: Read; over: boolean; setOver: (over: boolean) => void }) {
  const { preview, name } = found;
  const slots = useSite()?.slots ?? [];
  const conflicts = preview.changes.filter((change) => Object.keys(change.conflicts).length > 0);
  const placed = preview.changes.filter((change) => change.slots !== null).length;
  const changes = preview.changes
    .map(({ photo, added, conflicts: other }) => ({
      photo,
      words: { ...added, ...(over && other) },
    }))
    .filter(({ words }) => Object.keys(words).length > 0);
  return (
    <>
      <ul className="grid gap-1" aria-label="What the table says">
        <li>
          {name}: {some(preview.lines, 'line', 'lines')}, {preview.alike} of them say what is said already.
        </li>
        {preview.unknown.length > 0 && (
          <li>
            <StateTag state="care">Columns that are left out: {preview.unknown.join(', ')}</StateTag>
          </li>
        )}
        {placed > 0 && (
          <li>
            Places of {some(placed, 'photo', 'photos')} are set as well
            {preview.changes.some(({ unknownPlaces }) => unknownPlaces.length > 0) &&
              `; there is no place called ${[...new Set(preview.changes.flatMap(({ unknownPlaces }) => unknownPlaces))].join(', ')} (there are: ${slots.map((slot) => slot.name).join(', ')})`}
            .
          </li>
        )}
        {preview.unclear.map(({ line, fileName, sentence }) => (
          <li key={line}>
            <StateTag state="care">
              Line {line}
              {fileName && ` (${fileName})`}: {sentence}
            </StateTag>
          </li>
        ))}
        {preview.waiting.count > 0 && (
          <li>
            {some(preview.waiting.count, 'file is', 'files are')} not in the set yet (
            {preview.waiting.names.slice(0, 6).join(', ')}
            {preview.waiting.count > 6 && ' …'}); their words can wait for them.
          </li>
        )}
      </ul>
      {conflicts.length > 0 && (
        <label className="mt-3 flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-kelp"
            checked={over}
            onChange={(event) => setOver(event.target.checked)}
          />
          Take the table’s words also where something else is said already (
          {some(conflicts.length, 'photo', 'photos')})
        </label>
      )}
      {changes.length > 0 ? (
        <ChangeList changes={changes} />
      ) : (
        <p className="mt-3 text-ink-2">No words would change.</p>
      )}
    </>
  );
}

/** Carries the changes out as one edit, which one undo takes back. */
async function apply(setId: number, { name, preview }: Read, over: boolean, language: string): Promise<void> {
  const placed = preview.changes.filter((change) => change.slots !== null);
  const photos = new Map<number, Photo>(
    (
      await photosOf(
        setId,
        placed.map((change) => change.photo.id),
      )
    ).map((photo) => [photo.id, photo]),
  );
  const commands = preview.changes.flatMap(({ photo, added, conflicts, slots }): Command[] => {
    const words = { ...added, ...(over && conflicts) };
    const own = photos.get(photo.id);
    return [
      ...(Object.keys(words).length > 0
        ? [{ kind: 'words', photo: photo.id, language, words } as const]
        : []),
      ...(slots && own
        ? [{ kind: 'placements', photo: photo.id, placements: placementsFor(own, slots) } as const]
        : []),
    ];
  });
  edit(`words from ${name}`, commands);
}

export function TableSheet({ setId, onClose }: { setId: number; onClose: () => void }) {
  const client = useQueryClient();
  const language = useSite()?.languages[0] ?? 'en';
  const [found, setFound] = useState<Read | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [over, setOver] = useState(false);
  const read = async (file: File) => {
    try {
      const text = await file.text();
      const preview = await api.wordsPreview(setId, text);
      setProblem(preview.problem);
      setFound(preview.problem === null ? { name: file.name, text, preview } : null);
    } catch (error) {
      setFound(null);
      setProblem(sentenceOf(error));
    }
  };
  const go = async ({ text, preview }: Read, keep: boolean) => {
    try {
      await apply(setId, found!, over, language);
      if (keep && preview.waiting.count > 0) {
        const { kept } = await api.keepPlan(setId, text);
        await client.invalidateQueries({ queryKey: ['plan', setId] });
        notify(`Words wait for ${some(kept, 'file', 'files')} still to come.`);
      }
      onClose();
    } catch (error) {
      notifyFailure(error);
    }
  };
  return (
    <Sheet
      open
      onClose={onClose}
      title="Words from a table"
      about="Nothing is changed before you have seen it, and nothing is overwritten unasked."
      wide
    >
      {problem !== null && (
        <p role="alert" className="mb-3 text-rust">
          {problem}
        </p>
      )}
      {found ? (
        <>
          <Result found={found} over={over} setOver={setOver} />
          <div className="mt-4 flex flex-wrap gap-2">
            <button className="btn btn-main" onClick={() => void go(found, true)}>
              {found.preview.waiting.count > 0 ? 'Take them, and keep the rest for later' : 'Take them'}
            </button>
            {found.preview.waiting.count > 0 && (
              <button className="btn" onClick={() => void go(found, false)}>
                Only those that are here
              </button>
            )}
            <button className="btn" onClick={() => setFound(null)}>
              Another table
            </button>
          </div>
        </>
      ) : (
        <Choose setId={setId} read={(file) => void read(file)} />
      )}
    </Sheet>
  );
}
