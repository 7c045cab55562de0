// Words from a table: what it would change, what it contradicts, what it can't be understood of, and what is still to come.
import { languageName, NO_WORDS } from '@dusky-otter/core/words';
import type { Language, Photo } from '@dusky-otter/core/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf, wordsAddress } from '../api/client.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { useSetPlaces, useSite } from '../server/hooks.ts';
import { photosOf } from '../editing/photos.ts';
import { edit } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { StateTag } from '../ui/marks.tsx';
import { Tick } from '../ui/Tick.tsx';
import { ChangeList, type AskedOneByOne, type WordsChange } from './ChangeList.tsx';
import {
  conflictsIn,
  nameOfText,
  tableCommands,
  type Change,
  type ReadTable,
  type Taken,
  type Where,
} from './table-changes.ts';
import { some } from '../ui/some.ts';

interface ChooseProps {
  setId: number;
  language: Language;
  setLanguage: (language: Language) => void;
  read: (file: File) => void;
}

function Choose({ setId, language, setLanguage, read }: ChooseProps) {
  const languages = useSite()?.languages ?? [];
  const { data: plan, refetch } = useQuery({ queryKey: ['plan', setId], queryFn: () => api.plan(setId) });
  return (
    <div className="grid gap-3">
      <p>
        A CSV file whose first line names its columns: <b>file</b> or <b>sha256</b>, and any of role, alt
        text, caption, title, credit, long description, link, new window, place. A column such as{' '}
        <b>alt text in Text column</b> holds in that place alone. What a cell leaves empty stays as it is.
      </p>
      {languages.length > 1 && (
        <label className="flex items-baseline gap-2">
          The words are in
          <select
            className="field w-auto"
            value={language}
            onChange={(event) => setLanguage(event.target.value)}
          >
            {languages.map((one) => (
              <option key={one} value={one}>
                {languageName(one)}
              </option>
            ))}
          </select>
        </label>
      )}
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
        <a className="btn" href={wordsAddress(setId, language)} download>
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

interface ResultProps {
  found: ReadTable;
  taken: Taken;
  setTaken: (taken: Taken) => void;
}

function Result({ found, taken, setTaken }: ResultProps) {
  const { preview, name } = found;
  const { slots, languages } = useSite() ?? { slots: [], languages: [] };
  const main = languages[0];
  const isConflict = (change: Change) => conflictsIn(change).length > 0;
  const conflicts = preview.changes.filter(isConflict);
  const placed = preview.changes.filter((change) => change.slots !== null).length;
  const all = conflicts.flatMap(conflictsIn);
  const other = new Set(all);
  // What has to be decided comes first.
  const changes = [...conflicts, ...preview.changes.filter((change) => !isConflict(change))]
    .flatMap(({ photo, added, conflicts: instead, here }): WordsChange[] => [
      { photo, words: { ...instead, ...added } },
      ...here.map((one) => ({
        photo: { ...photo, words: { ...NO_WORDS, ...one.now } },
        words: { ...one.conflicts, ...one.added },
        place: { id: one.slot, name: slots.find(({ id }) => id === one.slot)?.name ?? one.slot },
      })),
    ])
    .filter(({ words }) => Object.keys(words).length > 0);
  const asked: AskedOneByOne = {
    isConflict: (photo, field) => other.has(nameOfText(photo, field)),
    isTaken: (photo, field) => taken.has(nameOfText(photo, field)),
    take: (photo, field, on) => {
      const next = new Set(taken);
      if (on) next.add(nameOfText(photo, field));
      else next.delete(nameOfText(photo, field));
      setTaken(next);
    },
  };
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
            {preview.waiting.count > 6 && ' …'});{' '}
            {found.language === main
              ? 'their words can wait for them.'
              : 'only words in the first language can wait for them.'}
          </li>
        )}
      </ul>
      {conflicts.length > 0 && (
        <Tick
          className="mt-3"
          checked={taken.size === all.length}
          set={(on) => setTaken(new Set(on ? all : []))}
        >
          Take all {some(all.length, 'text', 'texts')} that would stand instead of another (
          {some(conflicts.length, 'photo', 'photos')}); or tick them one by one
        </Tick>
      )}
      {changes.length > 0 ? (
        <ChangeList changes={changes} asked={asked} />
      ) : (
        <p className="mt-3 text-ink-2">No words would change.</p>
      )}
    </>
  );
}

/** Carries the changes out as one edit, which one undo takes back. */
async function apply(
  setId: number,
  table: ReadTable,
  taken: Taken,
  where: Omit<Where, 'language'>,
): Promise<void> {
  const placed = table.preview.changes.filter(({ slots, here }) => slots !== null || here.length > 0);
  const photos = new Map<number, Photo>(
    (
      await photosOf(
        setId,
        placed.map((change) => change.photo.id),
      )
    ).map((photo) => [photo.id, photo]),
  );
  edit(`words from ${table.name}`, tableCommands(table, photos, where, taken));
}

export function TableSheet({ setId, onClose }: { setId: number; onClose: () => void }) {
  const client = useQueryClient();
  const main = useSite()?.languages[0] ?? 'en';
  const setPlaces = useSetPlaces();
  const [chosen, setLanguage] = useState<Language | null>(null);
  const language = chosen ?? main;
  const [found, setFound] = useState<ReadTable | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [taken, setTaken] = useState<Taken>(new Set());
  const read = async (file: File) => {
    try {
      const text = await file.text();
      const preview = await api.wordsPreview(setId, text, language);
      setProblem(preview.problem);
      setTaken(new Set());
      setFound(preview.problem === null ? { name: file.name, text, language, preview } : null);
    } catch (error) {
      setFound(null);
      setProblem(sentenceOf(error));
    }
  };
  const canWait = found !== null && found.language === main && found.preview.waiting.count > 0;
  const go = async ({ text }: ReadTable, keep: boolean) => {
    try {
      await apply(setId, found!, taken, { setPlaces, main });
      if (keep) {
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
          <Result found={found} taken={taken} setTaken={setTaken} />
          <div className="mt-4 flex flex-wrap gap-2">
            <button className="btn btn-main" onClick={() => void go(found, canWait)}>
              {canWait ? 'Take them, and keep the rest for later' : 'Take them'}
            </button>
            {canWait && (
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
        <Choose
          setId={setId}
          language={language}
          setLanguage={setLanguage}
          read={(file) => void read(file)}
        />
      )}
    </Sheet>
  );
}
