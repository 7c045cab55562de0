// A page in a frame that nobody sees, with its own styles and scripts: what those make of it is heard as well.

/** The features of what ships beside a page, each with the attribute that asks for it. */
const FEATURES = ['viewer', 'rotating', 'strip', 'zoom', 'film'] as const;

/** A page that loads nothing but its own styles and scripts, whatever it names. @param set whose styles it has */
function lightened(html: string, set: number): string {
  const page = new DOMParser().parseFromString(html, 'text/html');
  const used = FEATURES.filter((name) => page.querySelector(`[data-dusky-${name}]`));
  for (const element of page.querySelectorAll('[src], [srcset]'))
    for (const name of ['src', 'srcset']) element.removeAttribute(name);
  for (const element of page.querySelectorAll('script, iframe, object, embed, base')) element.remove();
  for (const link of page.querySelectorAll<HTMLLinkElement>('link'))
    if (link.getAttribute('href') !== 'styles.css') link.remove();
  // A long description is read as who opens it hears it.
  for (const details of page.querySelectorAll(
    'figcaption details, figure + * details, .dusky-behind details',
  ))
    details.setAttribute('open', '');
  const base = page.createElement('base');
  base.href = `/preview/${set}/`;
  page.head.prepend(base);
  for (const name of used) {
    const script = page.createElement('script');
    script.src = `/proofs/runtime/${name}.js`;
    page.body.append(script);
  }
  return `<!doctype html>${page.documentElement.outerHTML}`;
}

/**
 * Reads something off a page once its scripts have run.
 * @param html a whole page, as it goes out
 * @throws DOMException AbortError when nobody waits for it any more
 */
export async function readLive<T>(
  html: string,
  set: number,
  signal: AbortSignal,
  read: (page: Document) => T,
): Promise<T> {
  const frame = document.createElement('iframe');
  frame.style.cssText = 'position:fixed;left:-9999px;top:0;width:1280px;height:800px;border:0';
  frame.ariaHidden = 'true';
  frame.tabIndex = -1;
  frame.title = 'The page as it is heard';
  frame.sandbox.add('allow-same-origin', 'allow-scripts');
  frame.srcdoc = lightened(html, set);
  try {
    await new Promise<void>((done, failed) => {
      frame.onload = () => done();
      signal.addEventListener('abort', () => failed(new DOMException('Gone', 'AbortError')));
      document.body.append(frame);
    });
    signal.throwIfAborted();
    return read(frame.contentDocument!);
  } finally {
    frame.remove();
  }
}
