// The describe bench in a set of 2,000 photos: what a keystroke costs, and how many keys a photo takes beside its text.
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import { report, rounded } from '../report.ts';
import { newSet, startServer } from '../server.ts';

const PHOTOS = Number(process.env.DESCRIBE_PHOTOS ?? 2000);
const AT_ONCE = 4;
const STROKES = 400;

const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '2' });
const setId = await newSet(server, 'Describe bench');
await fetch(`${server.address}/api/sets/${setId}/preparation`, {
  method: 'PUT',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ paused: true }),
});

let next = 0;
await Promise.all(
  Array.from({ length: AT_ONCE }, async () => {
    for (let n = next++; n < PHOTOS; n = next++) {
      const background = { r: n % 256, g: (n >> 3) % 256, b: 90 };
      const picture = await sharp({ create: { width: 120, height: 90, channels: 3, background } })
        .jpeg()
        .withExif({ IFD0: { ImageDescription: `photo ${n}` } })
        .toBuffer();
      const response = await fetch(`${server.address}/api/sets/${setId}/files?name=photo-${n}.jpg`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: new Uint8Array(picture),
      });
      if (!response.ok) throw new Error(`photo ${n}: ${response.status}`);
    }
  }),
);

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const first = (
  (await (await fetch(`${server.address}/api/sets/${setId}/photos?count=1`)).json()) as {
    photos: { id: number }[];
  }
).photos[0]!.id;
await page.goto(`${server.address}/sets/${setId}/describe/${first}`);
await page.getByRole('heading', { name: 'What is it here for?' }).waitFor();

// From the key to the end of the task that draws its letter: what the main thread does for it.
await page.evaluate(() => {
  const spent: number[] = [];
  const channel = new MessageChannel();
  let from = 0;
  channel.port1.onmessage = () => spent.push(performance.now() - from);
  document.addEventListener('keydown', () => (from = performance.now()), true);
  document.addEventListener('input', () => queueMicrotask(() => channel.port2.postMessage(null)));
  Object.assign(window, { spent });
});
await page.keyboard.press('1');
await page.locator('[data-field="alt"]:focus').waitFor();
const TEXT = 'A round green bowl on the drying shelf, seen from the door of the workshop at dusk. ';
for (let n = 0; n < STROKES; n++) {
  await page.keyboard.press(TEXT[n % TEXT.length]!);
  if (n % 150 === 149) await page.locator('[data-field="alt"]').fill('');
}
const spent = await page.evaluate(() => (window as unknown as { spent: number[] }).spent);
const sorted = [...spent].sort((a, b) => a - b);
const at = (share: number) => rounded(sorted[Math.floor((sorted.length - 1) * share)]!, 1);

/** Fourteen photos as a set has them: keys by what a photo is here for. */
let presses = 0;
const press = async (key: string) => {
  presses += key.split('+').length;
  await page.keyboard.press(key);
};
const KINDS = ['1', '1', '1', '1', '1', '2', '1', '1', '3', '1', '4', '1', '5', '1'];
await page.keyboard.press('Control+Enter');
for (const [n, kind] of KINDS.entries()) {
  await page.locator('[data-role-question]:focus').waitFor();
  const here = page.url();
  await press(kind);
  if (kind === '4') await press('n');
  if (kind === '2') await page.locator('[data-next-open]:focus').waitFor();
  else {
    await page.locator('[data-field="alt"]:focus').waitFor();
    await page.keyboard.insertText(`Photo ${n} shows bowl number ${n} on a shelf of its own`);
  }
  await press('Enter');
  if (kind === '3') {
    await page.locator('[data-field="link"]:focus').waitFor();
    await page.keyboard.insertText('/shop');
    await press('Enter');
  }
  if (kind === '5') {
    await page.locator('[contenteditable="true"]:focus').waitFor();
    await page.keyboard.insertText('Told at length.');
    await press('Control+Enter');
  }
  await page.waitForURL((url) => url.href !== here);
}
await browser.close();
await server.end();
await report('describe', `writing words in a set of ${PHOTOS} photos`, [], {
  photos: PHOTOS,
  'presses a photo': rounded(presses / KINDS.length, 2),
  'ms a keystroke p95': at(0.95),
  'ms a keystroke, median': at(0.5),
  'ms a keystroke, worst': at(1),
  strokes: spent.length,
});
