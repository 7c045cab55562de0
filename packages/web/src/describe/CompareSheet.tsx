// Photos with the same words side by side, each with its alt text at hand: so that they can be told apart.
import { frameSpace, shownName, sounded } from '@dusky-otter/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, sentenceOf } from '../api/client.ts';
import { stageFor } from '../frame/stage.ts';
import { useRow, useSite, type Row } from '../server/hooks.ts';
import { TurnedView } from '../ui/CropPicture.tsx';
import { Sheet } from '../ui/Sheet.tsx';
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

export function CompareSheet({ alt, setId, onClose }: { alt: string; setId: number; onClose: () => void }) {
  const heard = sounded(alt);
  const { data, error } = useQuery({
    queryKey: ['alike', setId, heard],
    queryFn: async () => {
      const found = await api.found(setId, heard);
      return found.filter(({ words }) => sounded(words.alt) === heard).map(({ id }) => id);
    },
    staleTime: Infinity,
    gcTime: 0,
  });
  return (
    <Sheet
      open
      onClose={onClose}
      title="Alike by ear"
      about="These photos have the same words. Say of each what the others don’t have."
      wide
    >
      {error && <p role="alert">{sentenceOf(error)}</p>}
      {data === undefined && !error && <p className="text-ink-2">Looking for them…</p>}
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
