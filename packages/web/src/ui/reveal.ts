// Brings the focus to what is about to be drawn: a row that is being read, or a field of a lens that is being turned to.

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
