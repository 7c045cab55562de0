// Films and captions that a hand-over does not hold are named.
import { expect, test } from '@jest/globals';
import { captionsProblem, isFilm } from '../html/film.ts';
import { isRelative } from '../html/link.ts';
import { optionsFor, slotsOfArrangement } from '../arrange/index.ts';
import { placed, samplePhoto } from '../testing/sample.ts';
import { filmsBeside } from './films.ts';
import { openIn } from './set-places.ts';

const { cell } = slotsOfArrangement({
  shortName: 'diary',
  title: 'Diary',
  options: optionsFor('feed'),
  container: [{ from: 0, vw: 1, px: 0 }],
});
const context = { slots: [cell] };
const poster = (id: number, link: string, captions: Record<string, string> = {}, slot = 'diary') =>
  samplePhoto({ id, placements: [{ ...placed(slot)[0]!, link, captions }] });

test('those that lie beside the page, each once', () => {
  const photos = [
    poster(1, 'films/throwing.webm', { en: 'films/throwing.en.vtt', de: 'https://gullmoor.example/t.vtt' }),
    poster(2, ' films/throwing.webm '),
    poster(3, '/films/glazing.mp4'),
    poster(4, 'https://gullmoor.example/kiln.webm'),
    poster(5, '../shop/'),
    // A link of a plain place is no poster.
    poster(6, 'films/bay.webm', {}, 'column'),
  ];
  expect(filmsBeside(photos, openIn(), context)).toEqual([
    { photo: 2, address: 'films/throwing.webm' },
    { photo: 1, address: 'films/throwing.en.vtt' },
  ]);
  // What the page does not show needs nothing.
  expect(filmsBeside(photos, { open: [], shown: [] }, context)).toEqual([]);
});

test.each([
  ['a.webm', true],
  ['a.MP4?x#t', true],
  ['a.webm.jpg', false],
  ['film', false],
])('%s is a film: %s', (address, film) => expect(isFilm(address)).toBe(film));

test.each([
  ['films/a.vtt', null],
  ['https://gullmoor.example/a.vtt?x=1', null],
  ['a.srt', /ends with .vtt/],
  ['javascript:alert(1).vtt', /addresses/],
  [7, /have an address/],
])('captions at %s', (address, wanted) => {
  const problem = captionsProblem(address);
  if (wanted === null) expect(problem).toBeNull();
  else expect(problem).toMatch(wanted);
});

test('what lies beside a page', () => {
  expect(['a.webm', '../a.webm', '/a.webm', 'https://x/a.webm'].map(isRelative)).toEqual([
    true,
    true,
    false,
    false,
  ]);
});
