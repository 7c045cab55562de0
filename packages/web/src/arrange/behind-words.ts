// The pixels behind words over a picture, at every width: the proof is laid out in a frame that nobody sees, and the pictures
// that it loads are read where the words stand.
import type { Pixels } from '@dusky-otter/core/difference';

/** Windows in which words stand over their picture; narrower ones have them below it. CSS px. */
export const WIDTHS = [680, 820, 1024, 1280, 1536, 1920] as const;

/** Samples along each side of a text's box, at most. */
const MOST = 120;

export interface Behind {
  /** Which picture of the arrangement, from 0. */
  picture: number;
  width: number;
  pixels: Pixels;
}

const loaded = (frame: HTMLIFrameElement, signal: AbortSignal): Promise<Document> =>
  new Promise((done, failed) => {
    signal.addEventListener('abort', () => failed(new DOMException('Gone', 'AbortError')), { once: true });
    frame.addEventListener('load', () => done(frame.contentDocument!), { once: true });
  });

/** What of a picture lies below a box of the page. */
function below(img: HTMLImageElement, box: DOMRect, canvas: OffscreenCanvas): Pixels | null {
  const place = img.getBoundingClientRect();
  const left = Math.max(box.left, place.left);
  const top = Math.max(box.top, place.top);
  const [width, height] = [Math.min(box.right, place.right) - left, Math.min(box.bottom, place.bottom) - top];
  if (width < 1 || height < 1) return null;
  const scale = img.naturalWidth / place.width;
  const size = { width: Math.min(MOST, Math.ceil(width)), height: Math.min(MOST, Math.ceil(height)) };
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  // Every so manieth pixel, none mixed: bright specks count as they are.
  context.imageSmoothingEnabled = false;
  context.drawImage(
    img,
    (left - place.left) * scale,
    (top - place.top) * scale,
    width * scale,
    height * scale,
    0,
    0,
    size.width,
    size.height,
  );
  const { data } = context.getImageData(0, 0, size.width, size.height);
  return { data, ...size, channels: 4 };
}

/**
 * @param address of the proof
 * @throws DOMException AbortError when nobody waits for it any more; Error where a picture can't be read
 */
export async function pixelsBehind(address: string, signal: AbortSignal): Promise<Behind[]> {
  const frame = document.createElement('iframe');
  frame.style.cssText = 'position:fixed;left:-9999px;top:0;border:0;visibility:hidden';
  frame.height = '900';
  frame.ariaHidden = 'true';
  frame.tabIndex = -1;
  frame.sandbox.add('allow-same-origin');
  const canvas = new OffscreenCanvas(MOST, MOST);
  const found: Behind[] = [];
  try {
    for (const width of WIDTHS) {
      frame.width = String(width);
      // The address is another one for each width: the browser chooses its files anew.
      const arrived = loaded(frame, signal);
      frame.src = `${address}${address.includes('?') ? '&' : '?'}page=1#${width}`;
      if (!frame.isConnected) document.body.append(frame);
      else frame.contentWindow!.location.reload();
      const inside = await arrived;
      const figures = [...inside.querySelectorAll('figure')];
      for (const [picture, figure] of figures.entries()) {
        const img = figure.querySelector('img')!;
        img.loading = 'eager';
        await img.decode();
        if (signal.aborted) throw new DOMException('Gone', 'AbortError');
        for (const text of figure.querySelectorAll('figcaption > :is(strong, span, small)')) {
          const pixels = below(img, text.getBoundingClientRect(), canvas);
          if (pixels) found.push({ picture, width, pixels });
        }
      }
    }
  } finally {
    frame.remove();
  }
  return found;
}
