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

let collator: Intl.Collator | undefined;
/** Made when names are first compared: that takes longer than all else that this library does when it is loaded. */
const names = (): Intl.Collator =>
  (collator ??= new Intl.Collator('en', { numeric: true, sensitivity: 'base' }));

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
    name: (a, b) => names().compare(a.name, b.name),
    colour: (a, b) => hueOf(a.original.colour) - hueOf(b.original.colour),
  };
  return [...photos].sort(by[order]);
}

/**
 * Photos in an arrangement's own order: those that it names first, the others behind them as they are.
 * @param order ids of photos; those that are not there are passed over
 */
export function asOrdered<T extends { id: number }>(
  photos: readonly T[],
  order: readonly number[] = [],
): T[] {
  const at = new Map(order.map((id, n) => [id, n]));
  const place = ({ id }: T): number => at.get(id) ?? order.length;
  return [...photos].sort((a, b) => place(a) - place(b));
}

/** Photos moved together before another one, or behind all where none is named; they keep their order among themselves. */
export function movedBefore(
  ids: readonly number[],
  moved: readonly number[],
  before: number | null,
): number[] {
  const taken = new Set(moved);
  // Let go over one of those that are moved, they go before the next that stays.
  const from = before === null ? ids.length : ids.indexOf(before);
  const target = ids.slice(from).find((id) => !taken.has(id)) ?? null;
  const rest = ids.filter((id) => !taken.has(id));
  const at = target === null ? rest.length : rest.indexOf(target);
  return rest.toSpliced(at, 0, ...ids.filter((id) => taken.has(id)));
}
