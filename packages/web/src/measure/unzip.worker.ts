// Unpacks a ZIP off the main thread; only what a page can load, within limits.
import { unzipSync } from 'fflate';

export interface UnzipAsked {
  bytes: Uint8Array<ArrayBuffer>;
  /** Names that are unpacked, as the text of a regular expression without regard to case. */
  wanted: string;
  mostFiles: number;
  mostBytes: number;
}

export type Unzipped =
  | { kind: 'files'; files: [string, Uint8Array<ArrayBuffer>][] }
  | { kind: 'too-many' }
  | { kind: 'too-large' }
  | { kind: 'damaged' };

function unpack({ bytes, wanted, mostFiles, mostBytes }: UnzipAsked): Unzipped {
  const pattern = new RegExp(wanted, 'i');
  let [count, all] = [0, 0];
  try {
    const entries = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!pattern.test(name) || name.includes('__MACOSX/')) return false;
        count++;
        all += originalSize;
        return count <= mostFiles && all <= mostBytes;
      },
    });
    if (count > mostFiles) return { kind: 'too-many' };
    if (all > mostBytes) return { kind: 'too-large' };
    return { kind: 'files', files: Object.entries(entries as Record<string, Uint8Array<ArrayBuffer>>) };
  } catch {
    // fflate tells damage of many kinds by throwing; they all come to the same for an editor.
    return { kind: 'damaged' };
  }
}

self.onmessage = ({ data }: MessageEvent<UnzipAsked>) => self.postMessage(unpack(data));
