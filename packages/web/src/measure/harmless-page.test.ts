// What a measured page may keep: nothing that acts, leads anywhere or loads anything, however it is written.
import { describe, expect, test } from '@jest/globals';
import { JSDOM } from 'jsdom';

const { window } = new JSDOM('');
Object.assign(globalThis, {
  Document: window.Document,
  Element: window.Element,
  HTMLFormElement: window.HTMLFormElement,
  DOMParser: window.DOMParser,
});
const { declaring, settled, takeAway } = await import('./harmless-page.ts');

const parsed = (html: string): Document => new window.DOMParser().parseFromString(html, 'text/html');
function cleaned(html: string): Document {
  const document = parsed(html);
  takeAway(document);
  return document;
}
const body = (html: string): string => cleaned(html).body.innerHTML;

describe('a page that is measured', () => {
  test.each([
    ['<script>alert(1)</script><p>kept</p>', '<p>kept</p>'],
    ['<base href="https://example.test/"><p>kept</p>', '<p>kept</p>'],
    ['<p onclick="go()">kept</p>', '<p>kept</p>'],
    ['<p ONLOAD=go()>kept</p>', '<p>kept</p>'],
    ['<iframe src="x" srcdoc="<p>"></iframe>', '<iframe></iframe>'],
    ['<object data="x"></object>', '<object></object>'],
    ['<video src="x" poster="y"></video>', '<video></video>'],
    ['<form action="/go"><button formaction="/x">Go</button></form>', '<form><button>Go</button></form>'],
    ['<noscript><p>shown</p></noscript>', '<p>shown</p>'],
    ['<a href="/shop" ping="/spy">Shop</a>', '<a href="#">Shop</a>'],
    ['<a name="top">An anchor</a>', '<a name="top">An anchor</a>'],
    ['<div background="x.png">kept</div>', '<div>kept</div>'],
  ])('%s', (html, expected) => expect(body(html)).toBe(expected));

  test('keeps its pictures, with their addresses, to be put in place', () =>
    expect(body('<img src="bay.jpg" width="30"><svg><image href="a.png"></image></svg>')).toBe(
      '<img src="bay.jpg" width="30"><svg><image href="a.png"></image></svg>',
    ));
  test('is cleaned although it calls its elements as the methods that clean it', () => {
    const html = body(
      '<form name="querySelectorAll"><input name="removeAttribute" onfocus="go()"></form>' +
        '<img name="body" onerror="go()"><script>go()</script>',
    );
    expect(html).not.toMatch(/onfocus|onerror|script/);
  });
  test('loses addresses that are scripts, with spaces before them too', () => {
    const html =
      '<svg><a xlink:href=" javascript:go()"><text>x</text></a></svg><p title="javascript:go()">y</p>';
    expect(body(html)).not.toContain('javascript:');
  });
});

describe('declarations', () => {
  test('in which something could be loaded are found, in drawings as well', () => {
    const document = parsed(
      '<p style="color: red">a</p><p style="background: url(x)">b</p>' +
        '<svg><rect fill="url(#a)"></rect><rect fill="red"></rect></svg>',
    );
    expect(declaring(document).map(({ name, css }) => [name, css])).toEqual([
      ['style', 'background: url(x)'],
      ['fill', 'url(#a)'],
    ]);
  });
});

describe('a cleaned page as text', () => {
  test('is read again as it was cleaned, with the styles that may stand in it alone', () => {
    const document = cleaned(
      '<!doctype html><style>p { color: red }</style><style>@import "x"</style><p style="background: url(x)">a</p>',
    );
    const text = settled(document, new Set(['p { color: red }']))!;
    expect(text).toMatch(/^<!DOCTYPE html>/);
    expect(text).toContain('p { color: red }');
    expect(text).not.toMatch(/@import|url\(/);
  });
  test('that stands elsewhere once it is read again is cleaned there', () => {
    const nested = '<table><a href="/x"><tr><td><form><form><p onclick="go()">a</table>';
    const text = settled(cleaned(nested), new Set());
    expect(text ?? '').not.toMatch(/onclick|href="\/x"/);
  });
});
