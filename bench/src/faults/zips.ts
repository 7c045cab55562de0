// ZIPs that are taken while files that go into them are spoiled: each is whole, or nobody takes it for whole.
import { unzipSync } from 'fflate';

/** Names of the entries of a ZIP, by its directory; null for one that has none, and so was broken off. */
function namesIn(zip: Buffer): string[] | null {
  try {
    return Object.keys(unzipSync(new Uint8Array(zip)));
  } catch {
    return null;
  }
}

const TIMES = 6;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

interface Handed {
  /** Pictures that a whole ZIP has. */
  wanted: number;
  zip: () => Promise<Response>;
  spoil: () => Promise<void>;
  /** Resolves once everything is made again. */
  mended: () => Promise<unknown>;
}

/** @returns whether every ZIP had all pictures, or was refused or broken off */
export async function zipsStayHonest({ wanted, zip, spoil, mended }: Handed): Promise<boolean> {
  let honest = true;
  for (let n = 0; n < TIMES; n++) {
    const taken = zip();
    await pause(8 * n);
    await spoil();
    const answer = await taken;
    const bytes = await answer.arrayBuffer().catch(() => null);
    const names = answer.ok && bytes ? namesIn(Buffer.from(bytes)) : null;
    honest &&= names === null || names.filter((name) => name.startsWith('photos/')).length >= wanted;
    await mended();
  }
  return honest;
}
