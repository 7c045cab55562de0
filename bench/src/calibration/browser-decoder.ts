// How a browser takes to files: how long it decodes them, and how near to the codec's pixels it draws.
import { chromium } from '@playwright/test';
import { decode } from '../../../packages/server/dist/codec/encode.js';
import { median } from '../report.ts';

export interface Drawn {
  /** ms of a decode, the middle of several. */
  time: number;
  /** Codes of 255 that the browser draws apart from the codec: the most, and on average. */
  most: number;
  mean: number;
}

const TIMES = 15;

/** Runs in the page. @param files as data URLs @returns for each the times of its decodes, and its pixels as RGBA */
async function decodeThere({ files, times }: { files: string[]; times: number }) {
  const found: { times: number[]; pixels: number[] }[] = [];
  const blobs = await Promise.all(files.map(async (file) => (await fetch(file)).blob()));
  const spent = blobs.map((): number[] => []);
  // In turns, so that whatever else runs here slows all of them alike.
  for (let n = 0; n < times; n++) {
    for (const [i, blob] of blobs.entries()) {
      const from = performance.now();
      (await createImageBitmap(blob)).close();
      spent[i]!.push(performance.now() - from);
    }
  }
  for (const [i, blob] of blobs.entries()) {
    const picture = await createImageBitmap(blob);
    const context = new OffscreenCanvas(picture.width, picture.height).getContext('2d')!;
    context.drawImage(picture, 0, 0);
    found.push({
      times: spent[i]!,
      pixels: [...context.getImageData(0, 0, picture.width, picture.height).data],
    });
  }
  return found;
}

/** @param files AVIFs of small or middling size that nothing is seen through */
export async function drawnInChromium(files: readonly Buffer[]): Promise<Drawn[]> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const page = await browser.newPage();
    const urls = files.map((file) => `data:image/avif;base64,${file.toString('base64')}`);
    const found = await page.evaluate(decodeThere, { files: urls, times: TIMES });
    return await Promise.all(
      found.map(async ({ times, pixels }, i) => {
        const { data: own } = await decode(files[i]!);
        let most = 0;
        let sum = 0;
        for (const [at, code] of own.entries()) {
          // The browser's have alpha as well.
          const apart = Math.abs(code - pixels[Math.floor(at / 3) * 4 + (at % 3)]!);
          most = Math.max(most, apart);
          sum += apart;
        }
        return { time: median(times), most, mean: sum / own.length };
      }),
    );
  } finally {
    await browser.close();
  }
}
