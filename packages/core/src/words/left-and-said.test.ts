// What programs left in a text, invitations, other languages, and how findings are said: what is found, and the mends.
import { describe, expect, test } from '@jest/globals';
import type { Words } from '../contract/index.ts';
import { checkWords } from './checks.ts';
import { readsAs } from './checks/language.ts';
import { sayingsIn } from './checks/sayings.ts';
import { NO_WORDS } from './no-words.ts';
import { decoded } from './text/entities.ts';

const found = (change: Partial<Words>, around: Parameters<typeof checkWords>[2] = {}) =>
  checkWords({ ...NO_WORDS, role: 'informative', ...change }, 'DSC_0001.JPG', around);

describe('what programs left', () => {
  test.each([
    ['Bowls &amp; cups on a shelf', 'holds-markup', 'Bowls & cups on a shelf'],
    ['<b>Red teapot</b> on slate', 'holds-markup', 'Red teapot on slate'],
    ['[caption]Trout with almonds[/caption]', 'holds-markup', 'Trout with almonds'],
    ['See the [new shop](https://shop.example) at night', 'holds-markup', 'See the new shop at night'],
    ['{{ photo.alt }}', 'holds-markup', ''],
    ['Amber bead, see www.museum.example/1887', 'holds-address', 'Amber bead'],
    ['https://bakery.example/img/rye', 'holds-address', ''],
    ['1200 x 800', 'file-data', ''],
    ['Red sofa (1200x800)', 'file-data', 'Red sofa'],
    ['Red sofa by a window (click to enlarge)', 'says-click', 'Red sofa by a window'],
    ['Click here', 'says-click', ''],
  ])('%j is found as %s, and its mend is done with it', (alt, code, mended) => {
    const [finding] = found({ alt });
    expect(finding).toMatchObject({ code, mend: { alt: mended } });
    expect(found({ alt: mended }).map((again) => again.code)).not.toContain(code);
  });
  test('a sentence that an address tears apart has no mend', () => {
    expect(found({ alt: 'Order at https://shop.example before noon' })[0]).toMatchObject({
      code: 'holds-address',
      mend: null,
    });
  });
  test('a link that invites takes its target', () => {
    expect(found({ alt: 'Click here', role: 'functional' }, { target: 'Opening hours' })[0]!.mend).toEqual({
      alt: 'Opening hours',
    });
  });
  test.each([
    'The <main> element marked in the editor',
    'Monitor, 27 inch, 1920x1080',
    'Here, the two rivers meet.',
    'Step 3: Click the gear symbol and choose Language.',
    'Shelf, 1200 × 800 mm, with two brackets',
  ])('%j is left alone', (alt) => expect(found({ alt })).toEqual([]));
  test('what a sign shows is its text', () => {
    for (const alt of ['www.shop.example', 'COMING SOON', '2:1', 'Click here'])
      expect(found({ alt, role: 'text' })).toEqual([]);
  });
  test('entities are signs; unknown ones, controls and halves of letters change nothing or are spaces', () => {
    expect(decoded('Caf&eacute; &#8211; &unknown; &#0;&#xd800;&#9999999;')).toBe(
      'Café – &unknown;    '.slice(0, 20),
    );
  });
});

describe('another language', () => {
  test.each([
    ['Eine rote Teekanne steht auf einer Schieferplatte.', 'en', 'de'],
    ['A mechanic in an apron is truing a wheel.', 'de', 'en'],
    ['Une théière rouge posée sur une plaque d’ardoise.', 'de', 'fr'],
    ['Parus major', 'en', null],
    ['Crème brûlée à la carte', 'en', null],
    ['Poster “Keep calm and carry on” an der Wand hinter dem Tresen', 'de', null],
    ['The ship Le Roi de la Mer at the quay', 'en', null],
    ['Eine rote Teekanne steht auf einer Schieferplatte.', 'cy', null],
  ])('%j for %s reads as %s', (text, own, spoken) => expect(readsAs(text, own)).toBe(spoken));
});

describe('how it is said', () => {
  test('of a German text in German, unless another language is asked for', () => {
    const german = { language: 'de' };
    expect(found({ alt: 'Bild' }, german)[0]!.sentence).toBe('„Bild“ ist ein Platzhalter');
    expect(found({ alt: 'Bild' }, { ...german, spoken: 'en-GB' })[0]!.sentence).toBe(
      '“Bild” is a placeholder',
    );
    expect(found({ alt: 'Ein rotes Auto steht vor dem Haus.' }, { spoken: 'de' })[0]!.sentence).toBe(
      'Liest sich als Deutsch; diese Worte sind für Englisch',
    );
  });
  test('every voice says everything, each in its own words', () => {
    const [english, german] = [sayingsIn('en'), sayingsIn('de')];
    expect(Object.keys(german.why)).toEqual(Object.keys(english.why));
    for (const [code, why] of Object.entries(german.why))
      expect(why).not.toBe(english.why[code as keyof typeof english.why]);
  });
});

describe('mends that would say something else', () => {
  test('a list is not cut', () => {
    const alt =
      'On the shelf stand bowls, cups, plates, jugs, vases, teapots, candlesticks, egg cups, butter dishes, cake stands, salt pigs, mustard pots, tankards and a single urn.';
    expect(found({ alt })[0]).toMatchObject({ code: 'too-long', mend: null });
  });
  test('nor is a sentence behind a short form', () => {
    const alt =
      'The choir of the parish of St. Olwen sings in front of the altar while the congregation stands, and behind it the organist turns a page of the thick book of psalms.';
    expect(found({ alt })[0]!.mend).toBeNull();
  });
  test('German sentences whose verb comes first without their opening are left to a person', () => {
    expect(found({ alt: 'Auf dem Foto sitzen Kinder im Kreis' }, { language: 'de' })[0]).toMatchObject({
      code: 'opens-with-image',
      mend: null,
    });
  });
});
