// What features say and do alike: words of the page's language, buttons, clicks and fingers, and whether anything may move.

/** Words of the page's language, from the attribute that names a feature. */
export type Said = Record<string, string>;

/** Calls a feature for each element that asks for it; what was called already is left alone, so that scripts may be twice on a page. */
export function each(feature: string, begin: (element: HTMLElement, said: Said) => void): void {
  const name = `data-dusky-${feature}`;
  for (const element of document.querySelectorAll<HTMLElement>(`[${name}]`)) {
    const said = JSON.parse(element.getAttribute(name) || '{}') as Said;
    element.removeAttribute(name);
    begin(element, said);
  }
}

export const isStill = (): boolean => matchMedia('(prefers-reduced-motion: reduce)').matches;

/** A button with a sign for eyes and a name for everybody else. */
export function button(kind: string, name: string, act: () => void): HTMLButtonElement {
  const made = document.createElement('button');
  made.type = 'button';
  made.className = `dusky-button dusky-${kind}`;
  made.ariaLabel = name;
  made.onclick = act;
  return made;
}

/** "{n} of {m}" with its numbers. */
export const counted = (pattern: string, n: number, m: number): string =>
  pattern.replace('{n}', String(n)).replace('{m}', String(m));

/** Whether a text is read from right to left where an element stands. */
export const isMirrored = (element: Element): boolean => getComputedStyle(element).direction === 'rtl';

/** Calls for a click that asks for nothing else: with a key held down a link does what browsers do with it. */
export function clicked(link: HTMLElement, act: (event: MouseEvent) => void): void {
  link.addEventListener('click', (event) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey || event.button) return;
    event.preventDefault();
    act(event);
  });
}

/** Calls with 1 or −1 when a finger goes sideways by so many CSS px: on to the next, or back. */
export function swiped(element: HTMLElement, far: number, turn: (by: number) => void): void {
  let from = 0;
  element.addEventListener('pointerdown', ({ clientX }) => (from = clientX));
  element.addEventListener('pointerup', ({ clientX, pointerType }) => {
    const way = (clientX - from) * (isMirrored(element) ? -1 : 1);
    if (pointerType !== 'mouse' && Math.abs(way) > far) turn(way > 0 ? -1 : 1);
  });
}

/** The large picture of a link: it lies in a template beside it, and nothing of it was loaded until now. */
export const largeBehind = (link: Element): Node =>
  link.closest('li, div')!.querySelector('template')!.content.cloneNode(true);
