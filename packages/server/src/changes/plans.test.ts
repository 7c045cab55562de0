// Words from tables through the server: hostile tables, plans that wait, and nothing that is overwritten.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { WordsPreview } from '@dusky-otter/core/contract';
import { readWordsFile } from '@dusky-otter/core/words';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let id: number;
beforeAll(async () => {
  server = await testServer();
  const result = await server.add('Bay.jpg', await photoWithSquare(300, 200, { x: 0.5, y: 0.5 }));
  if (result.kind !== 'new') throw new Error(result.kind);
  id = result.photo.id;
});
afterAll(() => server.close());

const send = (method: 'POST' | 'GET' | 'DELETE', route: string, payload?: object) =>
  server.app.inject({ method, url: `/api/sets/${server.setId}/${route}`, ...(payload && { payload }) });
const preview = async (text: string): Promise<WordsPreview> => (await send('POST', 'words', { text })).json();
const words = (change: object) =>
  server.edit({ commands: [{ kind: 'words', photo: id, language: 'en', words: change } as never] });

describe('a table', () => {
  test('says what it would change, and changes nothing', async () => {
    await words({ alt: 'Mine', role: 'informative' });
    const text = 'file,role,alt,caption,place\nBAY.JPG,informs,Theirs,A caption,grid; moon\nnew.jpg,,x,,\n';
    expect(await preview(text)).toMatchObject({
      problem: null,
      lines: 2,
      alike: 0,
      changes: [
        {
          photo: { id, words: { alt: 'Mine' } },
          added: { caption: 'A caption' },
          conflicts: { alt: 'Theirs' },
          slots: ['grid'],
          unknownPlaces: ['moon'],
        },
      ],
      waiting: { count: 1, names: ['new.jpg'] },
    });
    expect((await server.state()).rows[0]!.words).toMatchObject({ alt: 'Mine', caption: '' });
  });
  test.each([
    ['no text', {}],
    ['a number', { text: 1 }],
    ['more than can be read', { text: 'a'.repeat(4_000_001) }],
  ])('with %s is refused', async (_, payload) =>
    expect((await send('POST', 'words', payload)).statusCode).toBe(400),
  );
  test.each([
    '\u0000\u0001',
    '"',
    'file\n"',
    `file,alt\n${','.repeat(10_000)}`,
    `file,__proto__,constructor\na,b,c`,
  ])('%j is read without harm', async (text) =>
    expect((await send('POST', 'words', { text })).statusCode).toBe(200),
  );
  test('goes out with what is said, and says then that nothing is new', async () => {
    await words({ alt: '=1+1 “größer” 🏺', caption: 'a,"b"\nc', link: '/shop', newWindow: true });
    const csv = (await send('GET', 'words.csv')).body;
    expect(readWordsFile(csv).lines[0]).toMatchObject({
      fileName: 'Bay.jpg',
      words: { alt: '=1+1 “größer” 🏺', link: '/shop', newWindow: true },
    });
    expect(
      (await preview(csv)).changes.every(
        ({ added, conflicts }) => !Object.keys({ ...added, ...conflicts }).length,
      ),
    ).toBe(true);
  });
});

describe('a table in another of the site’s languages', () => {
  const change = (languages: string[]) =>
    server.edit({ commands: [{ kind: 'site', change: { languages } }] });
  afterAll(() => change(['en']));
  test('speaks of the words in it, and of nothing that hangs on no language', async () => {
    await change(['en', 'de']);
    await words({ role: 'functional', alt: 'Mine', link: '/shop' });
    const german = async (text: string) =>
      (await send('POST', 'words', { text, language: 'de' })).json<WordsPreview>();
    const table = 'file,role,alt,place,new window\nBay.jpg,decorative,Die Bucht,grid,yes\n';
    expect((await german(table)).changes).toMatchObject([
      { added: { alt: 'Die Bucht' }, conflicts: {}, slots: null, unknownPlaces: [] },
    ]);
    const put = { kind: 'words', photo: id, language: 'de', words: { alt: 'Das Ufer' } } as const;
    await server.edit({ commands: [put] });
    expect((await german(table)).changes).toMatchObject([{ added: {}, conflicts: { alt: 'Die Bucht' } }]);
    expect((await german('file,role\nBay.jpg,text\n')).changes).toEqual([]);
    const csv = readWordsFile((await send('GET', 'words.csv?language=de')).body);
    expect(csv.lines.find(({ fileName }) => fileName === 'Bay.jpg')!.words).toMatchObject({
      role: 'functional',
      alt: 'Das Ufer',
    });
  });
  test.each(['fr', '', '../x'])('%j is refused where the site has it not', async (language) => {
    expect((await send('POST', 'words', { text: 'file\na', language })).statusCode).toBe(400);
    const query = new URLSearchParams({ language });
    expect((await send('GET', `words.csv?${query}`)).statusCode).toBe(400);
  });
});

describe('a plan', () => {
  test('waits for its file, and goes before what the file says of itself', async () => {
    const text = 'file,role,alt,place\nlate.jpg,decorative,,grid\nnever.jpg,,x,\nBay.jpg,,y,\n';
    expect((await send('POST', 'plan', { text })).json()).toEqual({ kept: 2 });
    // The same once more replaces what waits.
    expect((await send('POST', 'plan', { text })).json()).toEqual({ kept: 2 });
    expect((await send('GET', 'plan')).json()).toEqual({ count: 2, names: ['late.jpg', 'never.jpg'] });
    const result = await server.add('LATE.jpg', await photoWithSquare(310, 200, { x: 0.4, y: 0.5 }));
    expect(result).toMatchObject({
      kind: 'new',
      photo: { words: { role: 'decorative' }, placements: [{ slot: 'grid' }] },
    });
    expect((await send('GET', 'plan')).json()).toEqual({ count: 1, names: ['never.jpg'] });
    expect((await send('DELETE', 'plan')).json()).toEqual({ gone: 1 });
  });
});

describe('notes and links', () => {
  test.each([
    { kept: { 'too-long': 1 } },
    { kept: { moon: 'x' } },
    { kept: { 'too-long': 'x'.repeat(501) } },
    { kept: [] },
    { kept: 'x' },
    { newWindow: 'yes' },
    { link: 7 },
  ])('%j are refused', async (change) => expect((await words(change)).status).toBe(400));
  test('a link that would run something is refused with a sentence', async () => {
    const answer = await words({ link: 'javascript:alert(1)' });
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain('javascript:');
  });
});

describe('sets that share a photo', () => {
  test('are named, this one apart; strangers are none', async () => {
    expect((await send('GET', `photos/${id}/sets`)).json()).toEqual([]);
    const other = await server.newSet('Shop, winter glazes');
    await server.add('Bay.jpg', await photoWithSquare(300, 200, { x: 0.5, y: 0.5 }), other);
    expect((await send('GET', `photos/${id}/sets`)).json()).toEqual([
      { id: other, name: 'Shop, winter glazes' },
    ]);
    expect((await send('GET', 'photos/99999/sets')).statusCode).toBe(404);
    expect((await send('GET', 'photos/x/sets')).statusCode).toBe(404);
  });
});
