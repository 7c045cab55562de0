// Every kind of arrangement with every choice of its options is valid HTML, whatever words its photos have.
import { describe, expect, test } from '@jest/globals';
import { HtmlValidate } from 'html-validate';
import { slotsOfArrangement } from '../../arrange/cells.ts';
import { ARRANGEMENT_KINDS, OPTIONS_OF, optionsFor, type Option } from '../../arrange/options.ts';
import type { Arrangement, ArrangementOptions, PageEntry, SetPage, Words } from '../../contract/index.ts';
import { CONTEXT, sampleRow, slotById } from '../../testing/sample.ts';
import { NO_WORDS } from '../../words/no-words.ts';
import { documentMarkup } from '../pages/document.ts';
import { pageMarkup } from '../pages/page.ts';
import { figureMarkup } from '../picture.ts';
import { arrangedMarkup } from './arranged.ts';
import { openIn } from '../../plan/set-places.ts';

const VALIDATOR = new HtmlValidate({
  extends: ['html-validate:standard'],
  rules: {
    // Said by a comment in the page, and by the checks of words: an editor may not have written them yet.
    'wcag/h37': 'off',
    // How many there may be is a question of search engines, not of HTML.
    'long-title': 'off',
  },
});

/** What is wrong with a document, each with the line that it stands in. */
async function problemsOf(html: string): Promise<string[]> {
  const { results } = await VALIDATOR.validateString(html);
  const lines = html.split('\n');
  return results.flatMap(({ messages }) =>
    messages.map(({ ruleId, message, line }) => `${ruleId}: ${message} (${lines[line - 1]?.trim()})`),
  );
}

const LONG =
  'Seen from the harbour.\n\n| Jar | Height |\n| --- | --- |\n| left | 20 cm |\n\nAll were fired in May.';
const word = (change: Partial<Words>): Words => ({
  ...NO_WORDS,
  role: 'informative',
  alt: 'A jug "on" a <shelf>',
  title: 'Jug & cup',
  ...change,
});
/** Words of all sorts. */
const WORDS: readonly Words[] = [
  word({}),
  word({ caption: 'Two jugs & a cup', credit: 'Gullmoor Pottery' }),
  word({ role: 'complex', caption: 'All jars', longDescription: LONG }),
  word({ role: 'complex', title: '', longDescription: LONG }),
  word({ role: 'complex', longDescription: 'https://gullmoor.example/jars' }),
  word({ role: 'decorative', alt: '', title: '' }),
  word({ role: 'decorative', alt: '', title: '', caption: 'A caption alone', longDescription: LONG }),
  word({ role: 'functional', link: '/shop?a=1&b="2"', newWindow: true }),
  word({ role: 'functional', link: '/films/firing.webm', caption: 'The firing' }),
  NO_WORDS,
];

/** Some values of an option that have another markup each. */
function valuesOf(option: Option): readonly unknown[] {
  if (Array.isArray(option)) return option as readonly string[];
  switch (option) {
    case 'yes':
      return [true, false];
    case 'perPage':
      return [null, 2];
    case 'seconds':
      return [null, 5];
    case 'between':
      return [
        [
          {
            before: 2,
            heading: 'At <dusk>',
            passage: [{ kind: 'paragraph', runs: [{ text: 'We lit it at five.' }] }],
          },
        ],
      ];
    case 'galleries':
      return [
        [
          { photo: 1, set: 7, text: 'Jars & jugs' },
          { photo: 2, set: 8, text: '' },
        ],
      ];
    default:
      return [];
  }
}

const ENTRY: PageEntry = {
  ...{ set: 7, title: 'Jars & jugs', description: '', folder: 'jars', menu: true },
  photos: 12,
  parts: [],
};

/**
 * A page that an arrangement stands on alone.
 * @param german the photo whose words are in German
 */
function pageWith(options: ArrangementOptions, n = 1, german = 2): string {
  const arrangement: Arrangement = {
    ...{ shortName: 'pots', title: 'Pots & jugs' },
    ...{ options, container: [{ from: 0, vw: 1, px: -32 }] },
  };
  const { cell, large } = slotsOfArrangement(arrangement);
  const context = { ...CONTEXT, slots: [cell, ...(large ? [large] : [])] };
  const rows = WORDS.map((words, at) =>
    sampleRow(['pots'], { id: at + 1, words }, { width: 2400, height: 1600 }, 900, context),
  );
  const main = arrangedMarkup({
    ...{ arrangement, rows, first: true, language: 'en' },
    urlOf: (_, { slot, width, format }) => `${slot}-${width}.${format}`,
    wordsLanguage: ({ id }) => (id === german ? 'de' : 'en'),
    page: { n, addressOf: (to) => (to === 1 ? './' : `pots-${to}.html`) },
    ownPageOf: ({ id }) => `pots-${id}.html`,
    pages: { of: (set) => (set === ENTRY.set ? ENTRY : null), addressOf: () => '../jars/' },
  });
  expect(main).not.toBe('');
  return inPage(main);
}

const PAGE: SetPage = {
  ...{ title: 'Pots', description: 'What left the kiln', folder: 'pots', home: null, menu: true },
  ...{ design: 'plain', tone: 'light', template: '', parts: [] },
};

const said = (text: string) => ({ text, language: 'en' });

const inPage = (main: string): string =>
  documentMarkup(
    { page: PAGE, rows: [], setPlaces: openIn(), context: CONTEXT, urlOf: () => '' },
    { title: said('Pots'), description: said('What left the kiln'), above: [], main },
  );

test('what is wrong is found', async () => {
  const picture = '<img src="a.jpg" alt="A jug">';
  const wrong = `<figure>${picture}<figcaption>One</figcaption><details><summary>Two</summary></details></figure>`;
  expect(await problemsOf(inPage(wrong))).toHaveLength(1);
  expect(await problemsOf(inPage('<ul><p>One</p></ul>'))).toHaveLength(1);
  expect(await problemsOf(inPage('<p>Fine.</p>'))).toEqual([]);
});

describe.each(ARRANGEMENT_KINDS)('a %s', (kind) => {
  const choices = Object.entries(OPTIONS_OF[kind]).flatMap(([name, option]) =>
    valuesOf(option).map((value) => [name, value] as const),
  );
  test('is valid as it begins', async () => {
    expect(await problemsOf(pageWith(optionsFor(kind)))).toEqual([]);
  });
  if (choices.length > 0)
    test.each(choices)('is valid with %s: %j', async (name, value) => {
      const options = { ...optionsFor(kind), [name]: value };
      expect(await problemsOf(pageWith(options))).toEqual([]);
      if (name === 'perPage' && value !== null) expect(await problemsOf(pageWith(options, 2))).toEqual([]);
    });
});

test('a long description is never lost, nor covered by a caption over its picture', () => {
  const found = (options: ArrangementOptions) => pageWith(options).match(/<details>/g)?.length ?? 0;
  // In the grid and in the viewer's picture.
  expect(found(optionsFor('grid'))).toBe(4);
  const over = pageWith({ ...optionsFor('grid'), captions: 'over' } as ArrangementOptions);
  expect(over).toMatch(/<\/figure>\s*<div class="dusky-behind">\s*<details>/);
  // In its own language, wherever it stands.
  const german = pageWith({ ...optionsFor('grid'), captions: 'over' } as ArrangementOptions, 1, 3);
  expect(german).toContain('<div class="dusky-behind" lang="de">');
  expect(found({ ...optionsFor('grid'), captions: 'viewer' } as ArrangementOptions)).toBe(2);
  expect(found({ ...optionsFor('grid'), captions: 'viewer', click: 'nothing' } as ArrangementOptions)).toBe(
    2,
  );
  expect(found({ ...optionsFor('rotating'), texts: 'over' } as ArrangementOptions)).toBe(2);
});

test('figures of places, and a page with headings, texts, a menu and an end', async () => {
  const rows = WORDS.map((words, at) => sampleRow(['column', 'grid'], { id: at + 1, words }));
  const urlOf = (_: unknown, { slot, width, format }: { slot: string; width: number; format: string }) =>
    `${slot}-${width}.${format}`;
  const page = pageMarkup({
    page: {
      ...PAGE,
      home: { text: 'Home', address: '/' },
      parts: [
        { kind: 'heading', text: 'From the <kiln>' },
        { kind: 'text', passage: [{ kind: 'paragraph', runs: [{ text: 'Fired in May.' }] }] },
        { kind: 'place', slot: 'column', titled: true },
        { kind: 'place', slot: 'grid', titled: false },
      ],
    },
    ...{ rows, setPlaces: openIn('column', 'grid'), context: CONTEXT, urlOf, set: 7 },
    entries: [ENTRY, { ...ENTRY, set: 8, folder: 'jugs' }],
    addressOfPage: ({ folder }) => `../${folder}/`,
  });
  expect(page.match(/<figure/g)!.length).toBe(2 * WORDS.length);
  expect(await problemsOf(page)).toEqual([]);
  const alone = rows.map((row) =>
    figureMarkup({ row, slot: slotById('grid'), urlOf: () => 'a.jpg', first: false }),
  );
  expect(await problemsOf(inPage(alone.join('\n')))).toEqual([]);
});
