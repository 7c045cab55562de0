// What arrangements usually stand in.
import { readWidth } from '@dusky-otter/core/slots';

const PAGE = { name: 'the page’s column, 1140 px', said: 'min(100vw - 32px, 1140px)' };

export const CONTAINERS: readonly { name: string; said: string }[] = [
  PAGE,
  { name: 'a column of text, 720 px', said: 'min(100vw - 32px, 720px)' },
  { name: 'the whole window', said: '100vw' },
];

/** What a new arrangement stands in. */
export const PAGE_COLUMN = readWidth(PAGE.said).rule;
