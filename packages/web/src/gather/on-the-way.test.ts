// What is written down of files on their way: said once a window is gone, and not while another one still sends.
import { expect, test } from '@jest/globals';
import { leftOver, writeDown } from './on-the-way.ts';

function store(): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: (n: number) => [...kept.keys()][n] ?? null,
    clear: () => kept.clear(),
    get length() {
      return kept.size;
    },
  };
}
const files = [
  { setId: 3, name: 'bay.jpg' },
  { setId: 3, name: 'kiln.jpg' },
];

test('a window that was left says which files had not arrived; one that arrived whole says nothing', () => {
  const kept = store();
  writeDown(kept, 'a', files, 1000);
  expect(leftOver(kept, 'a', 1500).flatMap((left) => left.files)).toEqual(files);
  writeDown(kept, 'a', [], 2000);
  expect(leftOver(kept, 'a', 2500)).toEqual([]);
});

test('another window’s files are left over once it has been silent for long', () => {
  const kept = store();
  writeDown(kept, 'other', files, 1000);
  expect(leftOver(kept, 'own', 5000)).toEqual([]);
  expect(leftOver(kept, 'own', 60_000).map(({ files: left }) => left.length)).toEqual([2]);
});

test('a store that refuses or holds nonsense stops nothing', () => {
  const kept = store();
  const full = {
    removeItem: () => undefined,
    setItem: () => {
      throw new Error('full');
    },
  } as unknown as Storage;
  expect(() => writeDown(full, 'a', files, 0)).not.toThrow();
  for (const text of ['{', 'null', '{"at":1,"files":[{"name":3}]}', '[]']) {
    kept.setItem('dusky-otter-on-the-way x', text);
    expect(leftOver(kept, 'x', 99_999)).toEqual([]);
  }
});
