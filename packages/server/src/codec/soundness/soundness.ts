// Is a file whole? What its decoder lets pass is looked through once more, kind by kind.
import { readFile } from 'node:fs/promises';
import type { InputFormat } from '@dusky-otter/core/contract';
import type { Complaint } from './complaint.ts';
import { gifComplaint } from './gif.ts';
import { jpegComplaint, progressiveScans } from './jpeg.ts';
import { pngComplaint } from './png.ts';
import { tiffComplaint } from './tiff.ts';
import { webpComplaint } from './webp.ts';

/** Scans after which a progressive JPEG shows the whole picture, if not yet sharply. */
const ENOUGH_SCANS = 3;

/**
 * What is wrong with a file, or null where nothing is found.
 * @param decoded whether the strict decoder let it pass. Where it did not, there is always a complaint, with the share
 *   of the picture that can be counted on; 0 for kinds of which nothing can be said.
 */
export async function complaintOf(
  path: string,
  format: InputFormat,
  decoded: boolean,
): Promise<Complaint | null> {
  switch (format) {
    case 'jpeg': {
      const file = await readFile(path);
      const found = jpegComplaint(file);
      if (found || decoded) return found;
      const whole = progressiveScans(file) >= ENOUGH_SCANS;
      return { sentence: 'a part of its data is missing or garbled', share: whole ? 1 : 0 };
    }
    case 'gif':
      return gifComplaint(await readFile(path)) ?? (decoded ? null : { sentence: '', share: 0 });
    case 'png':
      return pngComplaint(await readFile(path), decoded);
    case 'webp':
      return decoded
        ? webpComplaint(await readFile(path))
        : { sentence: 'its data makes no sense', share: 0 };
    case 'tiff': {
      const found = tiffComplaint(await readFile(path));
      return found ?? (decoded ? null : { sentence: 'its data makes no sense', share: 0 });
    }
    case 'heic':
      return decoded
        ? null
        : {
            sentence: 'a part of its data is missing or garbled',
            share: await (await import('../heic.ts')).heicShare(path),
          };
    // Their decoders either read all of it or nothing.
    case 'avif':
    case 'svg':
      return decoded ? null : { sentence: 'its data makes no sense', share: 0 };
  }
}
