// The files of a site as an editor gives them: one page, a folder, or a ZIP. Read only when they are asked for.
import type { Unzipped, UnzipAsked } from './unzip.worker.ts';

/** Files by their path inside the folder, with / between the parts. */
export type SiteFiles = ReadonlyMap<string, Blob>;

const MOST_FILES = 5_000;
const MOST_BYTES = 400_000_000;
const LARGEST_ZIP = 200_000_000;
/** What a page can load; the rest of a site is passed over. */
const WANTED = /\.(?:x?html?|css|jpe?g|jfif|png|gif|webp|avif|svg|bmp|ico|woff2?|ttf|otf)$/i;

export class SiteError extends Error {}

const isPage = (path: string): boolean => /\.(?:x?html?)$/i.test(path);

/** Paths without a folder that holds everything else. */
function withoutTop(files: Map<string, Blob>): Map<string, Blob> {
  const tops = new Set([...files.keys()].map((path) => (path.includes('/') ? path.split('/')[0]! : '')));
  const [top] = tops;
  if (tops.size !== 1 || !top) return files;
  return new Map([...files].map(([path, file]) => [path.slice(top.length + 1), file]));
}

const SAID = {
  'too-many': `This ZIP holds more than ${MOST_FILES} files that a page could load.`,
  'too-large': 'Unpacked this ZIP would be larger than 400 MB.',
  damaged: 'This ZIP can’t be read: it is damaged, or no ZIP file.',
} as const;

async function fromZip(zip: Blob): Promise<Map<string, Blob>> {
  if (zip.size > LARGEST_ZIP)
    throw new SiteError('This ZIP is larger than 200 MB. Leave out what the page does not load.');
  const bytes = new Uint8Array(await zip.arrayBuffer());
  const worker = new Worker(new URL('./unzip.worker.ts', import.meta.url), { type: 'module' });
  try {
    const unzipped = await new Promise<Unzipped>((done) => {
      worker.onmessage = ({ data }: MessageEvent<Unzipped>) => done(data);
      worker.onerror = () => done({ kind: 'damaged' });
      const asked: UnzipAsked = {
        bytes,
        wanted: WANTED.source,
        mostFiles: MOST_FILES,
        mostBytes: MOST_BYTES,
      };
      worker.postMessage(asked, [bytes.buffer]);
    });
    if (unzipped.kind !== 'files') throw new SiteError(SAID[unzipped.kind]);
    return new Map(unzipped.files.map(([name, data]) => [name.replaceAll('\\', '/'), new Blob([data])]));
  } finally {
    worker.terminate();
  }
}

/**
 * @param chosen files of a folder with their paths, one ZIP, or a page alone
 * @throws SiteError with a sentence
 */
export async function siteFrom(chosen: readonly File[]): Promise<SiteFiles> {
  const [only] = chosen;
  if (!only) throw new SiteError('Nothing was chosen.');
  const isZip = chosen.length === 1 && (/\.zip$/i.test(only.name) || only.type === 'application/zip');
  const files = isZip
    ? await fromZip(only)
    : new Map(
        chosen
          .map((file): [string, Blob] => {
            const relative = 'relativePath' in file ? String(file.relativePath) : '';
            return [(file.webkitRelativePath || relative || file.name).replace(/^\.?\//, ''), file];
          })
          .filter(([path]) => WANTED.test(path)),
      );
  if (files.size > MOST_FILES)
    throw new SiteError(`A site may hold ${MOST_FILES} files here; this one has ${files.size}.`);
  const bare = withoutTop(files);
  if (![...bare.keys()].some(isPage))
    throw new SiteError('There is no page among these files: an .html file is needed.');
  return bare;
}

/** Pages of a site: its first page first, then by path. */
export const pagesOfSite = (files: SiteFiles): string[] =>
  [...files.keys()]
    .filter(isPage)
    .sort(
      (a, b) =>
        Number(/^index\.x?html?$/i.test(b)) - Number(/^index\.x?html?$/i.test(a)) || a.localeCompare(b),
    );
