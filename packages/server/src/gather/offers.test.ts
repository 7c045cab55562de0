// Another original takes a photo's place: offered, put there, taken back; and what nobody may put there.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Offer, TakeInResult } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { frameReplaced } from '@dusky-otter/core/geometry';
import { EarlierOriginalModel, OfferModel, OriginalModel, PhotoModel } from '../database/models.ts';
import { photoWithSquare, testServer, type TestServer, type WholeRow } from '../testing/server.ts';

let server: TestServer;
let id: number;
let count = 0;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.begin();
  id = await added('bay.jpg', 600, 400);
});

/** A picture that nobody had before. */
const picture = (width: number, height: number) =>
  photoWithSquare(width, height, { x: 0.1 + (++count % 80) / 100, y: 0.5 });
async function added(name: string, width: number, height: number, setId?: number): Promise<number> {
  const result = await server.add(name, await picture(width, height), setId);
  if (result.kind !== 'new') throw new Error(result.kind);
  return result.photo.id;
}
async function offered(name: string, width: number, height: number): Promise<Offer> {
  const result = await server.add(name, await picture(width, height));
  if (result.kind !== 'offered') throw new Error(result.kind);
  return result.offer;
}
const sent = (bytes: Buffer, photo: number | string) =>
  server.app.inject({
    method: 'POST',
    url: `/api/sets/${server.setId}/files?name=other.jpg&for=${photo}`,
    headers: { 'content-type': 'application/octet-stream' },
    payload: bytes,
  });
const row = async (photo = id): Promise<WholeRow> =>
  (await server.state()).rows.find((one) => one.id === photo)!;
const offers = async () => (await server.state()).offers;
async function replace(offer: Offer, photo = id) {
  const { frame } = frameReplaced(await row(photo), offer.original);
  const command: Command = {
    kind: 'original',
    photo,
    original: offer.original.hash,
    fileName: offer.fileName,
    frame,
    toRead: true,
  };
  return server.edit({ label: 'replaced', commands: [command] });
}
const say = (alt: string) =>
  server.edit({ commands: [{ kind: 'words', photo: id, language: 'en', words: { alt } }] });

describe('a file of a name that is there', () => {
  test('is offered, not added, and the offer outlives a restart', async () => {
    const offer = await offered('bay.jpg', 900, 600);
    expect(offer).toMatchObject({ photo: id, fileName: 'bay.jpg', original: { width: 900 } });
    const { rows } = await server.state();
    expect(rows).toHaveLength(1);
    expect(rows[0]!.original.width).toBe(600);
    expect(await offers()).toEqual([offer]);
  });
  test('sent twice is offered once; the very same file is no other', async () => {
    const bytes = await picture(900, 600);
    const results = [await server.add('bay.jpg', bytes), await server.add('bay.jpg', bytes)];
    expect(results.map(({ kind }) => kind)).toEqual(['offered', 'offered']);
    expect(await offers()).toHaveLength(1);
  });
  test('is new where that photo lies in the bin, stands in another set, or has another case', async () => {
    expect((await server.add('BAY.jpg', await picture(300, 200))).kind).toBe('new');
    const other = await server.newSet('Other');
    expect((await server.add('bay.jpg', await picture(300, 200), other)).kind).toBe('new');
    await server.edit({ commands: [{ kind: 'bin', photo: id, binned: true }] });
    expect((await server.add('bay.jpg', await picture(300, 200))).kind).toBe('new');
  });
  test('is added beside it, or put away with its original', async () => {
    const first = await offered('bay.jpg', 900, 600);
    const url = `/api/sets/${server.setId}/offers`;
    const beside = await server.app.inject({ method: 'POST', url: `${url}/${first.id}/photo` });
    expect(beside.json<TakeInResult>()).toMatchObject({ kind: 'new', photo: { fileName: 'bay.jpg' } });
    expect((await server.state()).rows.map(({ original }) => original.width)).toEqual([600, 900]);
    expect((await server.app.inject({ method: 'POST', url: `${url}/${first.id}/photo` })).statusCode).toBe(
      404,
    );
    const second = await offered('bay.jpg', 1200, 800);
    const { hash } = second.original;
    expect(await server.parts.vault.has(server.parts.vault.original(hash))).toBe(true);
    const left = await server.app.inject({ method: 'DELETE', url: `${url}/${second.id}` });
    expect(left.json()).toEqual([]);
    expect(await OriginalModel.findByPk(hash)).toBeNull();
    expect(await server.parts.vault.has(server.parts.vault.original(hash))).toBe(false);
    // The one beside it has its own.
    expect(await OriginalModel.findByPk(first.original.hash)).not.toBeNull();
  });
});

describe('a replacement', () => {
  test('keeps words, places, order and crops; the words are to be read again', async () => {
    const next = await added('next.jpg', 500, 500);
    await say('Still bay');
    await server.edit({
      commands: [
        { kind: 'crop', photo: id, shape: '1:1', crop: { x: 60, y: 40, width: 200, height: 200 } },
        { kind: 'placements', photo: id, placements: [{ slot: 'grid', link: '/bay', words: {}, crops: {} }] },
      ],
    });
    const before = await row();
    const offer = await offered('bay.jpg', 900, 600);
    expect((await replace(offer)).status).toBe(200);
    const after = await row();
    expect(after).toMatchObject({
      words: before.words,
      placements: before.placements,
      position: before.position,
      toRead: true,
      original: { hash: offer.original.hash },
      frame: { crops: { '1:1': { x: 90, y: 60, width: 300, height: 300 } }, focal: { confirmed: false } },
    });
    expect((await server.state()).rows.map((one) => one.id)).toEqual([id, next]);
    expect(await offers()).toEqual([]);
    // Its files are made of the new picture.
    await server.prepared();
    expect((await row()).variants.every(({ bytes }) => bytes !== null)).toBe(true);
    expect((await row()).variants.map(({ key }) => key)).not.toEqual(before.variants.map(({ key }) => key));
    await say('Bay in the morning');
    expect((await row()).toRead).toBe(false);
  });
  test('is taken back and done again, each with its own frame', async () => {
    const before = await row();
    const offer = await offered('bay.jpg', 400, 600);
    await replace(offer);
    const after = await row();
    expect(after.frame).not.toEqual(before.frame);
    expect((await server.step('undo')).status).toBe(200);
    expect(await row()).toMatchObject({ original: before.original, frame: before.frame, toRead: false });
    expect((await server.step('redo')).status).toBe(200);
    expect(await row()).toMatchObject({ original: after.original, frame: after.frame, toRead: true });
    await server.step('undo');
    // The old original was there all the time, byte for byte.
    expect(await server.parts.vault.hasWhole(before.original.hash)).toBe(true);
  });
  test('of a photo that is sent for it takes its new name', async () => {
    const response = await sent(await picture(300, 200), id);
    const result = response.json<TakeInResult>();
    if (result.kind !== 'offered') throw new Error(result.kind);
    expect(result.offer).toMatchObject({ photo: id, fileName: 'other.jpg' });
    await replace(result.offer);
    expect((await row()).fileName).toBe('other.jpg');
    await server.step('undo');
    expect((await row()).fileName).toBe('bay.jpg');
  });
  test('goes for good with its photo, the originals before it too', async () => {
    const old = (await row()).original.hash;
    const offer = await offered('bay.jpg', 900, 600);
    await replace(offer);
    const open = await offered('bay.jpg', 1200, 800);
    await server.edit({ commands: [{ kind: 'bin', photo: id, binned: true }] });
    await server.app.inject({ method: 'DELETE', url: `/api/sets/${server.setId}/bin` });
    for (const hash of [old, offer.original.hash, open.original.hash]) {
      expect(await OriginalModel.findByPk(hash)).toBeNull();
      expect(await server.parts.vault.has(server.parts.vault.original(hash))).toBe(false);
    }
    expect(await OfferModel.count({ where: { photoId: id } })).toBe(0);
    expect(await EarlierOriginalModel.count({ where: { photoId: id } })).toBe(0);
  });
});

describe('what can’t take its place', () => {
  test('a file that the site has, whoever has it', async () => {
    const bytes = await picture(320, 200);
    await server.add('second.jpg', bytes);
    const response = await sent(bytes, id);
    expect(response.statusCode).toBe(422);
    expect(response.json()).toMatchObject({
      detail: 'This picture stands in the site already, as “second.jpg”.',
    });
    const offer = await offered('bay.jpg', 900, 600);
    // Added in another set in between.
    const other = await server.newSet('Other');
    const beside = await PhotoModel.create({
      siteId: (await PhotoModel.findByPk(id))!.siteId,
      originalHash: offer.original.hash,
      fileName: 'third.jpg',
      frame: (await row()).frame,
      quality: {},
      version: 1,
    });
    const { status, body } = await replace(offer);
    expect([status, body.detail]).toEqual([422, 'This picture stands in the site already, as “third.jpg”.']);
    expect((await row()).original.width).toBe(600);
    await beside.destroy();
    expect(other).toBeGreaterThan(0);
  });
  test('an original that was never offered for it, though the house has it', async () => {
    const second = await added('second.jpg', 700, 500);
    const { original } = await row(second);
    const { status, body } = await replace({ id: 1, photo: id, fileName: 'x.jpg', original });
    expect([status, body.detail]).toEqual([422, expect.stringMatching(/was not offered/)]);
  });
  test('a frame that does not fit it', async () => {
    const offer = await offered('bay.jpg', 90, 60);
    const frame = (await row()).frame;
    const crops = { '1:1': { x: 0, y: 0, width: 400, height: 400 } } as const;
    const command = {
      kind: 'original',
      photo: id,
      original: offer.original.hash,
      fileName: 'a',
      toRead: true,
    } as const;
    const { status } = await server.edit({ commands: [{ ...command, frame: { ...frame, crops } }] });
    expect(status).toBe(422);
    for (const wrong of [
      { original: 'x' },
      { fileName: '' },
      { toRead: null },
      { frame: null },
      { original: '0'.repeat(64) },
    ])
      expect(
        (await server.edit({ commands: [{ ...command, frame, ...wrong } as unknown as Command] })).status,
      ).toBeGreaterThanOrEqual(400);
    expect((await row()).original.width).toBe(600);
  });
  test.each(['0', 'x', '99999999', '1&for=2'])(
    'a file for the photo %s, that is none of the set',
    async (photo) => {
      const response = await sent(await picture(300, 200), photo);
      expect([400, 404]).toContain(response.statusCode);
      expect(await offers()).toEqual([]);
    },
  );
  test('nor is an offer somebody else’s set’s', async () => {
    const offer = await offered('bay.jpg', 900, 600);
    const other = await server.newSet('Other');
    for (const [method, end] of [
      ['DELETE', ''],
      ['POST', '/photo'],
    ] as const)
      await server.app.inject({ method, url: `/api/sets/${other}/offers/${offer.id}${end}` });
    expect(await offers()).toEqual([offer]);
    for (const end of ['x', '-1', '1e9'])
      expect(
        (await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/offers/${end}/photo` }))
          .statusCode,
      ).toBe(404);
  });
});
