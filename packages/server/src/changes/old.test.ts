// Old edits go, with what they touched; what can still be taken back stays.
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { EditModel, TouchModel } from '../database/models.ts';
import { testServer, type TestServer } from '../testing/server.ts';
import { forgetOldEdits } from './old.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.close());

const DAY = 24 * 3600 * 1000;
const after = (days: number) => new Date(Date.now() + days * DAY);

test('edits beyond the newest go once they are old, and undo goes on from there', async () => {
  for (let n = 0; n < 8; n++)
    await server.edit({ label: `name ${n}`, commands: [{ kind: 'set', change: { name: `Set ${n}` } }] });
  expect(await forgetOldEdits(after(10), 5, 30 * DAY)).toBe(0);
  expect(await forgetOldEdits(after(40), 20, 30 * DAY)).toBe(0);
  expect(await forgetOldEdits(after(40), 5, 30 * DAY)).toBe(3);
  const left = await EditModel.findAll({ where: { setId: server.setId }, order: [['id', 'ASC']] });
  expect(left.map(({ label }) => label)).toEqual([3, 4, 5, 6, 7].map((n) => `name ${n}`));
  const touched = new Set((await TouchModel.findAll()).map(({ editId }) => editId));
  expect([...touched].sort()).toEqual(left.map(({ id }) => id).sort());
  for (let n = 0; n < 5; n++) expect((await server.step('undo')).status).toBe(200);
  expect((await server.state()).set.name).toBe('Set 2');
  expect((await server.step('undo')).body.code).toBe('nothing-to-undo');
});
