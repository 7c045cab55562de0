// The places of a site: a ruled table, one place open at a time, and the ways to get more of them.
import type { Photo, PlaceUse, Slot } from '@dusky-otter/core/contract';
import { PlacesFileError, readPlaces, writePlaces } from '@dusky-otter/core/places';
import { slotsOf } from '@dusky-otter/core/plan';
import { typedPlaces, widthText } from '@dusky-otter/core/slots';
import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { useRef, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { api } from '../api/client.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import {
  rowAt,
  useEdits,
  useList,
  usePreparation,
  useSetId,
  useSetPlaces,
  useSite,
} from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { saveText } from '../ui/files.ts';
import { ApplyAll } from './ApplyAll.tsx';
import { commandsFor } from './commands.ts';
import { CopyPlacesSheet } from './CopyPlacesSheet.tsx';
import { DevicesSheet } from './DevicesSheet.tsx';
import { draftOf, keepNew, useDrafts } from './drafts.ts';
import { NewPlaceRow } from './NewPlaceRow.tsx';
import { PlaceBench } from './PlaceBench.tsx';
import { COLUMNS, PlaceRow } from './PlaceRow.tsx';
import { WINDOWS } from './Section.tsx';
import { Head } from '../ui/Head.tsx';

const LARGEST_FILE = 1_000_000;

/** How photos stand in the places; counted anew when an edit is saved, and when files that were missing are made. */
function useUses(): Record<string, PlaceUse> {
  const setId = useSetId();
  const saved = useEdits()?.savedAt;
  const preparation = usePreparation();
  const whole = preparation !== null && preparation.made + preparation.failed >= preparation.wanted;
  const { data } = useQuery({
    queryKey: ['places', setId, saved, whole],
    queryFn: () => api.placesInUse(setId),
    placeholderData: (before) => before,
  });
  return data ?? {};
}

/** A photo that stands in a place, to draw it with. */
function usePhotoIn(): (slot: Slot) => Photo | null {
  const setId = useSetId();
  const setPlaces = useSetPlaces();
  const { ids } = useList('all', 0, 0);
  const photos = ids.flatMap((id) => rowAt(setId, id) ?? []);
  return (slot) => photos.find((photo) => slotsOf(photo, setPlaces).includes(slot.id)) ?? photos[0] ?? null;
}

export function Places() {
  const setId = useSetId();
  const site = useSite();
  const uses = useUses();
  const photoIn = usePhotoIn();
  const drafts = useDrafts();
  // The finder leads to one of them.
  const asked = useLocation().state as { place?: string } | null;
  const [opened, setOpened] = useState<string | null>(asked?.place ?? null);
  const [sheet, setSheet] = useState<'devices' | 'copy' | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  if (!site) return <main className="bg-sheet p-8 text-ink-2">Opening the places…</main>;
  const making = drafts.made[site.id] ?? null;
  // Those of arrangements follow from what they are made of.
  const typed = typedPlaces(site.slots);
  const read = async (file: File) => {
    try {
      if (file.size > LARGEST_FILE) throw new PlacesFileError('This file is too large to hold places.');
      const slots = readPlaces(
        await file.text(),
        site.slots.map(({ id }) => id),
      );
      edit(`${slots.length} places from ${file.name}`, commandsFor(site, slots));
      notify(
        `${slots.length} ${slots.length === 1 ? 'place' : 'places'} read from ${file.name}. Undo takes them back.`,
      );
    } catch (error) {
      notifyFailure(error);
    }
  };
  return (
    <main className="flex min-h-0 min-w-0 flex-col bg-sheet">
      <Head title="Places">
        <span className="truncate text-ink-2">on {site.name}’s pages</span>
        <span className="ml-auto" />
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className="btn">Files</DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="menu" align="end">
              <DropdownMenu.Item className="menu-item" onSelect={() => setSheet('copy')}>
                Copy from another site
              </DropdownMenu.Item>
              <DropdownMenu.Item className="menu-item" onSelect={() => chooser.current?.click()}>
                Read places from a JSON file
              </DropdownMenu.Item>
              <DropdownMenu.Item
                className="menu-item"
                onSelect={() => saveText('places.json', 'application/json', writePlaces(typed))}
              >
                Save these places as JSON
              </DropdownMenu.Item>
              <DropdownMenu.Item className="menu-item" onSelect={() => setSheet('devices')}>
                Devices of the visitors
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
        <input
          ref={chooser}
          type="file"
          accept=".json,application/json"
          className="hidden"
          aria-label="A JSON file of places"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void read(file);
          }}
        />
        <Link className="btn" to={`/sets/${setId}/measure`}>
          Measure a page
        </Link>
        <button
          className="btn btn-main"
          disabled={making !== null}
          onClick={() => keepNew(site.id, { name: '', width: '' })}
        >
          Make a place
        </button>
      </Head>
      <div className="min-h-0 flex-1 overflow-auto" role="region" tabIndex={0} aria-label="Places">
        <div
          className={`sticky top-0 z-10 grid h-[28px] border-b border-rule-strong bg-paper px-4 text-[11.5px] font-[560] leading-[28px] text-ink-2 max-[700px]:hidden ${COLUMNS}`}
        >
          <span />
          <span>Place</span>
          <span>In windows of</span>
          {WINDOWS.map(({ width }, n) => (
            <span key={width} className="pr-2.5 text-right">
              {width}
              {n === 0 && ' px'}
            </span>
          ))}
          <span />
          <span>Shape</span>
          <span>Heaviest, budget</span>
          <span>Loads</span>
          <span>Files, surplus</span>
          <span className="text-right">Photos in it</span>
        </div>
        <ApplyAll site={site} places={typed} />
        {making && <NewPlaceRow site={site} place={making} made={setOpened} />}
        {typed.length === 0 && !making && (
          <p className="p-10 text-center text-ink-2">
            This site has no place yet. Make one, copy some from another site, or measure a page.
          </p>
        )}
        {typed.map((saved) => {
          const draft = draftOf(drafts, site.id, saved.id);
          const slot = draft?.slot ?? saved;
          const text = draft?.width ?? widthText(slot);
          const shared = { site, slot, text, use: uses[saved.id] ?? null, photo: photoIn(slot) };
          return (
            <div key={saved.id}>
              <PlaceRow
                {...shared}
                open={opened === saved.id}
                changed={draft !== null}
                toggle={() => setOpened(opened === saved.id ? null : saved.id)}
              />
              {opened === saved.id && <PlaceBench {...shared} editDevices={() => setSheet('devices')} />}
            </div>
          );
        })}
      </div>
      <DevicesSheet site={site} open={sheet === 'devices'} onClose={() => setSheet(null)} />
      <CopyPlacesSheet site={site} open={sheet === 'copy'} onClose={() => setSheet(null)} />
    </main>
  );
}
