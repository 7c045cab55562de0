// Puts photos into an arrangement: of this set, and of the site's other sets, which then stand in this one, too.
import type { SentPhoto, SlotId } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, sentenceOf } from '../api/client.ts';
import { notifyFailure } from '../screen/screen.ts';
import { useList, useRows, useSetId, useSet, useSite, type Row } from '../server/hooks.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { Tick } from '../ui/Tick.tsx';
import { photosOf } from '../editing/photos.ts';
import { putInto } from '../editing/placing.ts';
import { Thumb } from './Thumb.tsx';

/** Photos that are offered at first, and that are added with each “more”. */
const MOST = 200;

interface Props {
  /** Photos that stand in it already. */
  here: readonly number[];
  slot: SlotId;
  onClose: () => void;
  /** Who was put in. */
  added?: (ids: readonly number[]) => void;
}

export function AddSheet({ here, slot, onClose, added }: Props) {
  const setId = useSetId();
  const set = useSet();
  const site = useSite();
  const [from, setFrom] = useState(setId);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [working, setWorking] = useState(false);
  const { data: pages } = useQuery({ queryKey: ['pages', setId], queryFn: () => api.pages(setId) });
  const [most, setMost] = useState(MOST);
  const list = useList('all', 0, most - 1);
  const rows = useRows(list.ids.slice(0, most));
  const elsewhere = useInfiniteQuery({
    queryKey: ['photos-elsewhere', from],
    enabled: from !== setId,
    initialPageParam: 0,
    queryFn: ({ pageParam }) => api.page(from, 'all', pageParam, MOST),
    getNextPageParam: (page) => (page.from + MOST < page.total ? page.from + MOST : undefined),
  });
  const standing = new Set(here);
  const all: readonly (Row | SentPhoto)[] =
    from === setId ? rows : (elsewhere.data?.pages.flatMap(({ photos }) => photos) ?? []);
  const offered = all.filter(({ id }) => !standing.has(id));
  const isMore = from === setId ? list.total > most : elsewhere.hasNextPage;
  const isReading = from === setId ? rows.length < Math.min(most, list.total) : elsewhere.isFetching;
  const toggle = (id: number, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
  const put = async () => {
    const ids = offered.filter(({ id }) => chosen.has(id)).map(({ id }) => id);
    setWorking(true);
    try {
      if (from !== setId) await api.borrow(setId, ids);
      putInto(await photosOf(setId, ids), { set: set!, site: site! }, slot);
      added?.(ids);
      onClose();
    } catch (error) {
      notifyFailure(error);
      setWorking(false);
    }
  };
  return (
    <Sheet
      open
      onClose={onClose}
      title="Put photos in"
      about="What comes from another set stands in this one, too, with its own words and frame."
    >
      <label className="mb-2 flex items-baseline gap-2">
        Photos of
        <select
          className="field w-auto"
          value={from}
          onChange={(event) => {
            setFrom(Number(event.target.value));
            setMost(MOST);
            setChosen(new Set());
          }}
        >
          <option value={setId}>this set</option>
          {(pages?.pages ?? [])
            .filter((page) => page.set !== setId)
            .map((page) => (
              <option key={page.set} value={page.set}>
                {page.title}
              </option>
            ))}
        </select>
      </label>
      {elsewhere.error && <p role="alert">{sentenceOf(elsewhere.error)}</p>}
      {offered.length === 0 && <p>{isReading ? 'Reading…' : 'All of these photos stand in it already.'}</p>}
      <div
        className="grid max-h-[46vh] overflow-auto"
        tabIndex={0}
        role="region"
        aria-label="Photos to put in"
      >
        {offered.map((row) => (
          <Tick
            key={row.id}
            className="border-t border-rule py-1.5"
            checked={chosen.has(row.id)}
            set={(on) => toggle(row.id, on)}
          >
            <Thumb row={row} />
            {shownName(row.words, row.fileName)}
          </Tick>
        ))}
        {isMore && (
          <button
            className="chip my-2 w-fit"
            onClick={() => (from === setId ? setMost(most + MOST) : void elsewhere.fetchNextPage())}
          >
            {isReading ? 'Reading…' : 'Show more of them'}
          </button>
        )}
      </div>
      <div className="mt-3 flex gap-2">
        <button className="btn btn-main" disabled={chosen.size === 0 || working} onClick={() => void put()}>
          Put {chosen.size === 0 ? 'them' : chosen.size} in
        </button>
        <button
          className="btn"
          disabled={offered.length === 0}
          onClick={() => setChosen(new Set(offered.map(({ id }) => id)))}
        >
          All of them
        </button>
      </div>
    </Sheet>
  );
}
