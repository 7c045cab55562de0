// For tests and benches of measured pages: what the application says of a page, and what a plain load of it says.
import { createServer, type Server } from 'node:http';
import { readFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { extname, join, normalize } from 'node:path';
import type { Browser, Download, Page } from '@playwright/test';
import { readCsv } from '@dusky-otter/core/csv';

const KINDS: Record<string, string> = {
  '.html': 'text/html',
  '.css': 'text/css',
  '.jpg': 'image/jpeg',
  '.png': 'image/png',
  '.gif': 'image/gif',
  '.svg': 'image/svg+xml',
  '.js': 'text/javascript',
};

export interface Served {
  address: string;
  /** Everything that was asked for. */
  asked: string[];
  close: () => void;
}

/** A folder over HTTP, as a plain web server gives it: without a charset, so that pages say their own. */
export async function serve(folder: string): Promise<Served> {
  const asked: string[] = [];
  const server: Server = createServer((request, response) => {
    const path = normalize(decodeURIComponent(new URL(request.url!, 'http://host').pathname));
    asked.push(path);
    readFile(join(folder, path)).then(
      (bytes) => {
        response.writeHead(200, {
          'content-type': KINDS[extname(path).toLowerCase()] ?? 'application/octet-stream',
        });
        response.end(bytes);
      },
      () => {
        response.writeHead(404);
        response.end();
      },
    );
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/`,
    asked,
    close: () => server.close(),
  };
}

export interface Figure {
  number: number;
  window: number;
  box: number;
}

/** Measures a page of the site that lies open, and reads the figures that can be saved. */
export async function measuredFigures(page: Page, path: string): Promise<Figure[]> {
  const choose = page.getByRole('combobox', { name: 'Page of the site' });
  if ((await choose.inputValue()) !== path) await choose.selectOption(path);
  const save = page.getByRole('button', { name: 'Save the figures' });
  let download: Download;
  do {
    // Until the page is measured the figures of the one before may still stand there: their file says whose they are.
    await save.or(page.getByRole('alert')).first().waitFor();
    if (!(await save.isVisible()))
      throw new Error((await page.getByRole('alert').textContent()) ?? 'no figures');
    [download] = await Promise.all([page.waitForEvent('download'), save.click()]);
  } while (download.suggestedFilename() !== `${path}.csv`);
  const [head, ...lines] = readCsv(await readFile(await download.path(), 'utf8'));
  const at = (name: string) => head!.indexOf(name);
  return lines.map((line) => ({
    number: Number(line[at('number')]),
    window: Number(line[at('window')]),
    box: Number(line[at('box')]),
  }));
}

/** Widths of a page's pictures in a browser that has it as it is, by window and number; without scripts. */
export async function plainWidths(
  browser: Browser,
  address: string,
  windows: readonly number[],
): Promise<Map<number, number[]>> {
  const context = await browser.newContext({
    javaScriptEnabled: false,
    viewport: { width: 1280, height: 900 },
  });
  const visitor = await context.newPage();
  const widths = new Map<number, number[]>();
  try {
    await visitor.goto(address);
    // A picture that has a larger candidate already would keep it.
    const anew = (await visitor.locator('[srcset]').count()) > 0;
    for (const width of windows) {
      await visitor.setViewportSize({ width, height: 900 });
      if (anew) await visitor.goto(address);
      await visitor.evaluate(async () => {
        // Pictures that wait until they come near are asked for all the same.
        for (const img of document.querySelectorAll('img')) img.loading = 'eager';
        await Promise.all(
          [...document.querySelectorAll('img')].map((img) => img.decode().catch(() => undefined)),
        );
      });
      widths.set(
        width,
        await visitor.evaluate(() =>
          [...document.querySelectorAll('img, input[type="image" i], svg image')].map(
            (img) => img.getBoundingClientRect().width,
          ),
        ),
      );
    }
    return widths;
  } finally {
    await context.close();
  }
}

/** Largest difference between the figures and a plain load, in CSS px, over all pictures and windows. */
export function worstError(
  figures: readonly Figure[],
  plain: ReadonlyMap<number, readonly number[]>,
): number {
  return Math.max(
    0,
    ...figures.map(({ number, window, box }) =>
      Math.abs(box - (plain.get(window)?.[number - 1] ?? Infinity)),
    ),
  );
}
