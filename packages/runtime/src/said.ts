// What features say and do alike: words of the page's language, buttons, clicks and fingers, and whether anything may move.

/** Words of the page's language, from the attribute that names a feature. */
export type Said = Record<string, string>;

/** What a feature does with an element; `gone` is aborted when that has left the page. */
export type Begin = (element: HTMLElement, said: Said, gone: AbortSignal) => void;

/**
 * Begins a feature for each element that asks for it: those that are there, and those that come later, as a host page adds
 * them. What was begun already is left alone, so that scripts may be twice on a page. An element that leaves the page is let
 * go, and begun anew where it comes again.
 *
 * Into a shadow root nobody looks. There this begins what was added:
 * `element.dispatchEvent(new Event('dusky-begin', { bubbles: true, composed: true }))`.
 */
export function each(feature: string, begin: Begin): void {
  const name = `data-dusky-${feature}`;
  const begun = new Map<Element, () => void>();
  const start = (root: ParentNode) => {
    const own = 'getAttribute' in root ? [root as HTMLElement] : [];
    for (const element of [...own, ...root.querySelectorAll<HTMLElement>(`[${name}]`)]) {
      const said = element.getAttribute(name);
      if (said === null) continue;
      const gone = new AbortController();
      element.removeAttribute(name);
      begun.set(element, () => {
        gone.abort();
        element.setAttribute(name, said);
      });
      begin(element, JSON.parse(said || '{}') as Said, gone.signal);
    }
  };
  new MutationObserver((changes) => {
    // Moved is not gone: only now is it known where it stands.
    for (const [element, end] of begun) if (!element.isConnected && begun.delete(element)) end();
    for (const { addedNodes } of changes)
      for (const node of addedNodes) if (node.nodeType === 1) start(node as Element);
  }).observe(document, { childList: true, subtree: true });
  addEventListener('dusky-begin', (event) => start(event.composedPath()[0] as Element));
  start(document);
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
export function clicked(link: HTMLElement, act: (event: MouseEvent) => void, gone: AbortSignal): void {
  link.addEventListener(
    'click',
    (event) => {
      if (event.ctrlKey || event.metaKey || event.shiftKey || event.button) return;
      event.preventDefault();
      act(event);
    },
    { signal: gone },
  );
}

/** Calls with 1 or −1 when a finger goes sideways by so many CSS px: on to the next, or back. */
export function swiped(
  element: HTMLElement,
  far: number,
  turn: (by: number) => void,
  gone?: AbortSignal,
): void {
  let from = 0;
  const signal = gone && { signal: gone };
  element.addEventListener('pointerdown', ({ clientX }) => (from = clientX), signal);
  element.addEventListener(
    'pointerup',
    ({ clientX, pointerType }) => {
      const way = (clientX - from) * (isMirrored(element) ? -1 : 1);
      if (pointerType !== 'mouse' && Math.abs(way) > far) turn(way > 0 ? -1 : 1);
    },
    signal,
  );
}

/** The large picture of a link: it lies in a template beside it, and nothing of it was loaded until now. */
export const largeBehind = (link: Element): DocumentFragment =>
  link.closest('li, div')!.querySelector('template')!.content.cloneNode(true) as DocumentFragment;

/** Loads the large picture of a link before it is asked for, in the format and size that it will be shown in. */
export function fetchAhead(link: Element): void {
  const { ownerDocument } = link;
  const picture = ownerDocument.importNode(largeBehind(link), true);
  for (const img of picture.querySelectorAll('img')) img.loading = 'eager';
}
