// The whole job, as an editor does it: drop, frame, describe, download; then the page as visitors load it.
import { createServer, type Server } from 'node:http';
import { readFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import type { Page } from '@playwright/test';
import { allMade, axeFindings, drop, expect, rowOf, saved, test, trayOf } from './application.ts';

/** Where the red square stands in the upright photo, as fractions. */
const SQUARE = { x: 0.85, y: 0.2 };

/** An upright 2400 × 3200 photo with a red square, stored lying down with EXIF orientation 6, GPS and a camera name. */
async function cameraPhoto(shade: number): Promise<Buffer> {
  const side = 240;
  const square = { create: { width: side, height: side, channels: 3 as const, background: '#d01818' } };
  const upright = await sharp({
    create: { width: 2400, height: 3200, channels: 3, background: { r: shade, g: shade, b: shade } },
  })
    .composite([{ input: square, left: SQUARE.x * 2400 - side / 2, top: SQUARE.y * 3200 - side / 2 }])
    .png()
    .toBuffer();
  const lying = await sharp(upright).rotate(-90).png().toBuffer();
  return sharp(lying)
    .withExif({
      IFD0: { Model: 'Lumora L2', Orientation: '6' },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '56/1 11/1 54/1' },
    })
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 90 })
    .toBuffer();
}

interface Manifest {
  photos: {
    file: string;
    focal: { x: number; y: number };
    variants: {
      path: string;
      slot: string;
      shape: string;
      width: number;
      height: number;
      format: string;
      crop: { x: number; y: number; width: number; height: number };
    }[];
  }[];
}

function serve(files: Record<string, Uint8Array>): Promise<{ server: Server; address: string }> {
  const types: Record<string, string> = {
    html: 'text/html',
    css: 'text/css',
    avif: 'image/avif',
    webp: 'image/webp',
    jpg: 'image/jpeg',
    png: 'image/png',
  };
  const server = createServer((request, response) => {
    const path = request.url === '/' ? 'index.html' : decodeURIComponent(request.url!.slice(1));
    const bytes = files[path];
    response.writeHead(bytes ? 200 : 404, { 'content-type': types[path.split('.').at(-1)!] ?? 'text/plain' });
    response.end(bytes);
  });
  return new Promise((resolve) => {
    server.listen(0, '127.0.0.1', () =>
      resolve({ server, address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/` }),
    );
  });
}

interface Seen {
  path: string;
  slot: string;
  width: number;
  height: number;
  alt: string;
}

/** Scrolls through the page until every picture is there, and tells what each loaded and how the page moved. */
async function visit(page: Page, address: string): Promise<{ seen: Seen[]; shift: number }> {
  await page.goto(address);
  for (const img of await page.locator('img').all()) {
    await img.scrollIntoViewIfNeeded();
    await img.evaluate(async (element: HTMLImageElement) => {
      if (!element.complete)
        await new Promise((done) => element.addEventListener('load', done, { once: true }));
      await element.decode();
    });
  }
  return page.evaluate(async (base) => {
    const shift = await new Promise<number>((resolve) => {
      let sum = 0;
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) sum += (entry as unknown as { value: number }).value;
      }).observe({ type: 'layout-shift', buffered: true });
      requestAnimationFrame(() => requestAnimationFrame(() => resolve(sum)));
    });
    const seen = [...document.querySelectorAll('img')].map((img) => {
      const { width, height } = img.getBoundingClientRect();
      const slot = /dusky-in-(\w+)/.exec(img.closest('figure')!.className)![1]!;
      return { path: img.currentSrc.slice(base.length), slot, width, height, alt: img.alt };
    });
    return { seen, shift };
  }, address);
}

/** What must load, worked out by hand from the slots' width rules and candidates: pixel width and shape. */
const EXPECTED = {
  // 390 px wide at 2×: hero 780 px; column 358 × 2; grid (390 − 44) ÷ 2 × 2.
  phone: {
    hero: { shape: '4:5', width: 780, display: 390 },
    column: { shape: '3:2', width: 720, display: 358 },
    grid: { shape: '1:1', width: 346, display: 173 },
  },
  // 1280 px wide at 1×: hero 1280 px; column 720; grid 240.
  laptop: {
    hero: { shape: '3:1', width: 1280, display: 1280 },
    column: { shape: '3:2', width: 720, display: 720 },
    grid: { shape: '1:1', width: 240, display: 240 },
  },
} as const;
const RATIOS = { '3:1': 3, '4:5': 4 / 5, '3:2': 3 / 2, '1:1': 1 } as const;

// The first run is part of the job.
test.use({ serverOf: 'job' });

test('from dropped photos to a page that loads the right files', async ({ page, server, browser }) => {
  await page.goto(server.address);
  // First run: a site of one's own, and its first set.
  await expect(page.getByRole('heading', { level: 1 })).toContainText('From a batch of photos to a page');
  expect(await axeFindings(page), 'first run').toEqual([]);
  await page.getByRole('button', { name: 'Make a site' }).click();
  expect(await axeFindings(page), 'naming a site').toEqual([]);
  await page.getByRole('textbox', { name: 'Name' }).fill('Gullmoor Pottery');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Rename Gullmoor Pottery' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Gullmoor Pottery, shop');
  await page.getByRole('button', { name: 'Rename', exact: true }).last().click();
  await expect(page.getByRole('heading', { name: 'Gullmoor Pottery, shop' })).toBeVisible();
  await page.getByRole('button', { name: 'New set' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Shop, winter glazes');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Drop photos anywhere on this window' })).toBeVisible();

  const photos = await Promise.all([90, 130, 170].map(cameraPhoto));
  await drop(
    page,
    photos.map((bytes, i) => ({ name: `IMG-2026090${i}.jpg`, bytes, type: 'image/jpeg' })),
  );
  for (const i of [0, 1, 2]) await expect(rowOf(page, `IMG-2026090${i}.jpg`)).toContainText('2400 × 3200');

  // The page is empty: what is proposed is taken, and the grid and the hero are put onto it by hand.
  const proposal = page.getByRole('region', { name: 'A proposal for the page' });
  await expect(proposal).toContainText('all 3 photos');
  expect((await server.state()).preparation.wanted).toBe(0);
  await proposal.getByRole('button', { name: 'Take it' }).click();
  await expect(proposal).toHaveCount(0);
  await page.getByRole('link', { name: /^Arrange/ }).click();
  await expect(page.getByRole('region', { name: 'Text column' })).toContainText('3 photos');
  const tray = trayOf(page);
  const putInto = async (place: RegExp) => {
    await page.getByRole('button', { name: 'Put into…' }).click();
    await page.getByRole('menuitem', { name: place }).click();
  };
  await tray.first().click();
  await tray.nth(2).click({ modifiers: ['Shift'] });
  await putInto(/^Square thumbnail grid/);
  await expect(page.getByRole('region', { name: 'Square thumbnail grid' })).toContainText('3 photos');
  await tray.first().click();
  await putInto(/^Full-width hero/);
  await expect(
    page.getByRole('listbox', { name: 'Photos in Full-width hero' }).getByRole('option'),
  ).toHaveText(['']);

  // Frame: the focal point of each is dragged onto the red square.
  for (const i of [0, 1, 2]) {
    await page.getByRole('link', { name: /^Frame/ }).click();
    await rowOf(page, `IMG-2026090${i}.jpg`).getByRole('button', { name: 'Open the bench' }).click();
    const stage = (await page.locator('[data-stage]').boundingBox())!;
    const dot = (await page.getByRole('button', { name: /^Focal point/ }).boundingBox())!;
    await page.mouse.move(dot.x + dot.width / 2, dot.y + dot.height / 2);
    await page.mouse.down();
    await page.mouse.move(stage.x + 20, stage.y + 200, { steps: 4 });
    await page.mouse.move(stage.x + SQUARE.x * stage.width, stage.y + SQUARE.y * stage.height, { steps: 4 });
    await page.mouse.up();
    await expect(page.getByText('Focal point confirmed')).toBeVisible();
    await saved(page);
    await page.getByRole('link', { name: 'Back to the table' }).click();
  }

  // Describe: words are written in place and save themselves.
  await page.getByRole('link', { name: /^Describe/ }).click();
  for (const [i, alt] of [
    'Green jar on a grey shelf.',
    'White jar on a grey shelf.',
    'Brown jar on a grey shelf.',
  ].entries()) {
    const row = rowOf(page, `IMG-2026090${i}.jpg`);
    await row.getByLabel(`Alt text of IMG-2026090${i}.jpg`).fill(alt);
    await row.getByRole('button', { name: 'informs' }).click();
    await expect(row.getByText('Words in order')).toBeVisible();
  }
  await saved(page);
  await allMade(page);
  await expect(page.getByRole('button', { name: 'Ready 3' })).toBeVisible();

  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download', exact: true }).click();
  await expect(page.getByText('Every photo has its words and is large enough.')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Download' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('shop-winter-glazes.zip');
  const files = unzipSync(new Uint8Array(await readFile(await download.path())));
  const manifest = JSON.parse(Buffer.from(files['manifest.json']!).toString()) as Manifest;
  const variants = new Map(
    manifest.photos.flatMap((photo) => photo.variants.map((v) => [v.path, { ...v, photo }] as const)),
  );

  for (const [path, bytes] of Object.entries(files).filter(([name]) => name.startsWith('photos/'))) {
    const meta = await sharp(bytes).metadata();
    expect([meta.exif, meta.xmp, meta.iptc, meta.orientation], path).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
    expect(Buffer.from(bytes).includes('Lumora') || Buffer.from(bytes).includes('GPS'), path).toBe(false);
  }

  const { server: web, address } = await serve(files);
  try {
    for (const [device, viewport, density] of [
      ['phone', 390, 2],
      ['laptop', 1280, 1],
    ] as const) {
      const context = await browser.newContext({
        viewport: { width: viewport, height: 800 },
        deviceScaleFactor: density,
      });
      const visitor = await context.newPage();
      const { seen, shift } = await visit(visitor, address);
      expect(seen.map((s) => s.slot).sort()).toEqual([
        'column',
        'column',
        'column',
        'grid',
        'grid',
        'grid',
        'hero',
      ]);
      for (const { path, slot, width, height } of seen) {
        const expected = EXPECTED[device][slot as keyof (typeof EXPECTED)['phone']];
        const variant = variants.get(path)!;
        expect([variant.slot, variant.shape, variant.width, variant.format], `${device} ${slot}`).toEqual([
          slot,
          expected.shape,
          expected.width,
          'avif',
        ]);
        const { data, info } = await sharp(files[path])
          .removeAlpha()
          .raw()
          .toBuffer({ resolveWithObject: true });
        expect([info.width, info.height]).toEqual([variant.width, variant.height]);
        // Shown at the slot's width and the shape's ratio: nothing is stretched.
        expect(Math.abs(width - expected.display)).toBeLessThan(0.6);
        expect(Math.abs(height - width / RATIOS[expected.shape])).toBeLessThan(1);
        expect(Math.abs(variant.crop.width / variant.crop.height - RATIOS[expected.shape])).toBeLessThan(
          0.004,
        );
        // The focal point lies in the crop, and there is the red square.
        const { crop, photo } = variant;
        expect(Math.hypot(photo.focal.x - SQUARE.x, photo.focal.y - SQUARE.y)).toBeLessThan(0.01);
        const x = Math.floor(((SQUARE.x * 2400 - crop.x) / crop.width) * info.width);
        const y = Math.floor(((SQUARE.y * 3200 - crop.y) / crop.height) * info.height);
        const at = (y * info.width + x) * info.channels;
        expect(data[at]! - data[at + 1]!, `${device} ${slot} at ${x}, ${y}`).toBeGreaterThan(100);
      }
      expect(shift).toBe(0);
      expect(await axeFindings(visitor)).toEqual([]);
      await context.close();
    }
  } finally {
    web.close();
  }
});
