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
import { useMemo, useState } from 'react';
import { api } from '../api/client.ts';
import { DownloadSheet } from '../handover/DownloadSheet.tsx';
import { useSetSlots } from '../state/derived.ts';
import { allSaved, notify, useWork } from '../state/store.ts';
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
      <DropdownMenu.Trigger className="btn" disabled={used.length === 0}>
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
      <DropdownMenu.Trigger className="btn" disabled={rows.length === 0}>
        Set slot
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

export function Foot({ setId }: { setId: number }) {
  const rows = useWork((state) => state.rows);
  const selected = useWork((state) => state.selected);
  const setSlots = useSetSlots();
  const [downloading, setDownloading] = useState(false);
  const chosen = useMemo(() => rows.filter((row) => selected.has(row.id)), [rows, selected]);
  const phone = useMemo(() => totalsFor(rows, setSlots, PHONE), [rows, setSlots]);
  const laptop = useMemo(() => totalsFor(rows, setSlots, RETINA_LAPTOP), [rows, setSlots]);
  const acting = chosen.length > 0 ? chosen : rows;
  return (
    <footer className="flex h-[46px] shrink-0 items-center gap-3 overflow-hidden whitespace-nowrap border-t border-rule-strong bg-raised px-4 text-[13px] max-[700px]:hidden">
      <b className="text-[14.5px] font-[680]">{bytesInWords(phone.camera)}</b> from the camera
      <span aria-hidden="true">⟶</span>
      <b className="text-[14.5px] font-[680]">{bytesInWords(phone.sent)}</b> on a phone,
      <b className="text-[14.5px] font-[680]">{bytesInWords(laptop.sent)}</b> on a retina laptop
      {laptop.complete ? '' : ' so far'}
      <span className="ml-auto text-ink-2">
        {chosen.length > 0 ? `${chosen.length} selected` : 'none selected: all go'}
      </span>
      {chosen.length > 0 && (
        <button className="btn" onClick={() => putIntoBin(chosen)}>
          Put into bin
        </button>
      )}
      <CopyMenu rows={acting} setId={setId} />
      <PlaceMenu rows={chosen} />
      <button className="btn" disabled={acting.length === 0} onClick={() => setDownloading(true)}>
        Download
      </button>
      <DownloadSheet
        open={downloading}
        onClose={() => setDownloading(false)}
        rows={acting}
        setId={setId}
        whole={chosen.length === 0}
      />
    </footer>
  );
}
