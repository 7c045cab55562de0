// Markup, read back with a real HTML parser: what a browser would see of it.
import { describe, expect, test } from '@jest/globals';
import { parse, parseFragment } from 'parse5';
import type { PhotoRow, Role, RowVariant } from '../contract/index.ts';
import { all, attributes } from '../testing/html.ts';
import { CONTEXT, placed, sampleRow, slotById } from '../testing/sample.ts';
import { readWidth } from '../slots/typed-width.ts';
import { NO_WORDS } from '../words/no-words.ts';
import { indent } from '../html/html.ts';
import { manifestOf, wordsCsv } from './manifest.ts';
import { firstPage } from '../page/page.ts';
import { pageStyles } from './designs.ts';
import { pageMarkup } from './pages/page.ts';
import { addressUnder, prefixProblem } from '../html/address.ts';
import { figureMarkup, pictureMarkup, plainMarkup } from './picture.ts';
import { figureStyles } from './styles.ts';
import { openIn } from '../plan/set-places.ts';

const urlOf = (variant: RowVariant) =>
  `photos/${variant.shape.replace(':', 'x')}-${variant.width}.${variant.format}`;
const pictureOf = (row: PhotoRow, slot: Parameters<typeof slotById>[0], first = false) => {
  const html = pictureMarkup({ row, slot: slotById(slot), urlOf, first });
  if (html === null) throw new Error('no markup');
  const fragment = parseFragment(html);
  return { sources: all(fragment, 'source').map(attributes), img: attributes(all(fragment, 'img')[0]!) };
};

describe('a picture', () => {
  test('one shape: a source for the modern format, the JPEG in the img, with sizes on both', () => {
    const { sources, img } = pictureOf(sampleRow(['column']), 'column');
    expect(sources).toHaveLength(1);
    expect(sources[0]).toMatchObject({
      type: 'image/avif',
      sizes: '(min-resolution: 2.5dppx) min(66.6vw - 21.312px, 479.52px), min(100vw - 32px, 720px)',
    });
    expect(sources[0]!.media).toBeUndefined();
    expect(img.srcset).toMatch(/3x2-\d+\.jpeg \d+w/);
    expect(img).toMatchObject({
      loading: 'lazy',
      decoding: 'async',
      alt: 'Still bay between two dark headlands.',
    });
    expect(img.fetchpriority).toBeUndefined();
  });
  test('the width descriptor of every candidate is its file’s width', () => {
    const { sources, img } = pictureOf(sampleRow(['hero']), 'hero');
    for (const { srcset } of [...sources, img]) {
      for (const candidate of srcset!.split(', ')) {
        const [, inName, inDescriptor] = /-(\d+)\.\w+ (\d+)w$/.exec(candidate)!;
        expect(inName).toBe(inDescriptor);
      }
    }
  });
  test('art direction: wide shape behind its media condition in both formats, the phone’s shape last', () => {
    const { sources, img } = pictureOf(sampleRow(['hero']), 'hero', true);
    expect(sources.map((s) => [s.media ?? null, s.type])).toEqual([
      ['(min-width: 700px)', 'image/avif'],
      ['(min-width: 700px)', 'image/jpeg'],
      [null, 'image/avif'],
    ]);
    expect(Number(sources[0]!.width) / Number(sources[0]!.height)).toBeCloseTo(3, 1);
    expect(Number(img.width) / Number(img.height)).toBeCloseTo(0.8, 1);
    expect(img).toMatchObject({ loading: 'eager', fetchpriority: 'high' });
  });
  test('decorative says alt="" on purpose', () => {
    const row = sampleRow(['grid']);
    expect(pictureOf({ ...row, words: { ...row.words, role: 'decorative' } }, 'grid').img.alt).toBe('');
  });
  test('words can’t break out of their attribute', () => {
    const row = sampleRow(['grid']);
    const alt = 'A "wide" bowl & <script>alert(1)</script>';
    expect(pictureOf({ ...row, words: { ...row.words, alt } }, 'grid').img.alt).toBe(alt);
  });
  test('line breaks and tabs in words stay what they are, however deep the markup is indented', () => {
    const row = sampleRow(['grid']);
    const alt = 'A bowl.\nA jar.\r\nA\tcup.';
    const html = figureMarkup({
      row: { ...row, words: { ...row.words, alt } },
      slot: slotById('grid'),
      urlOf,
      first: false,
    })!;
    expect(attributes(all(parseFragment(indent(html, 4)), 'img')[0]!).alt).toBe('A bowl.\nA jar.\nA\tcup.');
  });
  test('nothing before every shape has a stored file', () => {
    const row = sampleRow(['hero']);
    const half = {
      ...row,
      variants: row.variants.map((v) => (v.shape === '4:5' ? { ...v, bytes: null } : v)),
    };
    expect(pictureMarkup({ row: half, slot: slotById('hero'), urlOf, first: false })).toBeNull();
  });
  test('a transparent picture gets no colour behind it', () => {
    expect(pictureOf(sampleRow(['grid'], {}, { transparent: true }), 'grid').img.style).toBeUndefined();
    expect(pictureOf(sampleRow(['grid']), 'grid').img.style).toBe('background-color: #808080');
  });
});

describe('a figure', () => {
  test('carries caption and credit, and says when words are missing', () => {
    const row = sampleRow(['grid']);
    const words = { ...row.words, alt: '', caption: 'Bowls & jars', credit: 'Gullmoor Pottery' };
    const html = figureMarkup({ row: { ...row, words }, slot: slotById('grid'), urlOf, first: false })!;
    expect(html).toContain(
      '<figcaption>Bowls &amp; jars <small>Photo: Gullmoor Pottery</small></figcaption>',
    );
    expect(html).toContain('Words are missing');
  });
  test('a long description stands below, folded, in paragraphs', () => {
    const row = sampleRow(['grid']);
    const said = (longDescription: string, role: Role = 'complex') =>
      figureMarkup({
        row: { ...row, words: { ...row.words, role, longDescription } },
        slot: slotById('grid'),
        urlOf,
        first: false,
      })!;
    const details = all(
      parseFragment(said('On the <left> a jar.\nOld.\n\n\nOn the right a cup.')),
      'details',
    )[0]!;
    expect(all(details, 'p').map((p) => (p.childNodes[0] as { value: string }).value)).toEqual([
      'On the <left> a jar. Old.',
      'On the right a cup.',
    ]);
    expect(all(details, 'summary')).toHaveLength(1);
    expect(said('  ')).not.toContain('details');
    expect(said('A line', 'decorative')).not.toContain('details');
  });
  test('a placement’s own words and link are those of its figure', () => {
    const [placement] = placed('grid');
    const row = sampleRow([], {
      placements: [
        { ...placement!, link: '/shop?a=1&b="2"', words: { alt: 'To the shop', caption: 'Shop' } },
      ],
    });
    const figure = parseFragment(figureMarkup({ row, slot: slotById('grid'), urlOf, first: false })!);
    expect(attributes(all(figure, 'a')[0]!).href).toBe('/shop?a=1&b="2"');
    expect(attributes(all(all(figure, 'a')[0]!, 'img')[0]!).alt).toBe('To the shop');
    expect(all(figure, 'figcaption')).toHaveLength(1);
  });
  test('in the viewer is no wider than its photo may be', () => {
    const row = sampleRow(['viewer'], {}, { width: 320, height: 213 });
    expect(figureMarkup({ row, slot: slotById('viewer'), urlOf, first: false })).toContain(
      'style="--dusky-most: 320px"',
    );
  });
});

describe('one img alone', () => {
  const plain = (row: PhotoRow, slot: string) =>
    plainMarkup({ row, slot: slotById(slot), urlOf, first: false }, CONTEXT.devices);
  test('has the format that every browser reads, in the shape that most visits see', () => {
    const fragment = parseFragment(plain(sampleRow(['hero']), 'hero')!);
    expect([all(fragment, 'picture'), all(fragment, 'img')].map((list) => list.length)).toEqual([0, 1]);
    const img = attributes(all(fragment, 'img')[0]!);
    // Phones: 52 % of visits; from 700 px on 48 %.
    expect(img.srcset).toMatch(/^(photos\/4x5-\d+\.jpeg \d+w(, )?)+$/);
    expect(img).toMatchObject({ class: 'dusky-photo dusky-in-hero', alt: expect.stringContaining('bay') });
    expect(img.sizes).toContain('100vw');
  });
  test('keeps its link, and the box it is fitted into', () => {
    const [placement] = placed('viewer');
    const row = sampleRow(
      [],
      { placements: [{ ...placement!, link: '/shop' }] },
      { width: 320, height: 213 },
    );
    const html = plain(row, 'viewer')!;
    expect(html).toMatch(/^<a href="\/shop"><img .*--dusky-most: 320px.*><\/a>$/);
    expect(plain({ ...row, variants: [] }, 'viewer')).toBeNull();
  });
});

describe('addresses', () => {
  test.each([
    ['', 'photos/a.jpg'],
    ['media', 'media/photos/a.jpg'],
    ['/media/2026//', '/media/2026/photos/a.jpg'],
    ['https://media.example/x/', 'https://media.example/x/photos/a.jpg'],
    ['../', '../photos/a.jpg'],
    ['/', '/photos/a.jpg'],
  ])('under %j', (prefix, address) => {
    expect(prefixProblem(prefix)).toBeNull();
    expect(addressUnder(prefix, 'photos/a.jpg')).toBe(address);
  });
  test.each([
    ['javascript:alert(1)//', 'can’t be loaded from “javascript:”'],
    ['data:text/html,', 'data:'],
    ['//host/x', 'http://'],
    ['https:///x', 'name of a host'],
    ['a b', 'no spaces'],
    ['a"onload=', 'quotes'],
    ['/x?y=', 'before “?”'],
    ['/x#', '#'],
    ['x'.repeat(600), 'longer'],
  ])('%j is refused', (prefix, sentence) => expect(prefixProblem(prefix)).toContain(sentence));
});

describe('the page', () => {
  const rows = [sampleRow(['hero', 'grid'], { id: 1 }), sampleRow(['hero', 'grid'], { id: 2 })];
  const html = pageMarkup({
    page: firstPage('Kiln <diary>', CONTEXT.slots, () => true),
    rows,
    setPlaces: openIn('hero', 'grid'),
    context: CONTEXT,
    urlOf: (_, v) => urlOf(v),
  });
  const document = parse(html);
  test('only its first picture is eager, the others are lazy', () => {
    const loading = all(document, 'img').map((img) => attributes(img).loading);
    expect(loading).toEqual(['eager', 'lazy', 'lazy', 'lazy']);
  });
  test('has a language, a title and one h1, and nothing in the tool’s own words', () => {
    expect(attributes(all(document, 'html')[0]!).lang).toBe('en');
    expect(all(document, 'h1')).toHaveLength(1);
    for (const { name } of CONTEXT.slots) expect(html).not.toContain(name);
  });
  test('its styles hold the widths and ratios of every slot', () => {
    const css = pageStyles(CONTEXT, { design: 'plain' });
    expect(css).toContain('.dusky-in-column { max-width: min(100 * var(--dusky-vw) - 32px - 0.02px, ');
    expect(css).toMatch(/@media \(min-width: 752px\) \{ \.dusky-in-column \{ max-width: min\(720px, /);
    expect(css).toContain(
      '@media (min-width: 700px) { .dusky-in-hero img { aspect-ratio: 3 / 1 !important; } }',
    );
    expect(css).toContain('.dusky-in-grid img { aspect-ratio: 1 / 1 !important; }');
  });
  test('what is pasted elsewhere reaches nothing but its own classes', () => {
    const named = {
      ...slotById('grid'),
      name: 'A */ b { } /* name',
      said: '4 across with 16 px between',
      rule: readWidth('4 across with 16 px between').rule,
    };
    const css = figureStyles({ slots: [...CONTEXT.slots, named] }).replace(/\/\*[^]*?\*\//g, '');
    const selectors = css.replace(/@(media|container)[^{]*\{/g, '').match(/[^{}]+(?=\{)/g)!;
    for (const selector of selectors.flatMap((list) => list.split(',')).map((one) => one.trim())) {
      expect(selector).toMatch(/^(img)?\.dusky-(photo|row|in-[a-z]+|row-[a-z]+)\b/);
    }
    expect(css).toContain('.dusky-row-grid { gap: 16px 16px; }');
    expect(css).toContain('.dusky-row-grid { max-width: calc(100vw - 32px) !important; }');
  });
});

describe('manifest and words', () => {
  const row = sampleRow(['grid'], {
    words: {
      ...NO_WORDS,
      alt: 'Say "oat", please',
      caption: 'a,b',
    },
  });
  test('the manifest lists what is missing and every file', () => {
    const manifest = JSON.parse(
      JSON.stringify(
        manifestOf({
          site: 'S',
          set: 'T',
          context: CONTEXT,
          rows: [row],
          setPlaces: openIn('grid'),
          pathOf: (_, v) => urlOf(v),
        }),
      ),
    ) as {
      photos: { concerns: { code: string }[]; variants: { width: number; crop: { width: number } }[] }[];
    };
    expect(manifest.photos[0]!.concerns.map((c) => c.code)).toEqual(['no-role']);
    expect(manifest.photos[0]!.variants).toHaveLength(row.variants.length);
    expect(manifest.photos[0]!.variants[0]!.crop.width).toBe(2000);
  });
  test('CSV doubles quotes and ends lines with CRLF', () => {
    expect(wordsCsv([row])).toBe(
      `\uFEFFfile,sha256,role,alt text,caption,title,credit,long description,link,new window\r\nDSC00198.JPG,${'ab'.repeat(32)},,"Say ""oat"", please","a,b",,,,,\r\n`,
    );
  });
});
