// A photo of which nothing is said yet.
import type { Words } from '../contract/index.ts';

export const NO_WORDS: Readonly<Words> = {
  role: null,
  alt: '',
  caption: '',
  title: '',
  credit: '',
  longDescription: '',
  link: '',
  newWindow: false,
  kept: {},
};
