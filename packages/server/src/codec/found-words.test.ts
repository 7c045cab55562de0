// What a file says of itself: words of a person are taken, those of cameras and programs are not.
import { expect, test } from '@jest/globals';
import sharp from 'sharp';
import { findWords } from './found-words.ts';

const withExif = (IFD0: Record<string, string>): Promise<Buffer> =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#806040' } })
    .jpeg()
    .withExif({ IFD0 })
    .toBuffer();

test('a camera’s name for itself is no caption', async () => {
  const camera = { Make: 'LUMORA', Model: 'Lumora L2', Artist: 'Unknown' };
  const { found, camera: model } = await findWords(
    await withExif({ ...camera, ImageDescription: 'LUMORA DIGITAL CAMERA' }),
  );
  expect(found).toEqual({ alt: '', caption: '', title: '', credit: '', longDescription: '' });
  expect(model).toBe('Lumora L2');
});

test('nor is what a program says of itself', async () => {
  const file = await withExif({ Software: 'Brightbox 4', ImageDescription: 'Created with Brightbox' });
  expect((await findWords(file)).found.caption).toBe('');
});

test('a person’s words are taken, beside a camera’s', async () => {
  const file = await withExif({ Make: 'LUMORA', ImageDescription: 'Created by Ida', Artist: 'Ida Gullmoor' });
  expect((await findWords(file)).found).toMatchObject({ caption: 'Created by Ida', credit: 'Ida Gullmoor' });
});
