// Brings the focus to what is about to be drawn: a row that is being read, a field of a lens that is being turned to, or what
// a screen is for.
import { useEffect } from 'react';

/** Frames that are waited for, three seconds at most screens' pace. */
const MOST_FRAMES = 180;

/** Focuses an element as soon as it is there, unless it is no longer wanted. */
export function focusSoon(find: () => HTMLElement | null, stillWanted: () => boolean): void {
  let left = MOST_FRAMES;
  const look = () => {
    if (!stillWanted()) return;
    const element = find();
    if (element) element.focus();
    else if ((left -= 1) > 0) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}

/** What a screen is for: the rows of a table, the focal point, the first way out. */
const work = (): HTMLElement | null => document.querySelector<HTMLElement>('[data-work]');

/** Brings the focus past the head and the path, to what the screen is for or to its main part. */
export function skipToWork(): void {
  const main = document.querySelector('main');
  main?.setAttribute('tabindex', '-1');
  (work() ?? main)?.focus();
}

/** Where a screen is opened it is at once in hand, unless somebody is elsewhere already. */
export function useWorkInHand(): void {
  useEffect(() => focusSoon(work, () => document.activeElement === document.body), []);
}
