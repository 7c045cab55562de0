// Files that come in under odd circumstances: names that only look equal, a full disk, long words, a name that went out.
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { readdir } from 'node:fs/promises';
import sharp from 'sharp';
import { unzipSync } from 'fflate';
import type { Command } from '@dusky-otter/core/edits';
import { LONGEST_TEXT } from '@dusky-otter/core/words';
import { MembershipModel } from '../database/models.ts';
import { publishedNames } from '../store/sets.ts';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeEach(async () => {
  server = await testServer();
});
afterEach(() => server.close());

const added = async (name: string, width = 600) => {
  const result = await server.add(name, await photoWithSquare(width, 400, { x: 0.5, y: 0.5 }));
  if (result.kind !== 'new') throw new Error(result.kind);
  return result.photo;
};
const edit = (commands: Command[]) => server.edit({ commands });
/** Hands the set over, and says what its photos are called in it. */
const zipNames = async () => {
  const set = `/api/sets/${server.setId}/hand-over`;
  expect((await server.app.inject({ method: 'POST', url: `${set}/publish` })).statusCode).toBe(204);
  const response = await server.app.inject(`${set}.zip`);
  const paths = Object.keys(unzipSync(new Uint8Array(response.rawPayload)));
  return [
    ...new Set(
      paths
        .filter((path) => path.startsWith('photos/'))
        .map((path) => /^photos\/(.*)-(?:column|grid)-/.exec(path)![1]!),
    ),
  ].sort();
};

describe('names', () => {
  test('of refused files are compared byte by byte', async () => {
    for (const name of ['résumé.jpg', 'resume.jpg', 'Resume.jpg', 'resume.jpg '])
      await server.add(name, Buffer.from('no picture'));
    expect((await server.state()).refusals.map(({ fileName }) => fileName)).toEqual([
      'résumé.jpg',
      'resume.jpg',
      'Resume.jpg',
      'resume.jpg ',
    ]);
    await server.add('resume.jpg', Buffer.from('no picture'));
    expect((await server.state()).refusals).toHaveLength(4);
    const cleared = await server.app.inject({ method: 'DELETE', url: `/api/sets/${server.setId}/refusals` });
    expect([cleared.json(), (await server.state()).refusals]).toEqual([[], []]);
  });
  test('that went out stay with their photo when another joins from another set', async () => {
    const other = await server.newSet('Other');
    const elder = await added('elder.jpg', 700);
    await MembershipModel.update({ setId: other }, { where: { photoId: elder.id } });
    await server.parts.settle({ photos: [elder.id], left: [server.setId] });
    const young = await added('young.jpg');
    await edit([{ kind: 'words', photo: young.id, language: 'en', words: { title: 'Blue bowl' } }]);
    await server.prepared();
    expect(await zipNames()).toEqual(['blue-bowl']);
    expect((await server.state()).set.handedOver).toBe(true);
    expect(await publishedNames(server.setId)).toEqual({ 'blue-bowl': young.id });
    // The elder photo has the lower id, and is titled alike.
    await MembershipModel.create({
      setId: server.setId,
      photoId: elder.id,
      position: 'a0',
      follows: true,
      binned: false,
    });
    await server.parts.settle({ photos: [elder.id] });
    await edit([{ kind: 'words', photo: elder.id, language: 'en', words: { title: 'Blue bowl' } }]);
    await server.prepared();
    expect((await server.state()).set.handedOver).toBe(false);
    expect(await zipNames()).toEqual(['blue-bowl', 'blue-bowl-2']);
    expect(await publishedNames(server.setId)).toEqual({ 'blue-bowl': young.id, 'blue-bowl-2': elder.id });
  });
});

describe('a full disk', () => {
  const full = () => Object.assign(new Error('no space left on device'), { code: 'ENOSPC' });
  test('while a file is received is said as what it is, and leaves nothing', async () => {
    server.parts.vault.receive = () => Promise.reject(full());
    const response = await server.app.inject({
      method: 'POST',
      url: `/api/sets/${server.setId}/files?name=a.jpg`,
      headers: { 'content-type': 'application/octet-stream' },
      payload: Buffer.alloc(10),
    });
    expect([response.statusCode, response.json<{ code: string }>().code]).toEqual([507, 'disk-full']);
    expect(await readdir(server.parts.vault.incoming)).toEqual([]);
    expect((await server.state()).refusals).toEqual([]);
  });
  test('while it is put into the vault, too', async () => {
    server.parts.vault.keepOriginal = () => Promise.reject(full());
    const answer = (await server.add(
      'a.jpg',
      await photoWithSquare(300, 200, { x: 0.5, y: 0.5 }),
    )) as unknown as { code: string };
    expect(answer.code).toBe('disk-full');
    expect((await server.state()).rows).toEqual([]);
  });
});

describe('words in the file', () => {
  const withWords = async (title: string) =>
    sharp({ create: { width: 300, height: 200, channels: 3, background: '#456' } })
      .jpeg()
      .withXmp(
        `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/"><photoshop:Headline>${title}</photoshop:Headline></rdf:Description></rdf:RDF></x:xmpmeta>`,
      )
      .toBuffer();
  test('of any length come in cut, and the photo can be edited', async () => {
    const result = await server.add('long.jpg', await withWords('glaze '.repeat(8_000)));
    if (result.kind !== 'new') throw new Error(result.kind);
    expect(result.photo.words.title).toHaveLength(LONGEST_TEXT);
    expect(
      (await edit([{ kind: 'words', photo: result.photo.id, language: 'en', words: { alt: 'A bowl.' } }]))
        .status,
    ).toBe(200);
  });
  test('that once made a check wait for ever are judged at once', async () => {
    const alt = 'IMG_0412 wood kiln at dusk with split logs stacked beside it.';
    const row = await added('kiln.jpg');
    expect(
      (await edit([{ kind: 'words', photo: row.id, language: 'en', words: { alt, role: 'informative' } }]))
        .status,
    ).toBe(200);
    await server.prepared();
    const manifest = await server.app.inject(`/preview/${server.setId}/manifest.json`);
    const [photo] = manifest.json<{ photos: { concerns: { code: string }[] }[] }>().photos;
    expect(photo!.concerns.map(({ code }) => code)).toContain('file-name');
  });
});

describe('making versions', () => {
  test('a pause that is asked for before there is work holds, and work waits', async () => {
    const pause = (paused: boolean) =>
      server.app.inject({ method: 'PUT', url: `/api/sets/${server.setId}/preparation`, payload: { paused } });
    expect((await pause(true)).json()).toMatchObject({ paused: true });
    await added('a.jpg');
    await server.parts.preparer.reconcile(server.setId);
    const { preparation } = await server.state();
    expect(preparation).toMatchObject({ paused: true, made: 0 });
    expect(preparation.wanted).toBeGreaterThan(0);
    await pause(false);
    await server.prepared();
    expect((await server.state()).preparation).toMatchObject({ paused: false, made: preparation.wanted });
  });
  test('events of made files carry quality and difference', async () => {
    const heard: string[] = [];
    server.parts.hub.listen([server.setId], {
      send: (text) => Boolean(heard.push(text)),
      cut: () => undefined,
    });
    await added('a.jpg');
    await server.prepared();
    const made = heard
      .filter((text) => text.includes('"type":"made"'))
      .map((text) => JSON.parse(text.split('data: ')[1]!) as Record<string, unknown>);
    expect(made.length).toBeGreaterThan(0);
    for (const event of made) {
      const { key, quality, difference } = event;
      const variant = (await server.state()).rows[0]!.variants.find((v) => v.key === key)!;
      expect([quality, difference]).toEqual([variant.quality, variant.difference]);
      expect(difference).not.toBeNull();
    }
  });
});
