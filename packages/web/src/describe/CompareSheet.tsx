// Photos with the same words, or nearly the same, side by side, each with its alt text at hand: so that they can be told
// apart. Several groups come one after the other.
import type { Language } from '@dusky-otter/core/contract';
import { frameSpace } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { alikeAltsInTurns, sounded } from '@dusky-otter/core/words';
import { useQuery } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api/client.ts';
import { stageFor } from '../ui/stage.ts';
import { useRow, useSite, type Row } from '../server/hooks.ts';
import { TurnedView } from '../ui/CropPicture.tsx';
import { Sheet } from '../ui/Sheet.tsx';
import { photosOf } from '../editing/photos.ts';
import { inTurns } from '../screen/turns.ts';
import { useDescribed } from './described.ts';
import { TextField } from './TextField.tsx';

/** Room for a picture, in px. */
const ROOM = { width: 330, height: 240 };
/** Photos beside each other; more are seen to one after the other. */
const MOST = 6;

function One({ row, setId }: { row: Row; setId: number }) {
  const described = useDescribed(row, setId, useSite()?.languages[0] ?? 'en');
  const { width, height } = stageFor(frameSpace(row.original, row.frame), ROOM);
  return (
    <li className="grid content-start gap-2">
      <div className="grid place-items-center bg-neutral" style={{ height: ROOM.height }}>
        <div className="relative overflow-hidden" style={{ width, height }}>
          <TurnedView photo={row} size="bench" />
        </div>
      </div>
      <Link to={`/sets/${setId}/describe/${row.id}`} className="font-semibold underline underline-offset-2">
        {shownName(row.words, row.fileName)}
      </Link>
      <TextField described={described} field="alt" label="Alt text" rows={3} />
    </li>
  );
}

function ById({ id, setId }: { id: number; setId: number }) {
  const row = useRow(id);
  return row && !row.binned ? <One row={row} setId={setId} /> : null;
}

/** Photos of a set that sound as a text does. */
export async function soundingAs(setId: number, alt: string): Promise<number[][]> {
  const heard = sounded(alt);
  const found = await api.found(setId, heard);
  return [found.filter(({ words }) => sounded(words.alt) === heard).map(({ id }) => id)];
}

/** Groups among some photos that sound alike. */
export async function soundingAlike(
  setId: number,
  ids: readonly number[],
  language: Language,
): Promise<number[][]> {
  const photos = await photosOf(setId, ids);
  return inTurns(
    alikeAltsInTurns(
      photos.map(({ id, words, fileName }) => ({
        id,
        name: shownName(words, fileName),
        alt: words.alt,
        decorative: words.role === 'decorative',
      })),
      language,
    ),
  );
}

interface CompareProps {
  setId: number;
  /** Groups of photos; asked once, so that those that are told apart stay where they are meanwhile. */
  find: () => Promise<number[][]>;
  onClose: () => void;
}

export function CompareSheet({ setId, find, onClose }: CompareProps) {
  const [group, setGroup] = useState(0);
  const key = useId();
  const { data: groups, error } = useQuery({
    queryKey: ['alike', setId, key],
    queryFn: find,
    staleTime: Infinity,
    gcTime: 0,
  });
  const data = groups?.[group];
  return (
    <Sheet
      open
      onClose={onClose}
      title="Alike by ear"
      about="These photos have the same words, or nearly the same. Say of each what the others don’t have."
      wide
    >
      {error && <p role="alert">{sentenceOf(error)}</p>}
      {groups === undefined && !error && <p className="text-ink-2">Looking for them…</p>}
      {groups?.length === 0 && <p>No two of these photos sound alike.</p>}
      {groups !== undefined && groups.length > 1 && (
        <p className="mb-3 flex items-baseline gap-2">
          Group {group + 1} of {groups.length}
          <button className="chip" disabled={group === 0} onClick={() => setGroup(group - 1)}>
            The group before
          </button>
          <button className="chip" disabled={group === groups.length - 1} onClick={() => setGroup(group + 1)}>
            The next group
          </button>
        </p>
      )}
      <ul className="grid grid-cols-2 gap-4 max-[700px]:grid-cols-1">
        {data?.slice(0, MOST).map((id) => (
          <ById key={id} id={id} setId={setId} />
        ))}
      </ul>
      {data && data.length > MOST && (
        <p className="mt-3 text-ink-2">and {data.length - MOST} more; they come when these are told apart.</p>
      )}
    </Sheet>
  );
}
