// What ships beside a page for its arrangements: the runtime's stylesheets and scripts that are used, and no others.
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { arrangementIn } from '@dusky-otter/core/arrange';
import type { PhotoRow, SetPlaces, Slot } from '@dusky-otter/core/contract';
import { arrangementRules, isPoster, runtimeFor } from '@dusky-otter/core/markup';
import { slotsOf } from '@dusky-otter/core/plan';

const FOLDER = resolve(import.meta.dirname, '../../../runtime/dist');
const kept = new Map<string, string>();

/** A file of the runtime, as it was built. @throws Error when the runtime is not built */
export function runtimeFile(name: string): string {
  const text = kept.get(name) ?? readFileSync(resolve(FOLDER, name), 'utf8').trim();
  kept.set(name, text);
  return text;
}

/** Styles and script for the arrangements that photos of a hand-over stand in; "" where there is none. */
export function runtimeOf({
  context,
  rows,
  setPlaces,
}: {
  context: { slots: readonly Slot[] };
  rows: readonly PhotoRow[];
  setPlaces: SetPlaces;
}): { styles: string; script: string } {
  const used = new Set(rows.flatMap((row) => slotsOf(row, setPlaces)));
  const slots = context.slots.filter(({ id, arranged }) => arranged && used.has(id));
  const films = (cell: Slot) =>
    rows.some((row) => slotsOf(row, setPlaces).includes(cell.id) && isPoster({ row, cell }));
  const { styles, scripts } = runtimeFor(slots.map((slot) => ({ ...slot, films: films(slot) })));
  const rules = slots.map((slot) => arrangementRules(arrangementIn(slot)!)).join('');
  return {
    styles:
      styles.length > 0 ? `\n${styles.map((name) => runtimeFile(`${name}.css`)).join('\n')}\n${rules}` : '',
    script: scripts.map((name) => `${runtimeFile(`${name}.js`)}\n`).join(''),
  };
}
