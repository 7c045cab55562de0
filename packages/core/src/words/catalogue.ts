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
    good: informative('A girl in a red coat feeds ducks at a pond.'),
  },
  {
    code: 'file-name',
    name: 'A file name',
    found: informative('DSC_0412.JPG'),
    good: informative('Locker number 412, its door open.'),
  },
  {
    code: 'placeholder',
    name: 'A placeholder',
    found: informative('Alt text to follow'),
    good: informative('Test strips on a board, one for each colour.'),
  },
  {
    code: 'holds-markup',
    name: 'Markup or code',
    found: informative('Bread &amp; butter on a <b>blue</b> plate'),
    good: informative('Bread & butter on a blue plate'),
  },
  {
    code: 'holds-address',
    name: 'An address',
    found: informative('https://shop.example/img/4471'),
    good: { role: 'text', alt: 'www.shop.example' },
  },
  {
    code: 'file-data',
    name: 'Size or format of the file',
    found: informative('1200 x 800'),
    good: informative('Shelf, 1200 × 800 mm, with two brackets'),
  },
  {
    code: 'says-click',
    name: '“Click here” and its like',
    found: { role: 'functional', alt: 'Click here' },
    good: { role: 'functional', alt: 'Opening hours' },
  },
  {
    code: 'other-language',
    name: 'Another language',
    found: informative('Ein roter Mantel hängt an der Tür.'),
    good: informative('A red coat hangs on the door.'),
  },
  {
    code: 'opens-with-image',
    name: 'Opens with “image of”',
    found: informative('Photo of two hens in the snow'),
    good: informative('Photograph from 1911: miners with lamps at the pit head.'),
  },
  {
    code: 'same-alt',
    name: 'Same words on two photos',
    found: informative('Chairs round a table.', { other: 'Chairs round a table' }),
    good: informative('Chairs round a table.', { other: 'Chairs round a table, seen from above.' }),
  },
  {
    code: 'repeats-nearby',
    name: 'Same as caption, title or heading',
    found: informative('The hall before the concert.', { caption: 'The hall before the concert' }),
    good: informative('Two hundred empty chairs face a stage with a single stool.', {
      caption: 'The hall before the concert',
    }),
  },
  {
    code: 'too-long',
    name: 'Longer than about 150 characters',
    found: informative(
      'Kitchen with an oak worktop and a window to the yard, beside it the door to the pantry. Above the stove hangs a shelf with spice jars, and on the wall opposite stands a bench with a table for eight.',
    ),
    good: informative('Kitchen with an oak worktop and a window to the yard.'),
  },
  {
    code: 'keyword-list',
    name: 'Keywords or repetition',
    found: informative('bicycle, bikes, repair, cheap, online shop'),
    good: informative('Flour 500 g, water 350 ml, salt 10 g, yeast 5 g'),
  },
  {
    code: 'all-capitals',
    name: 'All in capitals',
    found: informative('TWO HENS IN THE SNOW'),
    good: { role: 'text', alt: 'WET PAINT – DO NOT TOUCH' },
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
    good: { role: 'functional', alt: 'Next page of the timetable' },
  },
  {
    code: 'no-role',
    name: 'No role',
    found: { role: null, alt: 'Two hens in the snow.' },
    good: informative('Two hens in the snow.'),
  },
  {
    code: 'hardly-says',
    name: 'Hardly says anything',
    found: informative('Library.'),
    good: informative('The library at night, one lamp over the desk.'),
  },
  {
    code: 'only-look',
    name: 'Colours and shapes only',
    found: informative('Something round and green', { caption: 'Savoy cabbage, first harvest' }),
    good: informative('A round green cabbage', { caption: 'Savoy cabbage, first harvest' }),
  },
  {
    code: 'text-not-carried',
    name: 'Words in the picture',
    found: informative('A wooden sign on a door.', { shown: 'OPEN TODAY' }),
    good: informative('A wooden sign on a door: “Open today”.', { shown: 'OPEN TODAY' }),
  },
];
