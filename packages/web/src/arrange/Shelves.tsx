// The Arrange stop: the places of the page as shelves in its order, the photos beside them. Photos are put in, moved and
// taken out with the pointer or by keys, several at once.
import type { Elsewhere, PhotoSet, SetPage, Site, SlotId } from '@dusky-otter/core/contract';
import { partFor, putsEverywhere } from '@dusky-otter/core/page';
import { useQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, type KeyboardEvent } from 'react';
import { Link, useNavigate, useOutletContext } from 'react-router';
import { api } from '../api/client.ts';
import { pageNow, putParts } from '../editing/page.ts';
import { openPlace } from '../editing/placing.ts';
import { clearSelection } from '../editing/selection.ts';
import { notifyFailure, openSheet, useScreen } from '../screen/screen.ts';
import type { ShellContext } from '../screen/shell-context.ts';
import { useCounts, useSet, useSetId, useSite } from '../server/hooks.ts';
import { placesAreGuessed } from '../screen/stops.ts';
import { edit, idsUnder } from '../server/state.ts';
import { LanguagesLink } from '../languages/LanguagesLink.tsx';
import { Head } from '../ui/Head.tsx';
import { focusSoon } from '../ui/reveal.ts';
import { Foot } from '../worktable/Foot.tsx';
import { Carrying } from './Carrying.tsx';
import { ElsewhereRow } from './ElsewhereRow.tsx';
import { NewArrangement } from './NewArrangement.tsx';
import { PickedBar } from './PickedBar.tsx';
import { PlaceChoice } from './PlaceChoice.tsx';
import { PlacesSheet } from '../worktable/PlacesSheet.tsx';
import { usePicking, type Picking } from './picking.ts';
import { Proposal, useProposal } from '../worktable/Proposal.tsx';
import { pressOn } from './shelf-keys.ts';
import { ShelfRow } from './ShelfRow.tsx';
import { shelfRows, type Shelf } from './shelves.ts';
import { Trays } from './Trays.tsx';

/** Heights in px before a row was drawn. */
const HEIGHTS = { shelf: 98, elsewhere: 46, line: 36 } as const;

type Line = ReturnType<typeof shelfRows>[number] | { kind: 'elsewhere'; one: Elsewhere };

const keyOf = (line: Line): string => {
  if (line.kind === 'shelf') return line.slot.id;
  return line.kind === 'line' ? `line ${line.id}` : `${line.one.set} ${line.one.slot}`;
};

/** The rows of the stop, those of the site's other pages last. */
function useLines(set: PhotoSet, site: Site, page: SetPage): Line[] {
  const counts = useCounts();
  const { data } = useQuery({
    queryKey: ['elsewhere', set.id, site.version],
    queryFn: () => api.elsewhere(set.id),
  });
  const others = (data?.elsewhere ?? []).map((one): Line => ({ kind: 'elsewhere', one }));
  if (others.length === 0) return shelfRows(set, site, page, counts);
  const hint = 'Photos of this set may stand there, too';
  const heading: Line = { kind: 'line', id: 'others', text: `On other pages of ${site.name}`, hint };
  return [...shelfRows(set, site, page, counts), heading, ...others];
}

/** What can be done with a place as a part of the page. */
function actsOn({ slot, shown, part }: Shelf, page: SetPage, where: { set: PhotoSet; site: Site }) {
  const { parts } = page;
  const to = (n: number) => putParts(page, parts.toSpliced(part, 1).toSpliced(n, 0, parts[part]!), 'order');
  const everything = {
    name: 'Put every photo of the set in, also those to come',
    idle: where.set.slots.includes(slot.id),
    act: () => openPlace(where, slot.id),
  };
  if (!shown)
    return [{ name: 'Put it onto the page', act: () => putOn(page, where.site, slot.id) }, everything];
  return [
    { name: 'Further up the page', idle: part === 0, act: () => to(part - 1) },
    { name: 'Further down', idle: part === parts.length - 1, act: () => to(part + 1) },
    everything,
    {
      name: 'Take it off the page',
      act: () => putParts(page, parts.toSpliced(part, 1), `${slot.name} taken off`),
    },
  ];
}

function putOn(page: SetPage, site: Site, slot: SlotId): void {
  const place = site.slots.find(({ id }) => id === slot)!;
  putParts(page, [...page.parts, partFor(place)], `${place.name} put onto`);
}

interface Stop {
  set: PhotoSet;
  site: Site;
  page: SetPage;
  lines: readonly Line[];
  picking: Picking;
}

function Lines({
  set,
  site,
  page,
  lines,
  picking,
  gapIn,
}: Stop & { gapIn: (slot: string) => number | null | undefined }) {
  const counts = useCounts();
  const navigate = useNavigate();
  const { from, members } = picking;
  const boards = lines.flatMap((line) => (line.kind === 'shelf' ? [line.slot.id] : []));
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer's own hook; nothing here is memoized on it
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (n) => HEIGHTS[lines[n]!.kind],
    getItemKey: (n) => keyOf(lines[n]!),
    overscan: 3,
  });
  /** The cursor and the focus come to a photo of a place, once it is drawn there. */
  const go = (slot: SlotId, id: number) => {
    picking.come(slot, id);
    virtual.scrollToIndex(lines.findIndex((line) => keyOf(line) === slot));
    focusSoon(
      () => scroller.current?.querySelector<HTMLElement>(`[data-at="${slot} ${id}"]`) ?? null,
      () => useScreen.getState().cursor === id,
    );
  };
  const open = (slot: SlotId, id: number) => {
    const isBuilt = site.slots.some((one) => one.id === slot && one.arranged !== undefined);
    void navigate(isBuilt ? `/sets/${set.id}/arrange/${slot}?picture=${id}` : `/sets/${set.id}/frame/${id}`);
  };
  const press = (slot: SlotId) => (id: number, event: KeyboardEvent) => {
    const meant = pressOn(slot, id, event, {
      ...{ boards, members, go, open },
      together: picking.together,
      carry: picking.carry,
      pick: (place, one) =>
        picking.pick(place, one, members(place), { shiftKey: false, ctrlKey: true, metaKey: false }),
      pickAll: picking.pickAll,
      pickNone: clearSelection,
    });
    if (meant) event.preventDefault();
  };
  const drawn = (line: Line) => {
    if (line.kind === 'line')
      return (
        <div className="flex flex-wrap items-baseline gap-x-2 border-b border-rule bg-paper px-3.5 py-[7px]">
          <h2 className="font-title text-[14px] font-[600]">{line.text}</h2>
          <span className="text-[12.5px] text-ink-2">{line.hint}</span>
          {line.id === 'page' && (
            <span className="ml-auto">
              <PlaceChoice
                {...{ page, site }}
                absent
                className="chip h-[22px]"
                choose={(slot) => putOn(page, site, slot)}
              >
                Put another place onto it…
              </PlaceChoice>
            </span>
          )}
        </div>
      );
    if (line.kind === 'elsewhere')
      return <ElsewhereRow one={line.one} site={site} here={counts?.places[line.one.slot]?.photos ?? 0} />;
    const { id } = line.slot;
    return (
      <ShelfRow
        shelf={line}
        counts={counts?.places[id]}
        isOpen={set.slots.includes(id)}
        isEverywhere={putsEverywhere(site, set.id).some((one) => one.slot === id)}
        know={picking.know}
        acts={actsOn(line, page, { set, site })}
        isFrom={from === id}
        gap={gapIn(id)}
        onPick={(photo, event) => picking.pick(id, photo, members(id), event)}
        onKey={press(id)}
        onOpen={(photo) => open(id, photo)}
      />
    );
  };
  return (
    <div
      ref={scroller}
      className="min-h-0 flex-1 overflow-auto"
      role="region"
      aria-label="Places of the page"
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, key, start }) => (
          <div
            key={key}
            ref={virtual.measureElement}
            data-index={index}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${start}px)` }}
          >
            {drawn(lines[index]!)}
          </div>
        ))}
      </div>
    </div>
  );
}

function Whole({ set, site }: { set: PhotoSet; site: Site }) {
  const setId = useSetId();
  const counts = useCounts();
  const { chooseFiles } = useOutletContext<ShellContext>();
  const sheet = useScreen((state) => state.sheet);
  const proposal = useProposal();
  const page = pageNow(set, site, counts);
  const lines = useLines(set, site, page);
  const picking = usePicking({ set, site });
  const waiting = counts?.filters.unplaced ?? 0;
  const placeAll = async (to: SlotId) => {
    try {
      await picking.carry({ from: null, to, ids: (await idsUnder('unplaced')).ids, before: null });
    } catch (error) {
      notifyFailure(error);
    }
  };
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet [@media(max-height:560px)]:overflow-auto">
      <Head title="Arrange photos">
        <span className="ml-auto" />
        <LanguagesLink />
        <Link className="btn" to={`/sets/${setId}/page`}>
          The page
        </Link>
        <button className="btn" onClick={() => openSheet('places')}>
          Places
        </button>
        <NewArrangement />
        {waiting > 0 ? (
          <PlaceChoice {...{ page, site }} className="btn btn-main" choose={(slot) => void placeAll(slot)}>
            {waiting === 1 ? 'Place the 1 that waits' : `Place the ${waiting} that wait`}
          </PlaceChoice>
        ) : counts && counts.filters.all > 0 && placesAreGuessed(set, counts) ? (
          <button
            className="btn btn-main"
            onClick={() => edit('places confirmed', [{ kind: 'set', change: { arranged: true } }])}
          >
            These places are right
          </button>
        ) : (
          <button className="btn btn-main" onClick={chooseFiles}>
            Add photos
          </button>
        )}
      </Head>
      {proposal && <Proposal of={proposal} />}
      <Carrying
        idsOf={(place, id) => picking.together(place, id)}
        drop={(carried) => void picking.carry(carried)}
      >
        {(gapIn) => (
          <div className="grid min-h-0 flex-1 grid-cols-[222px_minmax(0,1fr)] max-[700px]:flex max-[700px]:flex-col">
            <Trays picking={picking} />
            <div className="flex min-h-0 min-w-0 flex-1 flex-col">
              <Lines {...{ set, site, page, lines, picking, gapIn }} />
              <PickedBar {...{ page, site, picking }} />
            </div>
          </div>
        )}
      </Carrying>
      <p role="status" className="sr-only">
        {picking.said}
      </p>
      <Foot setId={setId} filter="all" describing={false} />
      <PlacesSheet open={sheet === 'places'} onClose={() => openSheet(null)} />
    </main>
  );
}

export function Shelves() {
  const set = useSet();
  const site = useSite();
  return set && site ? <Whole set={set} site={site} /> : <main className="bg-sheet" />;
}
