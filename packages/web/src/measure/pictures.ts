// How large the pictures of a site are, and what stands for them while a page is measured.
import { placeholder } from '@dusky-otter/core/pages';

/** A drawing is laid out by what its beginning says, and is read for it up to this size; bytes. */
const LARGEST_DRAWING = 500_000;
/** Nothing is loaded from it: browsers show what they show for a missing file. */
export const NOTHING = 'data:image/gif;base64,';

const isDrawing = (path: string): boolean => /\.svg$/i.test(path);

/** The size of a picture as browsers lay it out: turned as its orientation says, at the density it names. */
function sizeOf(file: Blob): Promise<{ width: number; height: number } | null> {
  return new Promise((done) => {
    const address = URL.createObjectURL(file);
    const picture = new Image();
    const end = (size: { width: number; height: number } | null) => {
      URL.revokeObjectURL(address);
      done(size);
    };
    picture.onload = () =>
      end(picture.naturalWidth > 0 ? { width: picture.naturalWidth, height: picture.naturalHeight } : null);
    picture.onerror = () => end(null);
    picture.src = address;
  });
}

async function dataOf(file: Blob, type: string): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 32_768)
    text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
  return `data:${type};base64,${btoa(text)}`;
}

/** What a drawing is laid out by. */
const LAID_OUT_BY = ['width', 'height', 'viewBox', 'preserveAspectRatio'];

/** An empty drawing that is laid out as another: what is drawn in it may be made to take for ever. */
function drawingStandIn(text: string): string {
  const { documentElement: root } = new DOMParser().parseFromString(text, 'image/svg+xml');
  // Browsers show nothing of one that is not well-formed.
  if (root.localName !== 'svg') return NOTHING;
  const empty = document.implementation.createDocument('http://www.w3.org/2000/svg', 'svg');
  for (const name of LAID_OUT_BY) {
    const value = root.getAttribute(name);
    if (value !== null) empty.documentElement.setAttribute(name, value);
  }
  return `data:image/svg+xml,${encodeURIComponent(new XMLSerializer().serializeToString(empty))}`;
}

const FONTS: Record<string, string> = {
  woff2: 'font/woff2',
  woff: 'font/woff',
  ttf: 'font/ttf',
  otf: 'font/otf',
};

/** What stands for a file inside the measured page: data that loads, or nothing. */
export async function standIn(path: string, file: Blob): Promise<string> {
  const ending = path.split('.').at(-1)!.toLowerCase();
  const font = Object.hasOwn(FONTS, ending) ? FONTS[ending] : undefined;
  if (font) return dataOf(file, font);
  if (isDrawing(path)) return file.size <= LARGEST_DRAWING ? drawingStandIn(await file.text()) : NOTHING;
  const size = await sizeOf(file);
  return size ? placeholder(Math.min(65_535, size.width), Math.min(65_535, size.height)) : NOTHING;
}
