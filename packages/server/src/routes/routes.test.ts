// The door of the server: who may talk to it, what it answers to nonsense, what leaves through it.
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { get } from 'node:http';
import type { SetEvent } from '@dusky-otter/core/contract';
import { unzipSync, strFromU8 } from 'fflate';
import sharp from 'sharp';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

/** Only what time it is is made up; everything goes on as ever. */
const TIMERS = [
  ...(['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'setImmediate'] as const),
  ...(['clearImmediate', 'nextTick', 'queueMicrotask', 'performance', 'hrtime'] as const),
];

let server: TestServer;
let id: number;
beforeAll(async () => {
  server = await testServer({}, 'avif');
  const result = await server.add('Bay.jpg', await photoWithSquare(1600, 1200, { x: 0.8, y: 0.5 }, 6));
  if (result.kind !== 'new') throw new Error(result.kind);
  id = result.photo.id;
  await server.add('Twin.jpg', await photoWithSquare(300, 200, { x: 0.5, y: 0.5 }));
  await server.prepared();
});
afterAll(() => server.close());

const ask = (url: string, headers: Record<string, string> = {}) => server.app.inject({ url, headers });

const post = (url: string) => server.app.inject({ method: 'POST', url });

describe('guards', () => {
  test('another host name or origin is turned away', async () => {
    expect((await ask('/api/sites', { host: 'evil.example' })).statusCode).toBe(403);
    expect(
      (await ask('/api/sites', { host: 'localhost:80', origin: 'http://evil.example' })).statusCode,
    ).toBe(403);
    expect(
      (await ask('/api/sites', { host: 'localhost:80', origin: 'http://localhost:80' })).statusCode,
    ).toBe(200);
    const write = {
      method: 'POST',
      url: `/api/sets/${server.setId}/undo`,
      headers: { origin: 'null' },
    } as const;
    expect((await server.app.inject(write)).statusCode).toBe(403);
  });
  test('answers carry security headers', async () => {
    const { headers } = await ask('/api/sites');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['x-content-type-options']).toBe('nosniff');
  });
  test.each([
    ['/api/sets/999', 404],
    ['/api/sets/abc', 404],
    ['/api/nowhere', 404],
    ['/files/views/..%2f..%2fetc%2fpasswd/row', 404],
    [`/files/views/${'0'.repeat(64)}/row`, 404],
    [`/files/variants/${'0'.repeat(64)}/exe`, 404],
    ['/api/sets/1/sent', 400],
  ])('%s is a problem document with %i', async (url, status) => {
    const response = await ask(url.replace('/sets/1/', `/sets/${server.setId}/`));
    expect(response.statusCode).toBe(status);
    expect(response.json()).toMatchObject({ status, detail: expect.stringMatching(/\.$/) });
  });
});

describe('markup', () => {
  test('of a photo in one slot, and of a selection', async () => {
    const one = await post(`/api/sets/${server.setId}/markup?photos=${id}&slot=grid`);
    expect(one.body.match(/<picture>/g)).toHaveLength(1);
    expect(one.body).toMatch(/bay-grid-\d+w\.[0-9a-f]{8}\.avif/);
    const all = await post(`/api/sets/${server.setId}/markup`);
    expect(all.body.match(/<picture>/g)).toHaveLength(4);
  });
  test('with the styles of its places stands alone, and brings those of no others', async () => {
    const bare = await post(`/api/sets/${server.setId}/markup?photos=${id}&slot=grid`);
    const own = await post(`/api/sets/${server.setId}/markup?photos=${id}&slot=grid&styles=1`);
    const [, styles, markup] = /^<style>([^]*)<\/style>\n([^]*)$/.exec(own.body)!;
    expect(markup).toBe(bare.body);
    expect(styles).toContain('.dusky-in-grid {');
    expect(styles).not.toContain('dusky-in-column');
    const odd = await post(`/api/sets/${server.setId}/markup?photos=${id}&slot=grid&styles=2`);
    expect(odd.statusCode).toBe(400);
  });
  test('a photo that does not stand in the slot is an error with a sentence', async () => {
    const response = await post(`/api/sets/${server.setId}/markup?photos=${id}&slot=hero`);
    expect(response.statusCode).toBe(400);
    expect(response.json()).toMatchObject({ detail: expect.stringContaining('stands in this place') });
  });
});

describe('the ZIP', () => {
  test('holds page, styles, manifest, words and every variant under a name with its hash', async () => {
    const response = await ask(`/api/sets/${server.setId}/hand-over.zip`);
    expect(response.headers['content-disposition']).toBe('attachment; filename="test-set.zip"');
    const files = unzipSync(new Uint8Array(response.rawPayload));
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining(['index.html', 'styles.css', 'manifest.json', 'words.csv']),
    );
    const photos = Object.entries(files).filter(([path]) => path.startsWith('photos/'));
    const html = strFromU8(files['index.html']!);
    const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as {
      photos: { concerns: { code: string }[]; variants: { path: string }[] }[];
    };
    expect(photos.map(([path]) => path).sort()).toEqual(
      [...new Set(manifest.photos.flatMap((p) => p.variants.map((v) => v.path)))].sort(),
    );
    for (const [path, bytes] of photos) {
      const hash = createHash('sha256').update(bytes).digest('hex');
      expect(path).toContain(`.${hash.slice(0, 8)}.`);
      const [, width] = /-(\d+)w\./.exec(path)!;
      expect((await sharp(bytes).metadata()).width).toBe(Number(width));
      expect(html).toContain(path);
    }
    expect(manifest.photos[0]!.concerns.map((c) => c.code)).toEqual(['missing', 'no-role']);
    expect(manifest.photos[1]!.concerns.map((c) => c.code)).toContain('too-small');
  });
  test('of a selection holds only that; a photo in the bin never goes out', async () => {
    const response = await ask(`/api/sets/${server.setId}/hand-over.zip?photos=${id}`);
    const files = Object.keys(unzipSync(new Uint8Array(response.rawPayload)));
    expect(
      files.filter((path) => path.startsWith('photos/')).every((path) => path.startsWith('photos/bay-')),
    ).toBe(true);
    expect((await ask(`/api/sets/${server.setId}/hand-over.zip?photos=999`)).statusCode).toBe(404);
  });
  test('of the same state is the same, byte for byte, whenever it is taken; looking at it says nothing', async () => {
    const taken = async (at: string) => {
      jest.useFakeTimers({ now: new Date(at), doNotFake: TIMERS });
      try {
        return (await ask(`/api/sets/${server.setId}/hand-over.zip`)).rawPayload;
      } finally {
        jest.useRealTimers();
      }
    };
    const now = await taken('2026-11-30T09:00:00Z');
    expect((await taken('2027-03-01T09:00:00Z')).equals(now)).toBe(true);
    expect((await server.state()).set.handedOver).toBe(false);
    expect((await post(`/api/sets/${server.setId}/hand-over/publish`)).statusCode).toBe(204);
    expect((await server.state()).set.handedOver).toBe(true);
  });
  test('a page that began to load before an edit finds the files that it names', async () => {
    const address = `/preview/${server.setId}`;
    const before = (await ask(`${address}/index.html`)).body;
    const named = [...before.matchAll(/(?:src|href)="(photos\/[^"]+)"/g)].map(([, path]) => path!);
    expect(named.length).toBeGreaterThan(0);
    for (const title of ['Another name', 'And another']) {
      await server.edit({ commands: [{ kind: 'words', photo: id, language: 'en', words: { title } }] });
      await ask(`${address}/index.html`);
    }
    const after = (await ask(`${address}/index.html`)).body;
    expect(named.every((path) => after.includes(path))).toBe(false);
    for (const path of named) expect((await ask(`${address}/${path}`)).statusCode).toBe(200);
    await server.step('undo');
    await server.step('undo');
  });
  test('the preview is the same page with the same files', async () => {
    const page = await ask(`/preview/${server.setId}/index.html`);
    expect(page.headers['content-type']).toContain('text/html');
    const [, path] = /src="(photos\/[^"]+)"/.exec(page.body)!;
    const picture = await ask(`/preview/${server.setId}/${path}`);
    expect(picture.headers['content-type']).toMatch(/^image\//);
    expect((await ask(`/preview/${server.setId}/photos/other.jpg`)).statusCode).toBe(404);
  });
});

describe('events', () => {
  test('tell of progress and of rows', async () => {
    await server.app.listen({ host: '127.0.0.1', port: 0 });
    const address = server.app.server.address();
    if (address === null || typeof address === 'string') throw new Error('no port');
    const heard: SetEvent[] = [];
    const rows = new Promise<void>((resolve, reject) => {
      const request = get(`http://127.0.0.1:${address.port}/api/events?sets=${server.setId}`, (response) => {
        response.on('data', (chunk: Buffer) => {
          for (const line of chunk.toString().split('\n'))
            if (line.startsWith('data: ')) heard.push(JSON.parse(line.slice(6)) as SetEvent);
          if (heard.length === 1) {
            server
              .edit({
                label: 'x',
                commands: [{ kind: 'words', photo: id, language: 'en', words: { title: 'Heard' } }],
              })
              .catch(reject);
          }
          if (heard.some((event) => event.type === 'photos' && event.changed.length > 0)) {
            request.destroy();
            resolve();
          }
        });
      });
      request.on('error', () => resolve());
    });
    await rows;
    expect(heard[0]).toMatchObject({ type: 'preparation', preparation: { failed: 0 } });
    const told = heard.find((event) => event.type === 'photos' && event.changed.length > 0);
    expect(told).toMatchObject({ changed: [[id, (await server.state()).rows[0]!.version]] });
  });
});

describe('sets', () => {
  test('begin empty under a name, and need one', async () => {
    const sites = (await ask('/api/sites')).json<
      { id: number; sets: { name: string; photos: number }[] }[]
    >();
    const post = (name: string) =>
      server.app.inject({ method: 'POST', url: `/api/sites/${sites[0]!.id}/sets`, payload: { name } });
    expect((await post('  ')).statusCode).toBe(400);
    const made = await post('Shop, winter glazes');
    expect(made.statusCode).toBe(201);
    const state = (await ask(`/api/sets/${made.json<{ id: number }>().id}`)).json<object>();
    expect(state).toMatchObject({
      counts: { filters: { all: 0 }, binned: 0 },
      set: { name: 'Shop, winter glazes', slots: [], page: null },
    });
  });
  test('a refusal can be put away', async () => {
    await server.add('note.jpg', Buffer.from('hello'));
    const { refusals } = await server.state();
    const url = `/api/sets/${server.setId}/refusals/${refusals[0]!.id}`;
    expect((await server.app.inject({ method: 'DELETE', url })).json()).toEqual([]);
  });
});
