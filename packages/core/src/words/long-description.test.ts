// Long descriptions: text that people can read, tables among it, and the same blocks back.
import { describe, expect, test } from '@jest/globals';
import { blocksOf, descriptionAddress, textOfBlocks, type DescriptionBlock } from './long-description.ts';

const TABLE: DescriptionBlock = {
  kind: 'table',
  head: ['Cone', '°C'],
  lines: [
    ['6', '1222'],
    ['a|b', 'c\\d'],
  ],
};

describe('a long description', () => {
  test('is paragraphs and tables, and the same again when written', () => {
    const blocks: DescriptionBlock[] = [
      { kind: 'paragraph', text: 'One. Two.' },
      TABLE,
      { kind: 'paragraph', text: 'End' },
    ];
    const text = textOfBlocks(blocks);
    expect(text).toBe('One. Two.\n\n| Cone | °C |\n| --- | --- |\n| 6 | 1222 |\n| a\\|b | c\\\\d |\n\nEnd');
    expect(blocksOf(text)).toEqual(blocks);
  });
  test('lines without a rule are no table; short lines are filled, long ones cut', () => {
    expect(blocksOf('| a | b |\n| c | d |')).toEqual([{ kind: 'paragraph', text: '| a | b | | c | d |' }]);
    expect(blocksOf('| a | b |\n|---|:-:|\n| c |\n| d | e | f |')).toEqual([
      {
        kind: 'table',
        head: ['a', 'b'],
        lines: [
          ['c', ''],
          ['d', 'e'],
        ],
      },
    ]);
  });
  test('empty parts are none', () => {
    expect(blocksOf(' \n\n \n')).toEqual([]);
    expect(textOfBlocks([{ kind: 'paragraph', text: ' ' }])).toBe('');
  });
  test.each([
    ['/firing-guide', '/firing-guide'],
    [' https://pottery.example/a?b ', 'https://pottery.example/a?b'],
    ['See https://pottery.example', null],
    ['javascript:alert(1)', null],
    ['//a b', null],
  ])('%s as an address', (text, address) => expect(descriptionAddress(text)).toBe(address));
});
