// Markup pasted into pages of others: four places as an editor says them are as wide as said, sharp, and change nothing
// around them.
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { widthAt } from '../packages/core/src/css/index.ts';
import { figureMarkup, figureStyles, plainMarkup, rowMarkup } from '../packages/core/src/markup/index.ts';
import { derivedBudget, readWidth, slotsIn } from '../packages/core/src/slots/index.ts';
import type { PhotoRow, PlanContext, Slot } from '../packages/core/src/contract/index.ts';
import { CONTEXT, sampleRow } from '../packages/core/src/testing/sample.ts';

const SAID = [
  { id: 'narrow', said: '420 px column', many: 1 },
  { id: 'four', said: '4 across with 16 px between in 1200 px', many: 6 },
  { id: 'fitted', said: 'at most 960×720', many: 1 },
  { id: 'half', said: 'half of a 1140 px column', many: 1 },
] as const;
const WINDOWS = [390, 820, 1280, 1920];

function placeOf({ id, said }: (typeof SAID)[number]): Slot {
  const { rule, fit } = readWidth(said);
  const shape = fit ? ('own' as const) : ('3:2' as const);
  const slot: Slot = {
    id,
    name: said,
    hint: '',
    said,
    rule,
    fit,
    shapes: [{ shape, from: 0, to: null }],
    budget: 1,
    loading: 'lazy',
  };
  return { ...slot, budget: derivedBudget(slot) };
}

const context: PlanContext = { ...CONTEXT, slots: SAID.map(placeOf) };
const ids = context.slots.map(({ id }) => id);
const photo = (id: number): PhotoRow =>
  sampleRow(ids, { id }, { width: 3000, height: 2000 }, undefined, context);

const address = (v: { slot: string; shape: string; width: number; format: string }) =>
  `/${v.slot}-${v.width}.${v.format}`;
const figures = SAID.map(({ id, many }) => {
  const [slot] = slotsIn(context, [id]);
  const list = Array.from({ length: many }, (_, n) =>
    figureMarkup({ row: photo(n + 1), slot: slot!, urlOf: address, first: false })!,
  );
  return many > 1 ? rowMarkup(slot!, list) : list[0]!;
}).join('\n');
const plain = SAID.map(({ id }) => {
  const [slot] = slotsIn(context, [id]);
  return plainMarkup({ row: photo(1), slot: slot!, urlOf: address, first: false }, context.devices)!;
}).join('\n<hr>\n');

const RESET = `*, *::before, *::after { margin: 0; padding: 0; border: 0; font: inherit; vertical-align: baseline }
  figure, picture, img { display: inline; width: auto; max-width: none; height: 100% } ul { list-style: none }`;
const FRAMEWORK = `#page .article img, #page img { width: auto; height: 300px; max-width: 50%; float: left; margin: 0 2em 2em 0;
  padding: 4px; border: 1px solid #ccc; border-radius: 8px; object-fit: contain }
  #page figure { margin: 1em 40px; padding: 12px } #page picture { width: 50% } #page div { min-width: 10px }
  @media (min-width: 600px) { #page img { width: 33% } }`;

const HOSTS: Record<
  string,
  { css: string; before: string; after: string; room: (window: number) => number }
> = {
  'a page with a reset': { css: RESET, before: '<main>', after: '</main>', room: (window) => window },
  'a framework’s rules for pictures': {
    css: `body { margin: 0 } ${FRAMEWORK}`,
    before: '<main id="page"><div class="article">',
    after: '</div></main>',
    room: (window) => window,
  },
  'a column of 420 px': {
    css: 'body { margin: 0 } #page { width: min(100vw, 420px); margin: 0 auto; overflow: hidden } img { max-width: 100% }',
    before: '<main id="page">',
    after: '</main>',
    room: (window) => Math.min(window, 420),
  },
};
/** Things of the host that look like ours: a figure, a row, a picture. */
const NEIGHBOURS = `<p class="photo row">Text of the page.</p><figure class="photo"><img src="/own-300.png" width="300" height="200" alt="">
  <figcaption>Theirs</figcaption></figure><div class="row" id="half"><span>a</span><span>b</span></div>`;

const pageOf = (host: string, markup: string, styles: string): string => {
  const { css, before, after } = HOSTS[host]!;
  return `<!doctype html><meta charset="utf-8"><meta name="viewport" content="width=device-width"><style>${css}</style>
${styles && `<style>${styles}</style>`}${before}<div class="theirs">${NEIGHBOURS}</div><div class="ours">${markup}</div>${after}`;
};

let server: Server;
let origin: string;
test.beforeAll(async () => {
  const pictures = new Map<string, Buffer>();
  server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url!, 'http://host');
    const [host, kind] = [searchParams.get('host'), searchParams.get('kind')];
    if (host) {
      response.writeHead(200, { 'content-type': 'text/html' });
      const markup = kind === 'plain' ? plain : kind === 'none' ? '' : figures;
      response.end(pageOf(host, markup, kind === 'none' ? '' : figureStyles(context)));
      return;
    }
    const width = Number(/-(\d+)\.\w+$/.exec(pathname)?.[1] ?? 3);
    const made =
      pictures.get(pathname) ??
      sharp({ create: { width, height: Math.round((width * 2) / 3), channels: 3, background: '#579' } })
        .png()
        .toBuffer();
    void Promise.resolve(made).then((bytes) => {
      pictures.set(pathname, bytes);
      response.writeHead(200, { 'content-type': 'image/png' });
      response.end(bytes);
    });
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
});
test.afterAll(() => server.close());

const visit = async (page: Page, host: string, kind: string) => {
  await page.goto(`${origin}?host=${encodeURIComponent(host)}&kind=${kind}`);
  return page.evaluate(async () => {
    const all = [...document.querySelectorAll<HTMLImageElement>('.ours img')];
    for (const img of all) img.loading = 'eager';
    await Promise.all(all.map((img) => img.decode()));
    return all.map((img) => {
      const box = img.getBoundingClientRect();
      return {
        id: /dusky-in-(\w+)/.exec(img.closest('.dusky-photo')!.className)![1]!,
        width: box.width,
        height: box.height,
        top: Math.round(box.top),
        pixels: Number(/-(\d+)\.\w+$/.exec(img.currentSrc)![1]),
      };
    });
  });
};

for (const host of Object.keys(HOSTS)) {
  for (const density of [1, 2]) {
    test(`${host}, ${density}×: as wide as said, and sharp`, async ({ browser }) => {
      for (const window of WINDOWS) {
        const context2 = await browser.newContext({
          deviceScaleFactor: density,
          viewport: { width: window, height: 900 },
        });
        const page = await context2.newPage();
        const seen = await visit(page, host, 'figures');
        expect(seen).toHaveLength(9);
        const room = HOSTS[host]!.room(window);
        for (const { id, width, height, pixels } of seen) {
          const slot = context.slots.find((one) => one.id === id)!;
          // In a row the container counts as a window with its margins.
          const planned =
            id === 'four' ? widthAt(slot.rule, Math.min(window, room + 32)) : widthAt(slot.rule, window);
          const said = `${id} at ${window}`;
          expect(`${said}: ${Math.abs(width - Math.min(room, planned)) < 1}`).toBe(`${said}: true`);
          expect(`${said}: ${Math.abs(height - width / 1.5) < 1}`).toBe(`${said}: true`);
          expect(`${said}: ${pixels >= width * density - 0.5}`).toBe(`${said}: true`);
        }
        const rows = new Map<number, number>();
        for (const { id, top } of seen) if (id === 'four') rows.set(top, (rows.get(top) ?? 0) + 1);
        expect([...rows.values()]).toEqual([4, 2]);
        await context2.close();
      }
    });
  }

  test(`${host}: nothing outside is changed, nor is anything wider than the window`, async ({ page }) => {
    for (const window of WINDOWS) {
      await page.setViewportSize({ width: window, height: 900 });
      const looks = async (kind: string) => {
        await visit(page, host, kind);
        return page.evaluate(() => ({
          theirs: [...document.querySelectorAll('.theirs, .theirs *')].map((element) => {
            const { x, y, width, height } = element.getBoundingClientRect();
            return [
              element.tagName,
              x,
              y,
              width,
              height,
              JSON.stringify(
                [...getComputedStyle(element)].map((name) =>
                  getComputedStyle(element).getPropertyValue(name),
                ),
              ),
            ];
          }),
          wide: document.documentElement.scrollWidth,
        }));
      };
      const [alone, beside] = [await looks('none'), await looks('figures')];
      expect(beside.theirs).toEqual(alone.theirs);
      expect(beside.wide).toBeLessThanOrEqual(window);
    }
  });

  test(`${host}: one img alone fits as well`, async ({ page }) => {
    for (const window of WINDOWS) {
      await page.setViewportSize({ width: window, height: 900 });
      const seen = await visit(page, host, 'plain');
      for (const { id, width, height } of seen) {
        const planned = widthAt(context.slots.find((one) => one.id === id)!.rule, window);
        expect(Math.abs(width - Math.min(HOSTS[host]!.room(window), planned))).toBeLessThan(1);
        expect(Math.abs(height - width / 1.5)).toBeLessThan(1);
      }
    }
  });
}
