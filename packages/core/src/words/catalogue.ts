// Every word check by its code: what it is called, and an example that it finds beside one that it leaves alone.
import type { Role } from '../contract/index.ts';
import type { WordCheckCode } from './checks/finding.ts';

export interface WordExample {
  role: Role | null;
  alt: string;
  caption?: string;
  /** Words that the picture shows. */
  shown?: string;
  /** Alt text of another photo on the page. */
  other?: string;
}

export interface CheckEntry {
  code: WordCheckCode;
  name: string;
  found: WordExample;
  good: WordExample;
}

const informative = (alt: string, more: Partial<WordExample> = {}): WordExample => ({
  role: 'informative',
  alt,
  ...more,
});

export const WORD_CHECKS: readonly CheckEntry[] = [
  {
    code: 'missing',
    name: 'No alt text',
    found: informative(''),
    good: informative('Bowls in rows on the drying shelf.'),
  },
  {
    code: 'file-name',
    name: 'A file name',
    found: informative('GM_0412.JPG'),
    good: informative('Bowl number 412, sea green inside.'),
  },
  {
    code: 'placeholder',
    name: 'A placeholder',
    found: informative('Image 1'),
    good: informative('Test tiles on a board, one for each glaze.'),
  },
  {
    code: 'opens-with-image',
    name: 'Opens with “image of”',
    found: informative('Photo of a red teapot'),
    good: informative('A framed photo of the old pottery on a whitewashed wall.'),
  },
  {
    code: 'same-alt',
    name: 'Same words on two photos',
    found: informative('Cups on the shelf.', { other: 'Cups on the shelf' }),
    good: informative('Cups on the shelf.', { other: 'Cups on the shelf, seen from the door.' }),
  },
  {
    code: 'repeats-nearby',
    name: 'Same as caption, title or heading',
    found: informative('The kiln before the firing.', { caption: 'The kiln before the firing' }),
    good: informative('Split logs stacked to the roof beside the brick kiln.', {
      caption: 'The kiln before the firing',
    }),
  },
  {
    code: 'too-long',
    name: 'Longer than about 150 characters',
    found: informative(
      'Bowls in rows on the drying shelf, most of them sea green or white, with three jugs behind them. On the floor stand two buckets of glaze, a broom, and a tray of broken pieces.',
    ),
    good: informative('Bowls in rows on the drying shelf, most of them sea green or white.'),
  },
  {
    code: 'keyword-list',
    name: 'Keywords or repetition',
    found: informative('pottery, handmade, bowls, stoneware, shop'),
    good: informative('Bowls, cups, plates and a jug on the drying shelf.'),
  },
  {
    code: 'all-capitals',
    name: 'All in capitals',
    found: informative('BOWLS ON THE DRYING SHELF'),
    good: informative('A PDF lies open on the bench tablet.'),
  },
  {
    code: 'decorative-with-alt',
    name: 'Decorative with words',
    found: { role: 'decorative', alt: 'A wavy line' },
    good: { role: 'decorative', alt: '' },
  },
  {
    code: 'describes-look',
    name: 'A link that describes its look',
    found: { role: 'functional', alt: 'A white arrow on a green circle' },
    good: { role: 'functional', alt: 'Next page of the kiln diary' },
  },
  {
    code: 'no-role',
    name: 'No role',
    found: { role: null, alt: 'A red teapot on slate.' },
    good: informative('A red teapot on slate.'),
  },
  {
    code: 'hardly-says',
    name: 'Hardly says anything',
    found: informative('Workshop.'),
    good: informative('The workshop at night, one lamp over the wheel.'),
  },
  {
    code: 'only-look',
    name: 'Colours and shapes only',
    found: informative('Something round and green', { caption: 'Celadon bowl, spring firing' }),
    good: informative('A round green bowl', { caption: 'Celadon bowl, spring firing' }),
  },
  {
    code: 'text-not-carried',
    name: 'Words in the picture',
    found: informative('A wooden sign on a door.', { shown: 'OPEN TODAY' }),
    good: informative('A wooden sign on a door: “Open today”.', { shown: 'OPEN TODAY' }),
  },
];
