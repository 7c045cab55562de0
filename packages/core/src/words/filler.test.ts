// What a camera wrote of itself is no caption; what a person wrote is one, whatever it looks like.
import { expect, test } from '@jest/globals';
import { isFiller } from './filler.ts';

const MAKERS = ['LUMORA', 'Lumora L2', 'Brightbox 4.1'];

test.each([
  ...['', '   ', '...', '\u0000\u0000', 'LUMORA DIGITAL CAMERA', 'BRAYWICK DIGITAL STILL CAMERA'],
  ...['Lumora L2', 'Photo by Lumora L2', 'Digital camera image from Lumora', 'LUMORA L2 0412'],
  ...['Created with Brightbox', 'Edited in Brightbox 4.1', 'Created with a program, www.brightbox.example'],
  ...['CREATOR: jpeg-maker v1.0, quality = 82', 'Processed with Lightmill™', 'Erstellt mit Brightbox'],
  ...['Untitled', 'untitled', 'Unknown', 'No description', 'Ohne Titel', 'Default description', 'null'],
  ...['DSC00198.JPG', 'DSC00198', 'IMG_2041', 'image', 'Image 12', 'test', 'Foto'],
])('%j says nothing', (text) => {
  expect(isFiller(text, MAKERS)).toBe(true);
});

test.each([
  ...['Two jugs on a shelf', 'Jug', 'Kiln No. 4', 'Created by hand from the clay of the bay', 'Made by Ida'],
  ...[
    'An old digital camera on the workbench',
    'Ida Gullmoor',
    'Bay at dusk, 2026',
    'Scanned from the old guest book',
  ],
  ...[
    'Saved from the fire: the last of twelve bowls that stood on the upper shelf of the kiln',
    'Krug, 20 cm',
  ],
  ...['The Lumora prize, won by our blue teapot', 'FIRST FIRING OF THE YEAR', 'Unknown potter, about 1890'],
])('%j says something', (text) => {
  expect(isFiller(text, MAKERS)).toBe(false);
});

test('a long text is judged in no time', () => {
  expect(isFiller(`Created with ${'a jug and '.repeat(20_000)}`, MAKERS)).toBe(false);
});
