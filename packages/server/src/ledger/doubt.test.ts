// Guessed crops in doubt: found when a photo is taken in, and gone through from the most doubtful on.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

test('the next doubtful crop is the most doubtful of those that are left', async () => {
  await server.edit({ commands: [{ kind: 'set', change: { slots: ['grid'] } }] });
  const ids: number[] = [];
  // Wide pictures: a square crop at the guess keeps what is near the middle, and cuts what lies at the edge.
  for (const x of [0.5, 0.06, 0.2]) {
    const result = await server.add(`at ${x}.jpg`, await photoWithSquare(1800, 600, { x, y: 0.5 }));
    if (result.kind === 'new') ids.push(result.photo.id);
  }
  const { rows } = await server.state();
  expect(rows.map(({ original }) => original.attention.extent)).toEqual(
    rows.map(() => ({
      left: expect.any(Number),
      top: expect.any(Number),
      right: expect.any(Number),
      bottom: expect.any(Number),
    })),
  );
  const ask = async (after?: number) => {
    const more = after === undefined ? '' : `&after=${after}`;
    const url = `/api/sets/${server.setId}/next?filter=crop&open=frame&by=doubt${more}`;
    return (await server.app.inject(url)).json<{ id: number } | null>()?.id;
  };
  const walk = [await ask()];
  while (walk.length < 3) walk.push(await ask(walk.at(-1)));
  expect([...walk].sort()).toEqual([...ids].sort());
  // Round again.
  expect(await ask(walk[2])).toBe(walk[0]);
  const ledger = await server.parts.ledgers.get(server.setId);
  const doubts = walk.map((id) => ledger.standing(id!)!.doubt);
  expect(doubts).toEqual([...doubts].sort((a, b) => b - a));
  // Whoever confirms goes on with the most doubtful that is left.
  const focal = { x: 0.5, y: 0.5, confirmed: true };
  await server.edit({ commands: [{ kind: 'focal', photo: walk[0]!, focal }] });
  expect(await ask(walk[0])).toBe(walk[1]);
  expect(
    (await server.app.inject(`/api/sets/${server.setId}/next?filter=crop&open=frame&by=age`)).statusCode,
  ).toBe(400);
});
