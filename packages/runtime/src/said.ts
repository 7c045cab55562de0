// What both features say and do alike: words of the page's language, buttons, and whether anything may move.

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
