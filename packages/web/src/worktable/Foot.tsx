// The foot of the table: what the camera gave, what visitors are sent, and what can be done with the selection.
import {
  bytesInWords,
  PHONE,
  RETINA_LAPTOP,
  SLOTS,
  slotsOf,
  totalsFor,
  type PhotoRow,
  type SlotId,
} from '@dusky-otter/core';
import { DropdownMenu } from 'radix-ui';
import { useMemo } from 'react';
import { api } from '../api/client.ts';
import { DownloadSheet } from '../handover/DownloadSheet.tsx';
import { useSetSlots } from '../state/derived.ts';
import { allSaved, notify, openSheet, useWork } from '../state/store.ts';
import { putIntoBin, saveSlots } from './edits.ts';

async function copyMarkup(
  setId: number,
  rows: readonly PhotoRow[],
  slot: SlotId | null,
  setSlots: readonly SlotId[],
): Promise<void> {
  const standing = slot ? rows.filter((row) => slotsOf(row, setSlots).includes(slot)) : rows;
  try {
    // What was typed a moment ago belongs into the markup.
    await allSaved();
    const markup = await api.markup(
      setId,
      standing.map((row) => row.id),
      slot ?? undefined,
    );
    await navigator.clipboard.writeText(markup);
    const where = slot ? `, ${SLOTS.find((s) => s.id === slot)!.name}` : '';
    notify(
      `Markup of ${standing.length} ${standing.length === 1 ? 'photo' : 'photos'}${where} copied. Its files are in the download.`,
    );
  } catch (error) {
    notify(error instanceof Error ? error.message : String(error), 'bad');
  }
}

function CopyMenu({ rows, setId }: { rows: readonly PhotoRow[]; setId: number }) {
  const setSlots = useSetSlots();
  const used = SLOTS.filter((slot) => rows.some((row) => slotsOf(row, setSlots).includes(slot.id)));
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={used.length === 0}>
        Copy markup
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          <DropdownMenu.Item
            className="menu-item"
            onSelect={() => void copyMarkup(setId, rows, null, setSlots)}
          >
            For every place
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          {used.map((slot) => (
            <DropdownMenu.Item
              key={slot.id}
              className="menu-item"
              onSelect={() => void copyMarkup(setId, rows, slot.id, setSlots)}
            >
              {slot.name} <span className="ml-auto text-[12px] text-ink-2">{slot.hint}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function PlaceMenu({ rows }: { rows: readonly PhotoRow[] }) {
  const setSlots = useSetSlots();
  const has = (id: SlotId) => rows.filter((row) => slotsOf(row, setSlots).includes(id)).length;
  // Chosen for some: chosen for all. Chosen for all: taken away from all. The other places stay as they are.
  const toggle = (id: SlotId) => {
    const take = has(id) === rows.length;
    saveSlots(rows, (row) =>
      SLOTS.map((slot) => slot.id).filter((other) =>
        other === id ? !take : slotsOf(row, setSlots).includes(other),
      ),
    );
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn max-[700px]:px-2" disabled={rows.length === 0}>
        Set places
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" side="top" align="end">
          {SLOTS.map((slot) => (
            <DropdownMenu.CheckboxItem
              key={slot.id}
              className="menu-item"
              checked={has(slot.id) === 0 ? false : has(slot.id) === rows.length ? true : 'indeterminate'}
              onSelect={(event) => event.preventDefault()}
              onCheckedChange={() => toggle(slot.id)}
            >
              <span aria-hidden="true" className="w-4">
                {has(slot.id) === 0 ? '' : has(slot.id) === rows.length ? '✓' : '–'}
              </span>
              {slot.name} <span className="ml-auto text-[12px] text-ink-2">{slot.hint}</span>
            </DropdownMenu.CheckboxItem>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Item className="menu-item" onSelect={() => saveSlots(rows, () => null)}>
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

/** `shown` are the rows under the filter: what a filter hides is never acted on. */
export function Foot({ setId, shown }: { setId: number; shown: readonly PhotoRow[] }) {
  const rows = useWork((state) => state.rows);
  const selected = useWork((state) => state.selected);
  const downloading = useWork((state) => state.sheet === 'download');
  const setSlots = useSetSlots();
  const chosen = useMemo(() => shown.filter((row) => selected.has(row.id)), [shown, selected]);
  const phone = useMemo(() => totalsFor(rows, setSlots, PHONE), [rows, setSlots]);
  const laptop = useMemo(() => totalsFor(rows, setSlots, RETINA_LAPTOP), [rows, setSlots]);
  const acting = chosen.length > 0 ? chosen : rows;
  return (
    <footer className="flex min-h-[46px] shrink-0 items-center gap-3 whitespace-nowrap border-t border-rule-strong bg-raised px-4 text-[13px] max-[1000px]:flex-wrap max-[1000px]:gap-y-1.5 max-[1000px]:py-1.5 max-[700px]:gap-2 max-[700px]:px-2.5">
      <span className="flex items-baseline gap-2 max-[1000px]:hidden">
        <b className="text-[14.5px] font-[680]">{bytesInWords(phone.camera)}</b> from the camera
        <span aria-hidden="true">⟶</span>
        <b className="text-[14.5px] font-[680]">{bytesInWords(phone.sent)}</b> on a phone,
        <b className="text-[14.5px] font-[680]">{bytesInWords(laptop.sent)}</b> on a retina laptop
        {laptop.complete ? '' : ' so far'}
      </span>
      <span className="ml-auto truncate text-ink-2 max-[1000px]:ml-0 max-[1000px]:basis-full">
        {actingOn(chosen.length, selected.size - chosen.length, rows.length)}
      </span>
      {chosen.length > 0 && (
        <button className="btn max-[700px]:px-2" onClick={() => putIntoBin(chosen)}>
          Put into bin
        </button>
      )}
      <CopyMenu rows={acting} setId={setId} />
      <PlaceMenu rows={chosen} />
      <button
        className="btn max-[700px]:px-2"
        disabled={acting.length === 0}
        onClick={() => openSheet('download')}
      >
        Download
      </button>
      <DownloadSheet
        open={downloading}
        onClose={() => openSheet(null)}
        rows={acting}
        setId={setId}
        whole={chosen.length === 0}
      />
    </footer>
  );
}
