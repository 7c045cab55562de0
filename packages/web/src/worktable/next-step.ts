// The next step of each stop, as the main button of the table: the next photo whose work is open there, or the stop's own act.
import type { Filter, Stop } from '@dusky-otter/core/contract';
import { api } from '../api/client.ts';
import { notify, notifyFailure, openSheet, useScreen } from '../screen/screen.ts';
import { allSaved } from '../server/state.ts';
import type { TableStop } from './lenses.ts';

export interface NextStep {
  label: string;
  act: () => void;
}

export interface Means {
  setId: number;
  chooseFiles: () => void;
  /** Opens the photo's bench. */
  open: (id: number) => void;
  /** Brings a place of the list into view with the cursor on its photo, and something of it into focus. */
  reveal: (id: number, index: number, focus: string) => void;
}

async function walk(
  { setId }: Means,
  stop: Stop,
  done: string,
  then: (id: number, index: number) => void,
): Promise<void> {
  const { cursor, filter } = useScreen.getState();
  try {
    // What was done a moment ago is open no more.
    await allSaved();
    const next = await api.next(setId, filter satisfies Filter, stop, cursor);
    if (!next) return notify(done);
    useScreen.setState({ cursor: next.id, anchor: next.id });
    then(next.id, next.index);
  } catch (error) {
    notifyFailure(error);
  }
}

export function nextWithoutWords(means: Means): void {
  void walk(means, 'describe', 'Every photo on the table has its words.', (id, index) =>
    means.reveal(id, index, `[data-alt-of="${id}"]`),
  );
}

/** What the main button says and does at a stop. */
export function nextStep(stop: TableStop, means: Means): NextStep {
  const show = (id: number, index: number) => means.reveal(id, index, `[data-row="${id}"]`);
  switch (stop) {
    case 'gather':
      return { label: 'Add photos', act: means.chooseFiles };
    case 'frame':
      return {
        label: 'Next crop to confirm',
        act: () => void walk(means, 'frame', 'Every focal point on the table is confirmed.', means.open),
      };
    case 'weigh':
      return {
        label: 'Next that needs care',
        act: () =>
          void walk(means, 'weigh', 'Every photo on the table is within its budgets and large enough.', show),
      };
    case 'describe':
      return { label: 'Next without words', act: () => nextWithoutWords(means) };
    case 'hand-over':
      return { label: 'Download the files', act: () => openSheet('download') };
  }
}
