// Three windows at random work on two sets that share photos: edits, undo, arrivals, broken lines. In the end every
// window shows what the database holds. The same seed brings the same choices; SOAK_STEPS makes it longer.
import sharp from 'sharp';
import { chance } from '../packages/core/src/chance/index.ts';
import type { SentPhoto } from '../packages/core/src/contract/index.ts';
import { positionBetween, type Command } from '../packages/core/src/edits/index.ts';
import { expect, openFirst, test } from './application.ts';
import { SoakClient } from './soak-client.ts';

const STEPS = Number(process.env.SOAK_STEPS ?? 180);
const SEED = Number(process.env.SOAK_SEED ?? 8);
const MOST_ARRIVALS = 40;

const picture = (n: number) =>
  sharp({ create: { width: 200 + n, height: 150, channels: 3, background: { r: n % 256, g: 90, b: 60 } } })
    .jpeg()
    .toBuffer();

/** What is decided on a photo, and at which version: what all must agree on. */
const decided = ({
  id,
  version,
  frame,
  words,
  quality,
  placements,
  position,
  binned,
  sameAs,
  speaking,
}: SentPhoto) => ({
  id,
  version,
  frame,
  words,
  quality,
  placements,
  position,
  binned,
  sameAs: [...sameAs].sort(),
  speaking,
});

test('random edits, undos, arrivals and broken lines end in one state', async ({ server }) => {
  test.setTimeout(1_500_000);
  const { pick, whole, next } = chance(SEED);
  const { address } = server;
  const post = async (path: string, body: object) =>
    (
      (await (
        await fetch(`${address}${path}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).json()) as { id: number }
    ).id;
  const site = await post('/api/sites', { name: 'Soak' });
  const sets = [
    await post(`/api/sites/${site}/sets`, { name: 'A' }),
    await post(`/api/sites/${site}/sets`, { name: 'B' }),
  ];
  for (const set of sets) await openFirst(address, set);
  const upload = async (setId: number, n: number) => {
    const body = new Uint8Array(await picture(n));
    await fetch(`${address}/api/sets/${setId}/files?name=photo-${n}.jpg`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body,
    });
  };
  // Both sets begin with the same photos.
  for (let n = 0; n < 6; n++) for (const setId of sets) await upload(setId, n);
  const clients = [
    new SoakClient(address, sets[0]!, 'window-one', () => next() < 0.5),
    new SoakClient(address, sets[0]!, 'window-two', () => next() < 0.5),
    new SoakClient(address, sets[1]!, 'window-three', () => next() < 0.5),
  ];
  for (const client of clients) await client.open();

  const commandFor = (client: SoakClient): Command => {
    const photo = pick(client.photos);
    const others = client.photos.map(({ position }) => position).sort();
    const gap = whole(0, others.length);
    switch (whole(0, 6)) {
      case 0:
        return {
          kind: 'words',
          photo: photo.id,
          language: 'en',
          words: { alt: pick(['Bay', 'Kiln', `Alt ${whole(0, 9)}`]) },
        };
      case 1:
        return {
          kind: 'words',
          photo: photo.id,
          language: 'en',
          words: { title: pick(['', 'Bowl', 'Jar']) },
        };
      case 2:
        return { kind: 'focal', photo: photo.id, focal: { x: next(), y: next(), confirmed: true } };
      case 3:
        return { kind: 'bin', photo: photo.id, binned: next() < 0.4 };
      case 4:
        return {
          kind: 'position',
          photo: photo.id,
          position: positionBetween(others[gap - 1] ?? null, others[gap] ?? null),
        };
      case 5:
        return {
          kind: 'placements',
          photo: photo.id,
          placements:
            next() < 0.5 ? null : [{ slot: pick(['grid', 'viewer']), link: '', words: {}, crops: {} }],
        };
      default:
        return { kind: 'set', change: { name: `Name ${whole(0, 9)}` } };
    }
  };

  let arrivals = 0;
  for (let step = 0; step < STEPS; step++) {
    const client = pick(clients);
    const way = next();
    if (way < 0.72) void client.edit('a random edit', [commandFor(client)]);
    else if (way < 0.84) await client.step(next() < 0.7 ? 'undo' : 'redo');
    else if (way < 0.9 && arrivals < MOST_ARRIVALS) await upload(client.setId, 20 + (arrivals += 1));
    else if (way < 0.96) {
      await client.breakOff();
      for (let n = 0; n < 3; n++) await pick(clients).step('undo');
      await client.listen();
    } else await Promise.all(clients.map((one) => one.saved()));
  }
  // Conflicts that are insisted on may meet again.
  for (let round = 0; round < 10; round++) for (const client of clients) await client.saved();

  /** Where a window shows something else than the database holds. */
  const differences = async (client: SoakClient): Promise<string[]> => {
    const { rows, set } = await server.state(client.setId);
    const known = new Map(client.photos.map((photo) => [photo.id, photo]));
    const found = rows.flatMap((row) => {
      const [there, here] = [decided(row), known.get(row.id)];
      const shown = here && decided(here);
      const parts = (Object.keys(there) as (keyof typeof there)[]).filter(
        (part) => JSON.stringify(there[part]) !== JSON.stringify(shown?.[part]),
      );
      return parts.map(
        (part) =>
          `${client.name}, photo ${row.id}, ${part}: ${JSON.stringify(shown?.[part])} for ${JSON.stringify(there[part])}`,
      );
    });
    if (JSON.stringify(set) !== JSON.stringify(client.header.set)) found.push(`${client.name}: the set`);
    if (rows.length !== known.size) found.push(`${client.name}: ${known.size} photos for ${rows.length}`);
    return found;
  };
  for (const client of clients) await expect.poll(() => differences(client), { timeout: 30_000 }).toEqual([]);
  const counts = clients.map((client) => client.counts);
  const sum = (part: keyof (typeof counts)[number]) => counts.reduce((all, one) => all + one[part], 0);
  console.log(`soak of ${STEPS} steps, seed ${SEED}: ${JSON.stringify(counts)}`);
  expect(sum('refused')).toBe(0);
  expect(sum('answered')).toBeGreaterThan(STEPS / 4);
  expect(sum('undone')).toBeGreaterThan(0);
  for (const client of clients) await client.close();
});
