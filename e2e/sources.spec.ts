// What Chromium loads is what the core predicts: every shipped slot, 40 viewport widths, four densities.
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test, type Browser } from '@playwright/test';
import sharp from 'sharp';
import { pageStyles, pictureMarkup } from '../packages/core/src/markup/index.ts';
import { variantSentTo } from '../packages/core/src/readiness/index.ts';
import { SHIPPED_SLOTS } from '../packages/core/src/slots/index.ts';
import type { PhotoRow, SlotId } from '../packages/core/src/contract/index.ts';
import { CONTEXT, sampleRow } from '../packages/core/src/testing/sample.ts';

const ALL: SlotId[] = SHIPPED_SLOTS.map((slot) => slot.id);
/** A large wide photo, and an upright one that is smaller than some places want. */
const ROWS: PhotoRow[] = [sampleRow(ALL, { id: 1 }), sampleRow(ALL, { id: 2 }, { width: 900, height: 1300 })];

/** Every few px where phones are, around the breakpoints of the slots, and up to wide desktops. */
const VIEWPORTS = [
  320, 344, 360, 375, 384, 390, 393, 412, 414, 428, 430, 480, 540, 568, 599, 600, 601, 640, 667, 699, 700,
  736, 751, 752, 753, 768, 820, 884, 959, 960, 1024, 1180, 1280, 1366, 1440, 1536, 1680, 1920, 2048, 2560,
];
const DENSITIES = [1, 1.5, 2, 3];

const page = `<!doctype html><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<style>${pageStyles(CONTEXT, { design: 'plain' })}</style>
${ROWS.flatMap((row) =>
  SHIPPED_SLOTS.map(
    (slot) =>
      `<figure id="p${row.id}-${slot.id}" class="dusky-photo dusky-in-${slot.id}">${pictureMarkup({
        row,
        slot,
        first: false,
        urlOf: (v) => `${row.id}/${v.slot}/${v.shape.replace(':', 'x')}/${v.width}.${v.format}`,
      })}</figure>`,
  ),
).join('\n')}`;

let server: Server;
let address: string;
test.beforeAll(async () => {
  const pixel = await sharp({ create: { width: 3, height: 2, channels: 3, background: '#579' } })
    .png()
    .toBuffer();
  server = createServer((request, response) => {
    const isPage = request.url!.endsWith('/');
    response.writeHead(200, { 'content-type': isPage ? 'text/html' : 'image/png' });
    response.end(isPage ? page : pixel);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
});
test.afterAll(() => server.close());

/** Width and shape that each place loads at a density, by viewport width. */
async function loadedAt(browser: Browser, density: number): Promise<Map<number, Record<string, string>>> {
  const result = new Map<number, Record<string, string>>();
  const context = await browser.newContext({ deviceScaleFactor: density });
  const visitor = await context.newPage();
  for (const width of VIEWPORTS) {
    await visitor.setViewportSize({ width, height: 900 });
    // At an address of its own each time: where a larger file is there already, a browser keeps it.
    await visitor.goto(`${address}${width}/`);
    const loaded = await visitor.evaluate(async () => {
      const all = [...document.querySelectorAll('img')];
      for (const img of all) img.loading = 'eager';
      await Promise.all(all.map((img) => img.decode()));
      return all.map((img): [string, string] => [
        img.closest('figure')!.id,
        new URL(img.currentSrc).pathname.replace(/^\/\d+/, ''),
      ]);
    });
    result.set(width, Object.fromEntries(loaded));
  }
  await context.close();
  return result;
}

for (const density of DENSITIES) {
  test(`at ${density}× Chromium loads what was predicted`, async ({ browser }) => {
    expect(VIEWPORTS).toHaveLength(40);
    const loaded = await loadedAt(browser, density);
    const predicted = new Map(
      VIEWPORTS.map((viewport) => [
        viewport,
        Object.fromEntries(
          ROWS.flatMap((row) =>
            SHIPPED_SLOTS.map((slot) => {
              const sent = variantSentTo(row, slot, { viewport, density })!;
              const { shape, width, format } = sent;
              return [
                `p${row.id}-${slot.id}`,
                `/${row.id}/${slot.id}/${shape.replace(':', 'x')}/${width}.${format}`,
              ];
            }),
          ),
        ),
      ]),
    );
    expect(Object.fromEntries(loaded)).toEqual(Object.fromEntries(predicted));
  });
}
