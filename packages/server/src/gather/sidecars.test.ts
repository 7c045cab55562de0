// Words of files: of photos that bring them in several languages, and of files that lie beside photos.
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import type { TakeInResult } from '@dusky-otter/core/contract';
import { isSidecarOf } from '@dusky-otter/core/words';
import sharp from 'sharp';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.begin();
  await server.edit({ commands: [{ kind: 'site', change: { languages: ['en', 'de', 'ar'] } }] });
});

const alt = (texts: Record<string, string>): string =>
  `<rdf:Alt>${Object.entries(texts)
    .map(([language, text]) => `<rdf:li xml:lang="${language}">${text}</rdf:li>`)
    .join('')}</rdf:Alt>`;
const packet = (inside: string, before = '') => `${before}<x:xmpmeta xmlns:x="adobe:ns:meta/">
 <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about=""
   xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/"
   xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">${inside}</rdf:Description></rdf:RDF></x:xmpmeta>`;
const WORDS = packet(
  `<dc:description>${alt({ 'x-default': 'A jug', 'de-DE': 'Ein Krug', ar: 'إبريق' })}</dc:description>
   <Iptc4xmpCore:AltTextAccessibility>${alt({ 'x-default': 'A blue jug on a shelf', de: 'Ein blauer Krug im Regal' })}</Iptc4xmpCore:AltTextAccessibility>
   <photoshop:Credit>Ida Gullmoor</photoshop:Credit>`,
  '\uFEFF<?xml version="1.0" encoding="UTF-8"?>\n',
);

const wordsIn = async (language: string) => {
  const { rows } = await server.state();
  const response = await server.app.inject(
    `/api/sets/${server.setId}/photos?${new URLSearchParams({ ids: String(rows[0]!.id), language })}`,
  );
  return response.json<{ photos: { words: object }[] }>().photos[0]!.words;
};
const photo = () => photoWithSquare(90, 60, { x: 0.5, y: 0.5 });
const words = (result: TakeInResult) => (result.kind === 'words' ? result.photos : result);

/** @param credit a name inside a photo is only offered; a file that somebody lays beside it says what is meant */
const expectAll = async (credit: string) => {
  expect(await wordsIn('en')).toMatchObject({
    ...{ alt: 'A blue jug on a shelf', caption: 'A jug', credit },
  });
  expect(await wordsIn('de')).toMatchObject({ alt: 'Ein blauer Krug im Regal', caption: 'Ein Krug' });
  expect(await wordsIn('ar')).toMatchObject({ alt: '', caption: 'إبريق' });
};

test('a photo’s own words come in all of the site’s languages', async () => {
  const file = await sharp(await photo())
    .withXmp(WORDS.slice(WORDS.indexOf('<x:')))
    .jpeg()
    .toBuffer();
  expect((await server.add('jug.jpg', file)).kind).toBe('new');
  await expectAll('');
});

test.each([
  ['before its photo', true],
  ['behind it', false],
])('a file of words that comes %s gives them to it', async (_, first) => {
  const sidecar = () => server.add('Jug.XMP', Buffer.from(WORDS));
  if (first) expect(words(await sidecar())).toEqual([]);
  await server.add('jug.jpg', await photo());
  if (!first) expect(words(await sidecar())).toEqual(['jug.jpg']);
  await expectAll('Ida Gullmoor');
  // Once more it changes nothing.
  const { rows } = await server.state();
  expect(words(await sidecar())).toEqual(['jug.jpg']);
  expect((await server.state()).rows[0]!.version).toBe(rows[0]!.version);
});

test('what an editor has written stays', async () => {
  await server.add('jug.jpg', await photo());
  const [row] = (await server.state()).rows;
  await server.edit({
    commands: [{ kind: 'words', photo: row!.id, language: 'de', words: { alt: 'Von Hand' } }],
  });
  await server.add('jug.jpg.xmp', Buffer.from(WORDS));
  expect(await wordsIn('de')).toMatchObject({ alt: 'Von Hand', caption: 'Ein Krug' });
});

test.each([
  ['nothing of use', packet('<dc:format>image/jpeg</dc:format>')],
  ['no XMP', 'A jug'],
  ['nothing', ''],
  ['pixels', '\xff\xd8\xff\xe0JFIF'],
  [
    'definitions of its own',
    `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>${packet(`<dc:description>${alt({ 'x-default': '&b;' })}</dc:description>`)}`,
  ],
  [
    'a megabyte and more',
    packet(`<dc:description>${alt({ 'x-default': 'x'.repeat(1_000_001) })}</dc:description>`),
  ],
  ['what ends too early', WORDS.slice(0, 400)],
  ['a beginning again and again', '<x:xmpmeta '.repeat(80_000)],
  ['depths', packet('<a>'.repeat(100_000))],
  ['an end before its beginning', '</x:xmpmeta><x:xmpmeta>'],
])('a file that holds %s is refused with a sentence, and nothing is changed', async (_, text) => {
  await server.add('jug.jpg', await photo());
  const result = await server.add('jug.xmp', Buffer.from(text));
  expect(result).toMatchObject({ kind: 'refused', refusal: { fileName: 'jug.xmp' } });
  expect(await wordsIn('en')).toMatchObject({ alt: '', caption: '' });
});

test.each([
  ['a.xmp', 'A.jpg', true],
  ['a.jpg.xmp', 'a.jpg', true],
  ['a.jpg.xmp', 'a.png', false],
  ['a.xmp', 'ab.jpg', false],
  ['a.b.xmp', 'a.b.tif', true],
  ['a.b.xmp', 'a.jpg', false],
])('%s speaks of %s: %s', (sidecar, name, is) => expect(isSidecarOf(sidecar, name)).toBe(is));
