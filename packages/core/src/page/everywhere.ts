// Arrangements that stand on every page of a site: what may be said of them, and a page with them.
import type { Everywhere, PagePart, SetPage } from '../contract/index.ts';
import { placesOn } from '../plan/set-places.ts';

/** More would be no page of its own any longer. */
const MOST = 4;

/** What is wrong with what is to stand on every page, as a sentence, or null. */
export function everywhereProblem(everywhere: readonly Everywhere[]): string | null {
  if (everywhere.length > MOST) return `On every page stand up to ${MOST} arrangements.`;
  const names = everywhere.map(({ slot }) => slot);
  return new Set(names).size === names.length ? null : 'An arrangement stands on every page once.';
}

/**
 * A page with what stands on every page, in its order, above and below what is its own; what stands there already stays
 * where it is.
 * @param everywhere with or without their titles, as on the pages that they come from
 */
export function withEverywhere(
  page: SetPage,
  everywhere: readonly (Pick<Everywhere, 'slot' | 'at'> & { titled: boolean })[],
): SetPage {
  const own = placesOn(page);
  const parts = (wanted: Everywhere['at']): PagePart[] =>
    everywhere
      .filter(({ at, slot }) => at === wanted && !own.includes(slot))
      .map(({ slot, titled }) => ({ kind: 'place', slot, titled }));
  return { ...page, parts: [...parts('above'), ...page.parts, ...parts('below')] };
}

/** What a set puts onto every page of its site. */
export const putsEverywhere = (
  { everywhere }: { everywhere: readonly Everywhere[] },
  set: number,
): Everywhere[] => everywhere.filter((one) => one.set === set);
