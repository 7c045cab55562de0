// Draws bytes against time by Chart.js in Chromium, for the docs.
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ROOT } from '../report.ts';

export interface PlotRow {
  format: string;
  settings?: unknown;
  /** Beside the first setting of its format. */
  bytes: number;
  /** ms of an encode. */
  time: number;
  quick?: unknown;
  thorough?: unknown;
  'on the frontier'?: boolean;
}

const COLOURS: Record<string, string> = { avif: '#2f6f6a', webp: '#a8642a', jpeg: '#5a4b8a' };

/** The picture of docs/methods/frontier.png: a line through the frontier of each format, and all other points. */
export async function drawFrontier(rows: readonly PlotRow[]): Promise<void> {
  const datasets = Object.entries(COLOURS).map(([format, colour]) => {
    const own = rows.filter((row) => row.format === format).sort((a, b) => a.time - b.time);
    return {
      label: format,
      data: own.map(({ time, bytes }) => ({ x: time, y: bytes })),
      pointStyle: own.map((row) => (row.quick ? 'rectRot' : row.thorough ? 'triangle' : 'circle')),
      pointRadius: own.map((row) => (row.quick || row.thorough ? 9 : row['on the frontier'] ? 5 : 3)),
      backgroundColor: colour,
      showLine: false,
    };
  });
  const lines = Object.entries(COLOURS).map(([format, borderColor]) => ({
    label: `${format}, frontier`,
    data: rows
      .filter((row) => row.format === format && row['on the frontier'])
      .sort((a, b) => a.time - b.time)
      .map(({ time, bytes }) => ({ x: time, y: bytes })),
    ...{ borderColor, borderWidth: 1.5, pointRadius: 0, showLine: true },
  }));
  const config = {
    type: 'scatter',
    data: { datasets: [...datasets, ...lines] },
    options: {
      animation: false,
      devicePixelRatio: 2,
      plugins: {
        title: {
          display: true,
          text: 'Bytes against time at D = 2 (diamond: quick pass, triangle: thorough pass)',
        },
      },
      scales: {
        x: { type: 'logarithmic', title: { display: true, text: 'ms of an encode, 800 × 533 px' } },
        y: { title: { display: true, text: 'bytes beside the quick pass of before' } },
      },
    },
  };
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 900, height: 560 } });
  await page.setContent(
    '<body style="margin:0;background:#fff"><canvas id="c" width="900" height="560"></canvas>',
  );
  await page.addScriptTag({ path: join(ROOT, 'node_modules/chart.js/dist/chart.umd.js') });
  await page.evaluate(`new Chart(document.getElementById('c'), ${JSON.stringify(config)})`);
  await writeFile(join(ROOT, 'docs/methods/frontier.png'), await page.screenshot());
  await browser.close();
}
