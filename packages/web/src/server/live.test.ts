// In whatever order answers and events come, the newest state stands.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import type { SentPhoto, SetEvent, SetHeader, StoredFacts } from '../../../core/src/contract/index.ts';
import { samplePhoto } from '../../../core/src/testing/sample.ts';
import { keys } from './keys.ts';
import { Live } from './live.ts';

const SET = 7;
const FACTS: StoredFacts = { bytes: 10, contentHash: 'c', quality: 60, difference: 1 };

const photo = (change: Partial<SentPhoto> = {}): SentPhoto => ({
  ...{ ...samplePhoto(), id: 1, version: 3, files: {}, failures: {}, sameAs: [], speaking: 'bay', asOf: 100 },
  ...change,
});
const header = { set: { id: SET, version: 4, name: 'Kiln' }, site: { id: 1, version: 9 } } as SetHeader;
const made = (key: string, id = 1): SetEvent => ({ type: 'made', photo: id, key, ...FACTS });

let client: QueryClient;
let live: Live;
let asked: number[][];
let moves: number;
/** What the server would answer. */
let there: SentPhoto[];
let answers: (() => void)[];
beforeEach(() => {
  client = new QueryClient({ defaultOptions: { queries: { gcTime: Infinity } } });
  [asked, moves, there, answers] = [[], 0, [], []];
  const read = (ids: readonly number[]) => {
    asked.push([...ids]);
    const now = there.filter(({ id }) => ids.includes(id));
    return new Promise<SentPhoto[]>((done) => answers.push(() => done(now)));
  };
  live = new Live(client, SET, read, () => moves++);
});
afterEach(() => {
  live.close();
  client.clear();
});

const known = (id = 1) => client.getQueryData<SentPhoto>(keys.photo(SET, id))!;
const answered = async () => {
  for (const answer of answers.splice(0)) answer();
  await new Promise((done) => setImmediate(done));
};

describe('answers', () => {
  test('that were overtaken by a newer version change nothing', () => {
    live.put([photo({ version: 5, fileName: 'new.jpg' })]);
    live.put([photo({ version: 4, fileName: 'old.jpg' })]);
    expect(known().fileName).toBe('new.jpg');
  });
  test('of one version stand by when they were so: what others made of a photo has no version', () => {
    live.put([photo({ asOf: 200, sameAs: ['Pier'] })]);
    live.put([photo({ asOf: 150, sameAs: [] })]);
    expect(known().sameAs).toEqual(['Pier']);
    live.put([photo({ asOf: 250, sameAs: [] })]);
    expect(known().sameAs).toEqual([]);
  });
  test('older than an event keep the file that it told of', () => {
    live.put([photo()]);
    live.hear(made('k1'));
    live.put([photo({ version: 4, files: {} })]);
    expect(known().files).toEqual({ k1: FACTS });
  });
  test('after a file was lost do not bring it back', () => {
    live.put([photo()]);
    live.hear(made('k1'));
    live.hear({ type: 'unmade', keys: ['k1'] });
    live.put([photo({ version: 4, files: {} })]);
    expect(known().files).toEqual({});
  });
  test('say when a photo stands elsewhere, and only then', () => {
    live.put([photo()]);
    live.put([photo({ version: 4, fileName: 'other.jpg' })]);
    expect(moves).toBe(0);
    live.put([photo({ version: 5, position: 'z' })]);
    live.put([photo({ version: 6, position: 'z', binned: true })]);
    expect(moves).toBe(2);
  });
});

describe('events', () => {
  test('a file that is made takes its failure away, and no other', () => {
    live.put([photo({ failures: { k1: 'No room.', k2: 'No room.' } })]);
    live.hear(made('k1'));
    expect([known().files, known().failures]).toEqual([{ k1: FACTS }, { k2: 'No room.' }]);
  });
  test('of photos that nobody looked at make nothing up', () => {
    live.hear(made('k1', 2));
    live.hear({ type: 'failed', photo: 2, keys: ['k2'], sentence: 'No room.' });
    expect(client.getQueryData(keys.photo(SET, 2))).toBeUndefined();
  });
  test('of a set or a site that are older than what is known are passed over', () => {
    client.setQueryData(keys.set(SET), header);
    live.hear({ type: 'set', set: { ...header.set, version: 3, name: 'Older' } });
    live.hear({ type: 'site', site: { ...header.site, version: 8, name: 'Older' } });
    expect(client.getQueryData(keys.set(SET))).toEqual(header);
    live.hear({ type: 'set', set: { ...header.set, version: 5, name: 'Newer' } });
    expect(client.getQueryData<SetHeader>(keys.set(SET))!.set.name).toBe('Newer');
  });
  test('read what is older here, and what others made of it; not what is here already', async () => {
    live.put([photo(), photo({ id: 2 }), photo({ id: 3 })]);
    there = [photo({ version: 4, fileName: 'new.jpg' }), photo({ id: 3, asOf: 300, speaking: 'bay-2' })];
    live.hear({
      type: 'photos',
      changed: [
        [1, 4],
        [2, 3],
        [9, 1],
      ],
      near: [3, 8],
      listed: false,
    });
    expect(asked).toEqual([[1, 3]]);
    await answered();
    expect([known().fileName, known(3).speaking]).toEqual(['new.jpg', 'bay-2']);
  });
  test('that come while another answer is on its way are not undone by it', async () => {
    live.put([photo()]);
    there = [photo({ version: 4, fileName: 'fourth.jpg' })];
    live.hear({ type: 'photos', changed: [[1, 4]], near: [], listed: false });
    there = [photo({ version: 5, fileName: 'fifth.jpg' })];
    live.hear({ type: 'photos', changed: [[1, 5]], near: [], listed: false });
    const [fourth, fifth] = answers.splice(0);
    fifth!();
    await answered();
    fourth!();
    await answered();
    expect(known().fileName).toBe('fifth.jpg');
  });
  test('of hundreds of photos read those alone that are looked at', () => {
    const many = Array.from({ length: 300 }, (_, n) => photo({ id: n + 1 }));
    live.put(many);
    live.hear({ type: 'photos', changed: many.map(({ id }) => [id, 4]), near: [], listed: true });
    expect(asked).toEqual([]);
    expect(client.getQueryData(keys.photo(SET, 12))).toBeUndefined();
  });
  test('that were missed have everything read anew', () => {
    client.setQueryData(keys.set(SET), header);
    live.put([photo()]);
    live.hear(made('k1'));
    live.hear({ type: 'reset' });
    expect(client.getQueryData(keys.photo(SET, 1))).toBeUndefined();
    expect(client.getQueryState(keys.set(SET))!.isInvalidated).toBe(true);
  });
});
