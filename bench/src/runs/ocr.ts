// Words in pictures: what is found of 40 cards of several sizes, contrasts and tilts, and of all demo photos, and what is
// found where there is nothing.
import { mkdtemp, readFile, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import type { ShownLine } from '@dusky-otter/core/contract';
import { wordsOf } from '@dusky-otter/core/words';
import { openReader, wordsShownIn } from '../../../packages/server/dist/codec/shown-words.js';
import { inspected } from '../demo.ts';
import { median, report, ROOT, rounded, type Figures } from '../report.ts';

const SIZES = [160, 90, 48, 28, 18];
const CONTRASTS = [
  { name: 'black on white', ink: '#111', ground: '#fff' },
  { name: 'white on blue', ink: '#fff', ground: '#2a4a7a' },
  { name: 'brown on oat', ink: '#6a4a2a', ground: '#d8c8a8' },
  { name: 'grey on grey', ink: '#777', ground: '#c4c4c4' },
];
const TILTS = [0, 11];
const SAYINGS = [
  'Open today',
  'Kiln hot',
  'Please ring',
  'Sommerfest',
  'Glaze bucket',
  'Harbour market',
  'Wet paint',
  'Töpferei',
];

/** What the demo's pictures show in words; every other shows none. */
const SHOWN: Record<string, string> = {
  'DSC00342.JPG': 'OPEN TODAY',
  // The same door, as a phone saves it.
  'phone.heic': 'OPEN TODAY',
  'logo-gullmoor.svg': 'GULLMOOR',
  'logo-gullmoor.png': 'GULLMOOR',
  'firing-guide.png': 'Firing guide Bisque Stoneware Porcelain damper',
};

const folder = await mkdtemp(join(tmpdir(), 'otter-ocr-'));
const reader = await openReader();
const times: number[] = [];

async function read(name: string, bytes: Buffer): Promise<ShownLine[]> {
  const path = join(folder, name);
  await writeFile(path, bytes);
  const facts = await inspected(path);
  const from = performance.now();
  const lines = await wordsShownIn(reader, path, facts);
  times.push((performance.now() - from) / 1000);
  return lines;
}

/** Whether all words were found, and words that are not there. */
function judged(lines: readonly ShownLine[], shown: string): { found: boolean; wrong: string[] } {
  const said = wordsOf(lines.map(({ text }) => text).join(' '));
  const words = wordsOf(shown);
  const rest = words.length > 0 && shown.length > 30 ? [] : said.filter((word) => !words.includes(word));
  return { found: words.length > 0 && words.every((word) => said.includes(word)), wrong: rest };
}

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1200, height: 900 } });
const rows: Figures[] = [];
let cards = 0;
let found = 0;
let wrong = 0;
for (const size of SIZES) {
  for (const { name, ink, ground } of CONTRASTS) {
    for (const tilt of TILTS) {
      const saying = SAYINGS[cards % SAYINGS.length]!;
      await page.setContent(
        `<body style="margin:0;height:900px;display:grid;place-items:center;background:${ground}"><p style="font:600 ${size}px sans-serif;color:${ink};transform:rotate(${tilt}deg)">${saying}</p>`,
      );
      const result = judged(await read(`card-${cards}.png`, await page.screenshot()), saying);
      cards += 1;
      if (result.found) found += 1;
      wrong += result.wrong.length;
      rows.push({
        card: saying,
        px: size,
        ink: name,
        tilt,
        found: result.found,
        wrong: result.wrong.join(' '),
      });
    }
  }
}
await browser.close();

let demoFound = 0;
let demoFalse = 0;
let photos = 0;
for (const below of ['photos', 'special']) {
  for (const file of (await readdir(join(ROOT, 'demo', below))).sort()) {
    const bytes = await readFile(join(ROOT, 'demo', below, file));
    const shown = SHOWN[file] ?? '';
    let lines: ShownLine[];
    try {
      lines = await read(file.replace(/[^\w.-]/g, '_'), bytes);
    } catch {
      // Files that are meant to be refused show nothing.
      continue;
    }
    photos += 1;
    const result = judged(lines, shown);
    if (result.found) demoFound += 1;
    if (shown === '' && lines.length > 0) demoFalse += 1;
    if (shown !== '' || lines.length > 0)
      rows.push({
        card: file,
        px: null,
        ink: 'demo',
        tilt: null,
        found: result.found,
        wrong: result.wrong.join(' '),
      });
  }
}
await reader.terminate();
await rm(folder, { recursive: true, force: true });
await report('ocr', 'words found in rendered cards and in the demo’s pictures', rows, {
  cards,
  found,
  false: wrong,
  'demo pictures': photos,
  'of them with words': Object.keys(SHOWN).length,
  'found in the demo': demoFound,
  'false in the demo': demoFalse,
  's a picture, median': rounded(median(times), 1),
});
