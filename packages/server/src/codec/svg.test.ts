// Cleaning drawings: what can act or fetch goes, the drawing stays.
import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { DEMO } from '../testing/server.ts';
import { cleanSvg } from './svg.ts';

const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="40" height="20">${inner}</svg>`;

describe('cleaning', () => {
  test.each([
    ['<script>alert(1)</script>', /script|alert/],
    ['<rect width="9" height="9" onload="alert(1)"/>', /onload|alert/],
    ['<foreignObject><p>hi</p></foreignObject>', /foreignObject|hi/],
    ['<image href="http://127.0.0.1/x.png" width="9" height="9"/>', /127/],
    ['<image href="file:///etc/hostname" width="9" height="9"/>', /etc/],
    ['<use xlink:href="http://127.0.0.1/x.svg#a"/>', /127/],
    ['<rect fill="url(http://127.0.0.1/x.svg#a)" width="9" height="9"/>', /127/],
    [
      '<style>@import url(http://127.0.0.1/x.css); .a { fill: url(http://127.0.0.1/b) }</style>',
      /import|127/,
    ],
    ['<a href="javascript:alert(1)"><rect width="9" height="9"/></a>', /javascript/],
    ['<style>@im@import;port url(http://127.0.0.1/x.css);</style>', /@import|127/],
    ['<style>@\\69mport "http://127.0.0.1/x.css";</style>', /127/],
    ['<style>.a{fill:u\\72l(http://127.0.0.1/x)}</style>', /127/],
    ['<style>.a{mask-image:image-set("http://127.0.0.1/x" 1x)}</style>', /127/],
    [`<style>.a{fill:url("http://127.0.0.1/${'a'.repeat(900)}")}</style>`, /127/],
    ['<style><![CDATA[@import "http://127.0.0.1/x.css";]]></style>', /127/],
    ['<style>/*</style><style>*/@import "http://127.0.0.1/x.css";</style>', /127/],
    ['<style>.a{--x:url(http://127.0.0.1/x);mask:var(--x)}</style>', /127/],
    ['<style>@font-face{font-family:a;src:url(http://127.0.0.1/x.woff2)}</style>', /127/],
    ['<style>.a{content:src("http://127.0.0.1/x")}</style>', /127/],
    [
      '<style>.a{behavior:url(#a);position:fixed;background-image:url(#a)}</style>',
      /behavior|position|image/,
    ],
    ['<rect style="fill:u\\72l(http://127.0.0.1/x)" width="9" height="9"/>', /127/],
    ['<rect fill="u\\72l(http://127.0.0.1/x)" width="9" height="9"/>', /127/],
    ['<rect mask="image-set(&quot;http://127.0.0.1/x&quot; 1x)" width="9" height="9"/>', /127/],
    [`<rect fill='url("http://127.0.0.1/${'a'.repeat(900)}")' width="9" height="9"/>`, /127/],
    ['<rect cursor="url(http://127.0.0.1/x),auto" width="9" height="9"/>', /127/],
    ['<image width="9" height="9"><animate attributeName="href" to="http://127.0.0.1/x"/></image>', /127/],
    ['<rect width="9"><animate attributeName="fill" values="red;url(http://127.0.0.1/x)"/></rect>', /127/],
    ['<use href="#a"><set attributeName="xlink:href" to="http://127.0.0.1/x.svg#a"/></use>', /127/],
    ['<?xml-stylesheet href="http://127.0.0.1/x.css"?><rect/>', /127/],
  ])('%.90s', (inner, gone) => {
    const { svg: clean } = cleanSvg(svg(inner));
    expect(clean).not.toMatch(gone);
    expect(cleanSvg(clean).svg).toBe(clean);
  });
  test('references inside the drawing stay', () => {
    const { svg: clean } = cleanSvg(
      svg(
        '<defs><linearGradient id="g"/></defs><rect id="r" fill="url(#g)" width="9" height="9"/><use href="#r"/>',
      ),
    );
    expect(clean).toContain('url(#g)');
    expect(clean).toContain('href="#r"');
  });
  test('style sheets of the drawing stay', () => {
    const { svg: clean } = cleanSvg(
      svg('<style>.st0 { fill: #24464f }</style><rect class="st0" width="9" height="9"/>'),
    );
    expect(clean).toContain('.st0{fill:#24464f}');
  });
  test('the demo’s logo draws the same as before', async () => {
    const source = await readFile(join(DEMO, 'special/logo-gullmoor.svg'), 'utf8');
    const [before, after] = await Promise.all(
      [source, cleanSvg(source).svg].map((text) => sharp(Buffer.from(text)).raw().toBuffer()),
    );
    expect(after!.equals(before!)).toBe(true);
  });
  test('no drawing is no drawing', () => {
    expect(() => cleanSvg('<p>hello</p>')).toThrow('damaged');
  });
});
