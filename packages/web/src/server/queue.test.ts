// The queue of edits without a server: refusals, conflicts, a server that stumbles or is away, leaving, reload, two windows.
import { afterEach, describe, expect, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import type { EditAnswer } from '../../../core/src/contract/index.ts';
import { ApiError } from '../api/client.ts';
import { EditQueue, type Keeping, type QueuedEdit } from './queue.ts';

/** The browser's storage, shared by all windows of a test. */
class Storage implements Keeping {
  readonly map = new Map<string, string>();
  full = false;
  getItem = (key: string) => this.map.get(key) ?? null;
  setItem = (key: string, value: string) => {
    if (this.full) throw new Error('QuotaExceededError');
    this.map.set(key, value);
  };
  removeItem = (key: string) => void this.map.delete(key);
  keys = () => [...this.map.keys()];
}

const edit = (token: string, setId = 1): QueuedEdit => ({
  setId,
  label: `edit ${token}`,
  commands: [{ kind: 'bin', photo: 1, binned: true }],
  seen: { photos: { 1: 1 } },
  token,
  window: 'one',
  since: 0,
});

const failure = (status: number, code = 'x') =>
  new ApiError({ type: 'about:blank', title: code, status, detail: `${status} ${code}`, code });

/** A server that answers as a test says, edit by edit; without a word it answers well. */
class Server {
  readonly got: string[] = [];
  readonly answers = new Map<string, (() => Promise<void>)[]>();
  send = async ({ token }: QueuedEdit): Promise<EditAnswer> => {
    this.got.push(token);
    await this.answers.get(token)?.shift()?.();
    return { photos: [], set: {}, edits: {} } as unknown as EditAnswer;
  };
  will(token: string, ...answers: (ApiError | Promise<void> | null)[]): void {
    this.answers.set(
      token,
      answers.map((answer) => async () => {
        if (answer instanceof ApiError) throw answer;
        await answer;
      }),
    );
  }
}

const open: { queue: EditQueue; client: QueryClient }[] = [];
afterEach(() => {
  for (const { queue, client } of open.splice(0)) {
    queue.close();
    client.clear();
  }
});

function aWindow(
  server: Server,
  storage: Storage,
  name = 'one',
  isOpen: (window: string) => boolean = () => false,
) {
  // What is kept for a while would keep the test's process, too.
  const client = new QueryClient({
    defaultOptions: { queries: { gcTime: Infinity }, mutations: { gcTime: Infinity } },
  });
  const said = {
    answered: [] as string[],
    refused: [] as string[],
    met: [] as string[],
    pending: [] as string[],
    trouble: [] as (string | null)[],
  };
  const queue = new EditQueue({
    client,
    window: name,
    send: server.send,
    keeping: storage,
    isOpen: (window) => Promise.resolve(isOpen(window)),
    answered: ({ token }) => void said.answered.push(token),
    refused: ({ token }) => void said.refused.push(token),
    met: ({ token }) => void said.met.push(token),
    changed: (pending, trouble) => {
      said.pending = pending.map(({ token }) => token);
      if (said.trouble.at(-1) !== trouble) said.trouble.push(trouble);
    },
    pause: () => 1,
  });
  open.push({ queue, client });
  return { queue, said, close: () => queue.close() };
}

const kept = (storage: Storage, window = 'one') =>
  (JSON.parse(storage.getItem(`dusky-otter/edits/${window}`) ?? '[]') as QueuedEdit[]).map(
    ({ token }) => token,
  );

/** An answer that a test gives when it wants. */
function held() {
  let release = (): void => undefined;
  const promise = new Promise<void>((done) => {
    release = done;
  });
  return { promise, release };
}

describe('edits of one set', () => {
  test('follow each other, whatever order the answers would come in', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const { queue, said } = aWindow(server, storage);
    const first = held();
    server.will('a', first.promise);
    const all = [queue.add(edit('a')), queue.add(edit('b')), queue.add(edit('c'))];
    expect(kept(storage)).toEqual(['a', 'b', 'c']);
    await Promise.resolve();
    expect(server.got).toEqual(['a']);
    first.release();
    await Promise.all(all);
    expect([server.got, said.answered]).toEqual([
      ['a', 'b', 'c'],
      ['a', 'b', 'c'],
    ]);
    expect([kept(storage), said.pending]).toEqual([[], []]);
  });
  test('another set’s are not held up by them', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const { queue, said } = aWindow(server, storage);
    const first = held();
    server.will('a', first.promise);
    const slow = queue.add(edit('a'));
    await queue.add(edit('b', 2));
    expect(said.answered).toEqual(['b']);
    first.release();
    await slow;
  });
  test('go on behind one that is refused', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const { queue, said } = aWindow(server, storage);
    server.will('a', failure(422, 'impossible-edit'));
    await Promise.all([queue.add(edit('a')), queue.add(edit('b')), queue.add(edit('c'))]);
    expect(said).toMatchObject({ refused: ['a'], answered: ['b', 'c'], met: [] });
    expect(server.got).toEqual(['a', 'b', 'c']);
  });
  test('go on behind one that another window was in the way of; that one is kept until it is decided', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const { queue, said } = aWindow(server, storage);
    server.will('a', failure(409, 'stale'));
    await Promise.all([queue.add(edit('a')), queue.add(edit('b'))]);
    expect(said).toMatchObject({ met: ['a'], answered: ['b'], refused: [] });
    expect(kept(storage)).toEqual(['a']);
    queue.settle(['a']);
    expect(kept(storage)).toEqual([]);
  });
});

describe('a server in trouble', () => {
  test.each([0, 502, 503, 507])(
    'that is away (%d): the edit waits, is said, and comes through',
    async (status) => {
      const [server, storage] = [new Server(), new Storage()];
      const { queue, said } = aWindow(server, storage);
      server.will('a', ...Array.from({ length: 12 }, () => failure(status)), null);
      await Promise.all([queue.add(edit('a')), queue.add(edit('b'))]);
      expect(server.got).toEqual([...Array.from({ length: 13 }, () => 'a'), 'b']);
      expect(said).toMatchObject({ answered: ['a', 'b'], refused: [] });
      expect(said.trouble).toContain(`${status} x`);
      expect(said.trouble.at(-1)).toBeNull();
    },
  );
  test('that stumbles gets the edit again, but not for ever: it is told, not said to be saved', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const { queue, said } = aWindow(server, storage);
    server.will('a', failure(500), failure(500), null);
    server.will('b', ...Array.from({ length: 20 }, () => failure(500)));
    await Promise.all([queue.add(edit('a')), queue.add(edit('b')), queue.add(edit('c'))]);
    expect(said).toMatchObject({ answered: ['a', 'c'], refused: ['b'] });
  });
  test('storage that is full keeps nothing, and stops nothing', async () => {
    const [server, storage] = [new Server(), new Storage()];
    storage.full = true;
    const { queue, said } = aWindow(server, storage);
    await queue.add(edit('a'));
    expect(said.answered).toEqual(['a']);
  });
});

describe('leaving', () => {
  test('all that is on its way for a set can be waited for', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const { queue, said } = aWindow(server, storage);
    const first = held();
    server.will('a', first.promise);
    void queue.add(edit('a'));
    void queue.add(edit('b'));
    const saved = queue.allSaved(1).then(() => [...said.answered]);
    await queue.allSaved(2);
    first.release();
    expect(await saved).toEqual(['a', 'b']);
  });
  test('a reload sends again what had no answer, under the same names', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const before = aWindow(server, storage);
    server.will('a', held().promise);
    void before.queue.add(edit('a'));
    void before.queue.add(edit('b'));
    before.close();
    const again = new Server();
    const after = aWindow(again, storage);
    await after.queue.takeUp();
    await after.queue.allSaved(1);
    expect(again.got).toEqual(['a', 'b']);
    expect(kept(storage)).toEqual([]);
  });
  test('a conflict that was not decided is met again after a reload', async () => {
    const [server, storage] = [new Server(), new Storage()];
    server.will('a', failure(409, 'stale'), failure(409, 'stale'));
    const before = aWindow(server, storage);
    await before.queue.add(edit('a'));
    before.close();
    const after = aWindow(server, storage);
    await after.queue.takeUp();
    await after.queue.allSaved(1);
    expect(after.said.met).toEqual(['a']);
    expect(kept(storage)).toEqual(['a']);
  });
});

describe('two windows', () => {
  test('keep their edits apart, and one takes up what the other left when it is gone, not before', async () => {
    const [server, storage] = [new Server(), new Storage()];
    const one = aWindow(server, storage, 'one');
    server.will('a', held().promise);
    void one.queue.add(edit('a'));
    let oneIsOpen = true;
    const second = new Server();
    const two = aWindow(second, storage, 'two', (name) => name === 'one' && oneIsOpen);
    await two.queue.takeUp();
    expect(second.got).toEqual([]);
    one.close();
    oneIsOpen = false;
    await two.queue.takeUp();
    await two.queue.allSaved(1);
    // Under the name of the window that made it: its own edits before are no hindrance to it.
    expect([second.got, kept(storage, 'one'), kept(storage, 'two')]).toEqual([['a'], [], []]);
  });
  test('what stands in the storage and is none of ours is left alone', async () => {
    const [server, storage] = [new Server(), new Storage()];
    storage.setItem('dusky-otter/edits/three', 'not JSON');
    storage.setItem('theirs', '[1]');
    storage.setItem('dusky-otter/edits/four', '[{"no":"edit"},null]');
    const { queue, said } = aWindow(server, storage);
    await queue.takeUp();
    expect([server.got, said.refused]).toEqual([[], []]);
    expect(storage.getItem('theirs')).toBe('[1]');
  });
});
