/// <reference lib="dom" />
/// <reference lib="dom.iterable" />
// What runs inside the sealed frame that pages are measured in: it writes the page, waits until it is laid out, and says
// how large each picture is. It is sent as text; nothing from outside of the function is known to it.

import type { Answered, Asked, Looked } from '@dusky-otter/core/contract';

export function inside(): void {
  let selector = 'img';
  const say = (answer: Answered): void => window.parent.postMessage(answer, '*');
  const px = (text: string): number => Number.parseFloat(text) || 0;

  const until = (holds: () => boolean): Promise<void> =>
    new Promise((done) => {
      const check = () => (holds() ? done() : setTimeout(check, 4));
      check();
    });

  const look = (picture: Element): Looked | null => {
    const { x, y, width, height } = picture.getBoundingClientRect();
    if (width < 0.5 || height < 0.5) return null;
    const style = getComputedStyle(picture);
    const besides = (sides: string[]) =>
      sides.reduce(
        (sum, side) =>
          sum +
          px(style.getPropertyValue(`padding-${side}`)) +
          px(style.getPropertyValue(`border-${side}-width`)),
        0,
      );
    const img = picture instanceof HTMLImageElement ? picture : null;
    const floating = (element: Element | null, levels: number): boolean =>
      element !== null &&
      levels > 0 &&
      (getComputedStyle(element).float !== 'none' || floating(element.parentElement, levels - 1));
    return {
      width: Math.max(0, width - besides(['left', 'right'])),
      height: Math.max(0, height - besides(['top', 'bottom'])),
      box: width,
      x: x + window.scrollX,
      y: y + window.scrollY,
      natural: [img?.naturalWidth ?? 0, img?.naturalHeight ?? 0],
      fit: style.objectFit || 'fill',
      floats: floating(picture, 3),
    };
  };

  const pictures = () => [...document.querySelectorAll(selector)];

  /** What a page that was cleaned has none of. */
  const ACTIVE =
    'script, link, base, meta[http-equiv], template, noscript, iframe[src], iframe[srcdoc], frame[src], object[data], embed[src], video[src], audio[src], [onload], [onerror]';

  const open = async (html: string): Promise<void> => {
    if (new DOMParser().parseFromString(html, 'text/html').querySelector(ACTIVE))
      return say({ kind: 'ready', quirks: false, count: -1 });
    document.open();
    // Opening a document takes its listeners away.
    window.addEventListener('message', hear);
    // eslint-disable-next-line @typescript-eslint/no-deprecated -- the one way in that keeps a page in quirks mode in it
    document.write(html);
    document.close();
    await until(() => document.readyState === 'complete');
    await document.fonts.ready;
    say({ kind: 'ready', quirks: document.compatMode === 'BackCompat', count: pictures().length });
  };

  const see = async (width: number): Promise<void> => {
    // Where the application is zoomed, a frame may come out a pixel off: then that is the window.
    const asked = Date.now();
    await until(() => {
      const off = Math.abs(window.innerWidth - width);
      return off === 0 || (off <= 1 && Date.now() - asked > 400);
    });
    if (document.querySelector('[srcset]')) {
      // Another candidate may be due: browsers look for one in a task of their own, and load it.
      for (let turn = 0; turn < 3; turn++) await new Promise((done) => setTimeout(done, 16));
      await until(() => [...document.images].every((img) => img.complete));
    }
    const seen = pictures().map(look);
    say({ kind: 'seen', window: width, pictures: seen, height: document.documentElement.scrollHeight });
  };

  /** Outlines with a number, drawn over the page: nothing of its layout is touched. */
  const mark = (labels: (string | null)[]): void => {
    document.getElementById('dusky-marks')?.remove();
    const over = document.createElement('div');
    over.id = 'dusky-marks';
    over.style.cssText =
      'position:absolute;left:0;top:0;width:0;height:0;z-index:2147483647;pointer-events:none';
    pictures().forEach((picture, n) => {
      const label = labels[n];
      const seen = label === undefined || label === null ? null : look(picture);
      if (!seen) return;
      const { width, height } = picture.getBoundingClientRect();
      const box = document.createElement('div');
      box.style.cssText = `position:absolute;box-sizing:border-box;left:${seen.x}px;top:${seen.y}px;width:${width}px;height:${height}px;border:6px solid #0C5F57;background:rgba(12,95,87,.16)`;
      const tag = document.createElement('b');
      tag.textContent = label!;
      tag.style.cssText =
        'position:absolute;left:-6px;top:-6px;min-width:64px;padding:0 12px;background:#0C5F57;color:#fff;font:700 54px/68px sans-serif;text-align:center';
      box.append(tag);
      over.append(box);
    });
    document.documentElement.append(over);
  };

  const hear = (event: MessageEvent): void => {
    if (event.source !== window.parent) return;
    const asked = event.data as Asked;
    if (asked.kind === 'page') {
      selector = asked.pictures;
      void open(asked.html);
    } else if (asked.kind === 'look') void see(asked.window);
    else mark(asked.labels);
  };

  window.addEventListener('message', hear);
  say({ kind: 'open', opening: window.location.search });
}
