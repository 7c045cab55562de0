// What stands on the page, in order: moved by hand or by keys, taken out, and put in.
import { arrangementIn } from '@dusky-otter/core/arrange';
import type { Everywhere, PageEntry, PagePart, SetPage, Site, SlotId } from '@dusky-otter/core/contract';
import { beginningOf } from '@dusky-otter/core/html';
import { partFor } from '@dusky-otter/core/page';
import { standable } from '@dusky-otter/core/slots';
import { placesOn } from '@dusky-otter/core/plan';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import { useCounts } from '../server/hooks.ts';
import { KINDS } from '../arrange/kinds.tsx';
import { HandRow } from '../ui/HandRow.tsx';
import { SortableList } from '../ui/SortableList.tsx';
import { putParts } from '../editing/page.ts';
import { some } from '../ui/some.ts';

/** How a part is called in the list. */
export function nameOfPart(part: PagePart, site: Site): string {
  if (part.kind === 'heading') return part.text;
  if (part.kind === 'text') return beginningOf(part.passage) || 'Empty text';
  if (part.kind === 'languages') return 'Other languages';
  return site.slots.find(({ id }) => id === part.slot)?.name ?? 'A place that is gone';
}

function aboutPart(part: PagePart, site: Site, photos: number): string {
  if (part.kind === 'languages') return 'the same page, in each';
  if (part.kind !== 'place') return part.kind;
  const slot = site.slots.find(({ id }) => id === part.slot);
  if (!slot) return 'it shows nothing: take it out';
  const kind = arrangementIn(slot)?.options.kind;
  return `${kind ? KINDS[kind].name.toLowerCase() : 'place'}, ${photos === 1 ? '1 photo' : `${photos} photos`}`;
}

function Part({
  n,
  part,
  site,
  photos,
  inHand,
  take,
}: {
  n: number;
  part: PagePart;
  site: Site;
  photos: number;
  inHand: boolean;
  take: () => void;
}) {
  const slot = part.kind === 'place' ? site.slots.find(({ id }) => id === part.slot) : undefined;
  const arrangement = slot && arrangementIn(slot);
  const drawing = arrangement ? (
    <svg width="40" height="24" viewBox="0 0 48 28">
      {KINDS[arrangement.options.kind].drawing}
    </svg>
  ) : (
    { heading: 'H', text: 'T', place: '▭', languages: 'Ä' }[part.kind]
  );
  return (
    <HandRow
      id={`${n}`}
      name={nameOfPart(part, site)}
      about={aboutPart(part, site, photos)}
      inHand={inHand}
      take={take}
      picture={
        <span
          aria-hidden="true"
          className="grid h-[34px] w-[46px] shrink-0 place-items-center border border-rule-strong bg-raised font-title text-[15px] font-semibold text-ink-2"
        >
          {drawing}
        </span>
      }
    />
  );
}

/** What stands on every page because another set puts it there. */
function FromOthers({
  page,
  site,
  set,
  entries,
  at,
}: Omit<Props, 'inHand' | 'take'> & Pick<Everywhere, 'at'>) {
  const own = placesOn(page);
  const found = site.everywhere.flatMap((one) => {
    const entry = entries.find((other) => other.set === one.set);
    const part = entry?.parts.find(({ slot }) => slot === one.slot);
    const isHere = one.at === at && one.set !== set && !own.includes(one.slot);
    return isHere && entry && part && part.photos > 0 ? [{ entry, part }] : [];
  });
  return found.map(({ entry, part }) => (
    <p key={part.slot} className="border-b border-rule bg-paper px-3 py-2 text-[12.5px] text-ink-2">
      <b className="font-[560] text-ink">{part.title}</b>, {some(part.photos, 'photo', 'photos')} of{' '}
      <Link className="text-kelp underline underline-offset-2" to={`/sets/${entry.set}/page`}>
        {entry.title}
      </Link>
      : stands {at} everything, as on every page.
    </p>
  ));
}

interface Props {
  page: SetPage;
  site: Site;
  /** Id of the set whose page it is. */
  set: number;
  /** The site's pages. */
  entries: readonly PageEntry[];
  inHand: number | null;
  take: (n: number | null) => void;
}

export function PageParts({ page, site, set, entries, inHand, take }: Props) {
  const counts = useCounts();
  const { parts } = page;
  const photosIn = (slot: SlotId) => counts?.places[slot]?.photos ?? 0;
  const used = new Set(parts.flatMap((part) => (part.kind === 'place' ? [part.slot] : [])));
  const missing = standable(site.slots).filter(({ id }) => !used.has(id));
  const unseen = missing.filter(({ id }) => photosIn(id) > 0);
  /** Behind the part in hand, or at the end. */
  const add = (part: PagePart, what: string) => {
    const at = inHand === null ? parts.length : inHand + 1;
    putParts(page, parts.toSpliced(at, 0, part), what);
    take(at);
  };
  return (
    <section className="flex min-h-0 flex-1 flex-col" aria-labelledby="parts-in-order">
      <div className="flex items-baseline gap-2 px-3 py-2.5">
        <h2 id="parts-in-order" className="font-title text-[14px] font-[600]">
          On the page, in order
        </h2>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className="chip ml-auto">Put in…</DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="menu" align="start">
              <DropdownMenu.Item
                className="menu-item"
                onSelect={() => add({ kind: 'heading', text: 'New heading' }, 'another heading')}
              >
                A heading
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className="menu-item"
                onSelect={() => add({ kind: 'text', passage: [] }, 'another text')}
              >
                A text
              </DropdownMenu.Item>
              {site.languages.length > 1 && !parts.some(({ kind }) => kind === 'languages') && (
                <DropdownMenu.Item
                  className="menu-item"
                  onSelect={() => add({ kind: 'languages' }, 'links to other languages')}
                >
                  Links to other languages
                </DropdownMenu.Item>
              )}
              {missing.length > 0 && <DropdownMenu.Separator className="my-1 h-px bg-rule" />}
              {missing.map((slot) => (
                <DropdownMenu.Item
                  key={slot.id}
                  className="menu-item"
                  onSelect={() => add(partFor(slot), slot.name)}
                >
                  {slot.name}{' '}
                  <span className="ml-auto text-[12px] text-ink-2">{photosIn(slot.id)} photos</span>
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <FromOthers {...{ page, site, set, entries }} at="above" />
      <SortableList
        ids={parts.map((_, n) => `${n}`)}
        nameOf={(id) => nameOfPart(parts[Number(id)]!, site)}
        move={(id, to) => {
          const moved = parts[Number(id)]!;
          putParts(page, parts.toSpliced(Number(id), 1).toSpliced(to, 0, moved), 'order');
          take(null);
        }}
      >
        <ol className="min-h-0 flex-1 overflow-auto">
          {parts.map((part, n) => (
            <Part
              key={n}
              n={n}
              part={part}
              site={site}
              photos={part.kind === 'place' ? photosIn(part.slot) : 0}
              inHand={inHand === n}
              take={() => take(inHand === n ? null : n)}
            />
          ))}
        </ol>
      </SortableList>
      <FromOthers {...{ page, site, set, entries }} at="below" />
      {parts.length === 0 && (
        <p className="px-3 pb-3 text-ink-2">Nothing stands on it yet: put something in.</p>
      )}
      {unseen.length > 0 && (
        <div className="border-t border-rule px-3 py-2 text-[12.5px] text-ink-2">
          Not on the page:{' '}
          {unseen.map((slot) => (
            <button key={slot.id} className="chip mr-1 mt-1" onClick={() => add(partFor(slot), slot.name)}>
              Put in {slot.name}, {photosIn(slot.id)} photos
            </button>
          ))}
        </div>
      )}
    </section>
  );
}
