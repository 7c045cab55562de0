// Markup to paste, of some photos or of all: as figures, as one img each, and the stylesheet that goes with them.
import type { Slot, SlotId } from '@dusky-otter/core/contract';
import { standable } from '@dusky-otter/core/slots';
import { DropdownMenu } from 'radix-ui';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { api } from '../api/client.ts';
import { some } from '../ui/some.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { useCounts, useSite } from '../server/hooks.ts';
import { allSaved } from '../server/state.ts';

/** Whether markup is copied with its styles: without them its widths are right only where the stylesheet is. */
const useWithStyles = create<{ on: boolean }>()(
  persist((): { on: boolean } => ({ on: true }), { name: 'dusky-otter-copied-styles' }),
);

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
    const { on } = useWithStyles.getState();
    const markup = await api.markup(setId, selection, {
      form,
      ...(on && { styles: '1' }),
      ...(slot && { slot }),
    });
    await navigator.clipboard.writeText(markup);
    const count = slot ? (markup.match(/<img/g) ?? []).length : photos;
    notify(
      `Markup of ${some(count, 'photo', 'photos')}${where} copied, ${
        on
          ? 'with the styles of its places.'
          : 'without styles: the stylesheet that goes with it has to be in the page.'
      } Its files are in the download.`,
    );
  } catch (error) {
    notifyFailure(error);
  }
}

/** What goes beside the markup of a set: its stylesheet, or the script of its arrangements. */
async function copyBeside(setId: number, kind: 'styles' | 'script') {
  try {
    await allSaved();
    await navigator.clipboard.writeText(await api.beside(setId, kind));
    notify(
      kind === 'styles'
        ? 'The stylesheet is copied. It goes into the page once, and reaches nothing but these photos.'
        : 'The script is copied. It goes to the end of the page, once; without it all pictures can be reached as well.',
    );
  } catch (error) {
    notifyFailure(error);
  }
}

export function CopyMenu({
  ids,
  setId,
  any,
}: {
  ids: readonly number[] | null;
  setId: number;
  any: boolean;
}) {
  const withStyles = useWithStyles(({ on }) => on);
  const site = useSite();
  const counts = useCounts();
  const used = standable(site?.slots ?? []).filter(({ id }) => counts?.places[id] !== undefined);
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
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.CheckboxItem
            className="menu-item"
            checked={withStyles}
            onCheckedChange={(on) => useWithStyles.setState({ on })}
            // It stays open: what is copied is chosen next.
            onSelect={(event) => event.preventDefault()}
          >
            <span aria-hidden="true" className="w-4">
              {withStyles ? '✓' : ''}
            </span>
            With the styles of its places{' '}
            <span className="ml-auto pl-3 text-[12px] text-ink-2">right wherever it is pasted</span>
          </DropdownMenu.CheckboxItem>
          <DropdownMenu.Item className="menu-item" onSelect={() => void copyBeside(setId, 'styles')}>
            The stylesheet that goes with it
          </DropdownMenu.Item>
          {used.some(({ arranged }) => arranged) && (
            <DropdownMenu.Item className="menu-item" onSelect={() => void copyBeside(setId, 'script')}>
              The script of the arrangements
            </DropdownMenu.Item>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
