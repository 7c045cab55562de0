// What belongs to the screen alone: filter, selection, cursor, the sheet that lies open, and a line to say.
import type { Filter } from '@dusky-otter/core/contract';
import type { Framed } from '@dusky-otter/core/geometry';
import { create } from 'zustand';
import { sentenceOf } from '../api/client.ts';
import { withNotice, withoutNotice, type Notice } from './notices.ts';

export type SheetName = 'places' | 'download' | 'bin' | 'keys' | 'table';

export interface ScreenState {
  filter: Filter;
  selected: ReadonlySet<number>;
  cursor: number | null;
  anchor: number | null;
  /** The sheet that lies over the table, if any. */
  sheet: SheetName | null;
  notices: readonly Notice[];
  /** A frame that was copied, to be laid on other photos; `name` is what its photo is called. */
  copied: (Framed & { name: string }) | null;
}

const EMPTY: ScreenState = {
  filter: 'all',
  selected: new Set(),
  cursor: null,
  anchor: null,
  sheet: null,
  notices: [],
  copied: null,
};

export const useScreen = create<ScreenState>(() => EMPTY);

/** Another set is opened: nothing of it is selected yet. A line that is being said is said to its end. */
export const clearScreen = (): void =>
  useScreen.setState(({ notices, copied }) => ({ ...EMPTY, notices, copied }));

export const keepCopiedFrame = (copied: NonNullable<ScreenState['copied']>): void =>
  useScreen.setState({ copied });

export const openSheet = (sheet: SheetName | null): void => useScreen.setState({ sheet });

export const notify = (text: string, tone: Notice['tone'] = 'plain'): void =>
  useScreen.setState(({ notices }) => ({ notices: withNotice(notices, { text, tone }) }));

export const putAway = (notice: Notice): void =>
  useScreen.setState(({ notices }) => ({ notices: withoutNotice(notices, notice) }));

/** Says why something failed; it stays until it is put away. */
export const notifyFailure = (error: unknown): void => notify(sentenceOf(error), 'bad');

/** Photos that left the table are selected no more. */
export function letGo(ids: Iterable<number>): void {
  useScreen.setState(({ selected, cursor }) => {
    const left = new Set(selected);
    for (const id of ids) left.delete(id);
    return {
      selected: left,
      cursor: cursor !== null && !left.has(cursor) && selected.has(cursor) ? null : cursor,
    };
  });
}
