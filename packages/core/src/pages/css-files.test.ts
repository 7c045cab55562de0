import { describe, expect, test } from '@jest/globals';
import { breakpointsIn, pathOf, readdressed, wholeSheet, type SheetSource } from './css-files.ts';
import { placeholder } from './placeholder.ts';

describe('addresses', () => {
  test.each([
    ['a.css', 'index.html', 'a.css'],
    ['../a.css', 'x/y/index.html', 'x/a.css'],
    ['/a.css', 'x/index.html', 'a.css'],
    ['../../../a.css', 'x/index.html', 'a.css'],
    ['a%20b.jpg?v=2#top', 'index.html', 'a b.jpg'],
    ['100%.jpg', 'index.html', '100%.jpg'],
    ['.\\pics\\a.jpg', 'index.html', 'pics/a.jpg'],
    ['https://host.example/a.css', 'index.html', null],
    ['//host.example/a.css', 'index.html', null],
    ['file:///etc/passwd', 'index.html', null],
    ['', 'index.html', null],
    ['#x', 'index.html', null],
  ])('%s from %s is %s', (address, from, path) => expect(pathOf(address, from)).toBe(path));

  test('every url() of a stylesheet gets another', () => {
    const css = `a{b:url(x.png)} c{d:url( "y z.png" )} e{f:url('q\\'s.png')} g{h:url(#i)} j{k:url()}`;
    const seen: string[] = [];
    const out = readdressed(css, (address) => {
      seen.push(address);
      return address === 'x.png' ? null : 'data:image/gif;base64,AA';
    });
    expect(seen).toEqual(['x.png', 'y z.png', "q's.png"]);
    expect(out).toBe(
      'a{b:url("data:,")} c{d:url("data:image/gif;base64,AA")} e{f:url("data:image/gif;base64,AA")} g{h:url(#i)} j{k:url()}',
    );
  });
});

describe('a whole stylesheet', () => {
  const files: Record<string, string> = {
    'css/main.css':
      '@charset "utf-8"; @import "base.css"; @import url(print.css) print; p{background:url(../p/a.png)}',
    'css/base.css': '@import "main.css"; b{background:url(b.png)}',
    'css/print.css': 'i{color:red}',
    'css/layered.css': '@import "base.css" layer(low) supports(display: grid) (min-width: 40em);',
  };
  const source: SheetSource = {
    sheet: (address, at) => {
      const path = pathOf(address, at);
      return path !== null && path in files ? { path, css: files[path]! } : null;
    },
    file: (address, at) => `data:${pathOf(address, at) ?? 'nowhere'}`,
  };
  const whole = (path: string) => wholeSheet(files[path]!, path, source).replace(/\s+/g, ' ').trim();

  test('holds what it imports, once, each with its own addresses', () => {
    expect(whole('css/main.css')).toBe(
      'b{background:url("data:css/b.png")} @media print { i{color:red} } p{background:url("data:p/a.png")}',
    );
  });
  test('keeps the conditions of an import', () => {
    expect(whole('css/layered.css')).toMatch(
      /^@layer low \{ @supports \(display: grid\) \{ @media \(min-width: 40em\) \{ .*b\{.*\} \} \} \}$/,
    );
  });
  test('an address with a semicolon ends no rule', () => {
    const css = wholeSheet('@import url("https://fonts.example/css?a;b;c"); p{color:red}', 'x.css', source);
    expect(css.trim()).toBe('p{color:red}');
  });
  test('ends in circles and depths', () => {
    const deep: SheetSource = {
      ...source,
      sheet: (_, at) => ({ path: `${at}x`, css: '@import "more.css"; a{}' }),
    };
    expect(wholeSheet('@import "more.css";', 'x', deep).match(/a\{\}/g)!.length).toBeLessThan(10);
  });
  test.each([
    '@im@import;port url(https://host.example/a);',
    '@\\69mport "https://host.example/a";',
    '@\\49 MPORT url("https://host.example/a") screen;',
    'a { b: u\\72l(https://host.example/a) }',
    'a { b: u\\000072 l("https://host.example/a") }',
    'a { b: image-set("https://host.example/a" 1x) }',
    'a { b: -webkit-image-set(url(https://host.example/a) 1x) }',
    'a { b: im\\61ge-set("https://host.example/a" 1x) }',
    'a { b: src("https://host.example/a") }',
    'a { b: image("https://host.example/a") }',
    'a { b: cross-fade("https://host.example/a", red) }',
    `a { b: url("https://host.example/${'a'.repeat(2000)}") }`,
    `a { b: url( /**/ "https://host.example/a" ) }`,
    'a { --b: url(https://host.example/a); c: var(--b) }',
    '@font-face { font-family: x; src: url(https://host.example/a) }',
    '@media print { @import "https://host.example/a"; }',
    '@font-feature-values x { @unheard url(https://host.example/a); }',
    '@property --x { syntax: "<url>"; initial-value: url(https://host.example/a) }',
    'a{b:url(https://host.example/a',
    'a{b:url("https://host.example/a',
    '@import"https://host.example/a"',
    '@namespace url(https://host.example/a) url(https://host.example/b);',
    'a{b:c"\nd:url(https://host.example/a)}',
    '/* */a{b:ur/**/l(https://host.example/a)}',
    '<!-- @import "https://host.example/a"; -->',
    'a{b:url(x)}/*',
  ])('%s loads nothing, however often it is cleaned', (css) => {
    const nowhere = { sheet: () => null, file: () => null };
    const once = wholeSheet(css, 'x.css', nowhere);
    // Names of namespaces stay, and are loaded by nobody.
    if (!once.includes('@namespace')) expect(once).not.toContain('https');
    expect(once).not.toMatch(/@import|(?<![\w-])(?:image-set|src|image|cross-fade)\(/i);
    expect(wholeSheet(once, 'x.css', nowhere)).toBe(once);
  });
  test('what is left open in a sheet is closed, what closes nothing closes nothing around it', () => {
    const files: Record<string, string> = {
      'a.css': '} @media print { a { b: (c',
      'b.css': ']) } d { e: f }',
    };
    const sheet = (address: string) => ({ path: address, css: files[address]! });
    const whole = wholeSheet('@import "a.css" screen; @import "b.css"; g { h: i }', 'x.css', {
      sheet,
      file: () => null,
    });
    expect(whole.replace(/\s+/g, ' ')).toBe(
      '@media screen { \\7d @media print { a { b: (c)}} } \\5d \\29 \\7d d { e: f } g { h: i }',
    );
  });
  test('what stands inside each other more deeply than anybody writes is left out', () => {
    const deep = wholeSheet(`${'a{'.repeat(5_000)}b{c:d}${'}'.repeat(5_000)}e{f:g}`, 'x.css', source);
    expect(deep.match(/a\{/g)!.length).toBeLessThan(100);
    expect(deep).toContain('e{f:g}');
    const calc = wholeSheet(
      `a{width:${'calc('.repeat(5_000)}1px${')'.repeat(5_000)};color:red}`,
      'x.css',
      source,
    );
    expect(calc.length).toBeLessThan(1_000);
    expect(calc).toContain('color:red}');
  });
  test('names that are written with escapes load nothing either', () => {
    const css = wholeSheet(
      'a{b:u\\72l(x.png)} c{d:\\55RL(y.png)} e{f:image-set("z.png" 1x)} g{h:\\u\\rl(w.png)}',
      'x.css',
      source,
    );
    expect(css).not.toMatch(/(?<![\w-])url\(|[wxyz]\.png"\)/i);
    expect(css.match(/no-url\(/g)).toHaveLength(3);
    expect(css).toContain('no-image-set()');
  });
  test('an address can’t end the element that holds the sheet', () => {
    const css = wholeSheet('a{b:url("</style><script>alert(1)</script>")}', 'x.css', {
      ...source,
      file: (address) => address,
    });
    expect(css).not.toContain('</style');
  });
});

test('breakpoints are told on both sides, in px and em', () => {
  expect(
    breakpointsIn('@media (min-width: 700px) and (max-width:50em){a{b:c}} /* @media (min-width: 1px) {} */'),
  ).toEqual([699, 700, 701, 799, 800, 801]);
  expect(breakpointsIn('@media print{a{}}')).toEqual([]);
  expect(breakpointsIn('@MEDIA (width<=40REM){} a{width:9px}')).toEqual([639, 640, 641]);
});

test('a stand-in is a GIF of the size asked for', () => {
  const bytes = Buffer.from(placeholder(4000, 258).split(',')[1]!, 'base64');
  expect([
    bytes.toString('latin1', 0, 6),
    bytes.readUInt16LE(6),
    bytes.readUInt16LE(8),
    bytes.at(-1),
  ]).toEqual(['GIF89a', 4000, 258, 0x3b]);
});
