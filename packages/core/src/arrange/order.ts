// The order of an arrangement's pictures, where it is not made by hand.
import { chance } from '../chance/chance.ts';
import type { Order, OriginalFacts } from '../contract/index.ts';

export interface Orderable {
  /** What an editor calls it. */
  name: string;
  original: Pick<OriginalFacts, 'takenAt' | 'colour'>;
}

/** Less colour than this is grey: its hue means nothing. */
const GREY = 0.12;

/** By hue, the greys behind all colours from dark to light. Degrees, or 360 and more for greys. */
function hueOf(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16) / 255) as [
    number,
    number,
    number,
  ];
  const [most, least] = [Math.max(r, g, b), Math.min(r, g, b)];
  const spread = most - least;
  if (most === 0 || spread / most < GREY) return 360 + most;
  const sixth =
    most === r ? ((g - b) / spread + 6) % 6 : most === g ? (b - r) / spread + 2 : (r - g) / spread + 4;
  return sixth * 60;
}

const names = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** @returns a new list; what compares equal stays as it was, and what has no time comes last */
export function orderedBy<T extends Orderable>(photos: readonly T[], order: Order): T[] {
  if (order === 'hand') return [...photos];
  if (typeof order === 'object') {
    // Fisher and Yates, with a seed: the same one shuffles the same.
    const { whole } = chance(order.seed);
    const list = [...photos];
    for (let at = list.length - 1; at > 0; at--) {
      const other = whole(0, at);
      [list[at], list[other]] = [list[other]!, list[at]!];
    }
    return list;
  }
  const by: Record<'taken' | 'name' | 'colour', (a: T, b: T) => number> = {
    taken: (a, b) => {
      const [first, second] = [a.original.takenAt ?? '\uFFFF', b.original.takenAt ?? '\uFFFF'];
      return first < second ? -1 : first > second ? 1 : 0;
    },
    name: (a, b) => names.compare(a.name, b.name),
    colour: (a, b) => hueOf(a.original.colour) - hueOf(b.original.colour),
  };
  return [...photos].sort(by[order]);
}
