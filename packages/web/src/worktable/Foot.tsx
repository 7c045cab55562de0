// What can be done with the photos on the table: what they weigh in all, and copying, placing, binning, downloading.
import {
  bytesInWords,
  figureStyles,
  slotsOf,
  type Filter,
  type Site,
  type Slot,
  type SlotId,
} from '@dusky-otter/core';
import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { useMemo } from 'react';
import { api } from '../api/client.ts';
import { DownloadSheet } from '../handover/DownloadSheet.tsx';
import { notify, notifyFailure, openSheet, useScreen } from '../screen/screen.ts';
import { rowAt, useCounts, useSetSlots, useSite } from '../server/hooks.ts';
import { allSaved, client, idsQuery, photoQuery } from '../server/state.ts';
import { binSelected, saveSlots } from './edits.ts';

/** Copies the markup of some photos, or of all where `ids` is null. */
async function copyMarkup(
  setId: number,
  ids: readonly number[] | null,
  slot: SlotId | null,
  { where, form }: { where: string; form: 'picture' | 'img' },
) {
  try {
    // What was typed a moment ago belongs into the markup.
    await allSaved();
    const { selection, photos } = await api.check(setId, ids);
    const markup = await api.markup(setId, selection, { form, ...(slot && { slot }) });
    await navigator.clipboard.writeText(markup);
    const count = slot ? (markup.match(/<img/g) ?? []).length : photos;
    notify(
      `Markup of ${count} ${count === 1 ? 'photo' : 'photos'}${where} copied. Its files are in the download.`,
    );
  } catch (error) {
    notifyFailure(error);
  }
}

/** The stylesheet that goes with all markup of the site. */
async function copyStyles(site: Site) {
  try {
    await navigator.clipboard.writeText(figureStyles(site));
    notify('The stylesheet is copied. It goes into the page once, and reaches nothing but these photos.');
  } catch (error) {
    notifyFailure(error);
  }
}

function CopyMenu({ ids, setId, any }: { ids: readonly number[] | null; setId: number; any: boolean }) {
  const site = useSite();
  const counts = useCounts();
  const used = site?.slots.filter(({ id }) => (counts?.places[id] ?? 0) > 0) ?? [];
  const copy = (slot: Slot | null, form: 'picture' | 'img') =>
    void copyMarkup(setId, ids, slot?.id ?? null, { form, where: slot ? `, ${slot.name}` : '' });
  const items = (form: 'picture' | 'img') => (
    <>
      <DropdownMenu.Item className="menu-item" onSelect={() => copy(null, form)}>
        For every place
      </DropdownMenu.Item>
      <DropdownMenu.Separator className="my-1 h-px bg-rule" />
      {used.map((slot) => (
        <DropdownMenu.Item key={slot.id} className="menu-item" onSelect={() => copy(slot, form)}>
          {slot.name}{' '}
          <span className="ml-auto max-w-[200px] truncate text-[12px] text-ink-2">{slot.hint}</span>
        </DropdownMenu.Item>
      ))}
    </>
  );
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={!any || used.length === 0}>
        Copy markup
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          {items('picture')}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Sub>
            <DropdownMenu.SubTrigger className="menu-item">
              As one img each{' '}
              <span className="ml-auto text-[12px] text-ink-2">where a system allows no more</span>
            </DropdownMenu.SubTrigger>
            <DropdownMenu.Portal>
              <DropdownMenu.SubContent className="menu">{items('img')}</DropdownMenu.SubContent>
            </DropdownMenu.Portal>
          </DropdownMenu.Sub>
          <DropdownMenu.Item className="menu-item" onSelect={() => site && void copyStyles(site)}>
            The stylesheet that goes with it
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Photos as they are shown; those that are not read yet are read for it. */
const photosOf = async (setId: number, ids: readonly number[]) =>
  Promise.all(
    ids.map(async (id) => {
      await client.query({ ...photoQuery(setId, id), staleTime: 'static' });
      return rowAt(setId, id)!;
    }),
  );

function PlaceMenu({ ids, setId }: { ids: readonly number[]; setId: number }) {
  const places = useSite()?.slots ?? [];
  const setSlots = useSetSlots();
  const known = ids.flatMap((id) => rowAt(setId, id) ?? []);
  const has = (id: SlotId) => known.filter((photo) => slotsOf(photo, setSlots).includes(id)).length;
  const save = async (slotsFor: (standing: readonly SlotId[]) => SlotId[] | null) => {
    try {
      const photos = await photosOf(setId, ids);
      saveSlots(photos, (photo) => slotsFor(slotsOf(photo, setSlots)));
    } catch (error) {
      notifyFailure(error);
    }
  };
  // Chosen for some: chosen for all. Chosen for all: taken away from all. The other places stay as they are.
  const toggle = (id: SlotId) => {
    const take = has(id) === ids.length;
    void save((standing) =>
      places.map((slot) => slot.id).filter((other) => (other === id ? !take : standing.includes(other))),
    );
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={ids.length === 0}>
        Set places
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          {places.map((slot) => (
            <DropdownMenu.CheckboxItem
              key={slot.id}
              className="menu-item"
              checked={has(slot.id) === 0 ? false : has(slot.id) === ids.length ? true : 'indeterminate'}
              onSelect={(event) => event.preventDefault()}
              onCheckedChange={() => toggle(slot.id)}
            >
              <span aria-hidden="true" className="w-4">
                {has(slot.id) === 0 ? '' : has(slot.id) === ids.length ? '✓' : '–'}
              </span>
              {slot.name} <span className="ml-auto text-[12px] text-ink-2">{slot.hint}</span>
            </DropdownMenu.CheckboxItem>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Item className="menu-item" onSelect={() => void save(() => null)}>
            <span className="w-4" /> As the set
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** What the buttons act on, in words. */
function actingOn(chosen: number, hidden: number, all: number): string {
  if (chosen > 0)
    return hidden > 0 ? `${chosen} selected, ${hidden} more hidden by the filter` : `${chosen} selected`;
  if (hidden > 0) return `${hidden} selected, hidden by the filter`;
  return all === 1 ? 'Nothing selected: the photo goes' : `Nothing selected: all ${all} photos go`;
}

/** Of what is selected only what stands under the filter is acted on: what a filter hides is not seen. */
export function Foot({ setId, filter }: { setId: number; filter: Filter }) {
  const counts = useCounts();
  const selected = useScreen((state) => state.selected);
  const downloading = useScreen((state) => state.sheet === 'download');
  // Asked for only where something may be hidden.
  const { data } = useQuery({ ...idsQuery(setId, filter), enabled: selected.size > 0 });
  const chosen = useMemo(
    () => (data ? data.ids.filter((id) => selected.has(id)) : [...selected]),
    [data, selected],
  );
  const all = counts?.filters.all ?? 0;
  const acting = chosen.length > 0 ? chosen : null;
  return (
    <footer className="flex min-h-[46px] shrink-0 items-center gap-3 whitespace-nowrap border-t border-rule-strong bg-raised px-4 text-[13px] max-[1000px]:flex-wrap max-[1000px]:gap-y-1.5 max-[1000px]:py-1.5 max-[700px]:gap-2 max-[700px]:px-2.5">
      <span className="flex items-baseline gap-2 max-[1000px]:hidden">
        <b className="text-[14.5px] font-[680]">{bytesInWords(counts?.camera ?? 0)}</b> from the camera
        <span aria-hidden="true">⟶</span>
        <b className="text-[14.5px] font-[680]">{bytesInWords(counts?.phone.sent ?? 0)}</b> on a phone,
        <b className="text-[14.5px] font-[680]">{bytesInWords(counts?.laptop.sent ?? 0)}</b> on a retina
        laptop
        {counts?.laptop.complete === false ? ' so far' : ''}
      </span>
      <span className="ml-auto truncate text-ink-2 max-[1000px]:ml-0 max-[1000px]:basis-full">
        {actingOn(chosen.length, selected.size - chosen.length, all)}
      </span>
      {chosen.length > 0 && (
        <button className="btn max-[700px]:px-2" onClick={() => void binSelected(filter)}>
          Put into bin
        </button>
      )}
      <CopyMenu ids={acting} setId={setId} any={all > 0} />
      <PlaceMenu ids={chosen} setId={setId} />
      <button className="btn max-[700px]:px-2" disabled={all === 0} onClick={() => openSheet('download')}>
        Download
      </button>
      <DownloadSheet open={downloading} onClose={() => openSheet(null)} ids={acting} setId={setId} />
    </footer>
  );
}
