// Arrangements through the server: kept as places with what they are made of, tried without being kept, handed over with
// what they need; hostile options are refused.
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { optionsFor, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { Arrangement, ArrangementOptions } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { unzipSync } from 'fflate';
import { photoWithSquare, testServer, type TestServer } from '../testing/server.ts';

const CONTAINER = [
  { from: 0, vw: 1, px: -32 },
  { from: 1172, vw: 0, px: 1140 },
];
const arrangementOf = (options: ArrangementOptions, title = 'Pots from this firing'): Arrangement => ({
  shortName: 'pots',
  title,
  options,
  container: CONTAINER,
});
const commandsFor = (arrangement: Arrangement): Command[] => {
  const { cell, large } = slotsOfArrangement(arrangement);
  return [
    { kind: 'slot', slot: cell.id, value: cell },
    ...(large ? [{ kind: 'slot', slot: large.id, value: large } as const] : []),
  ];
};

let server: TestServer;
const put = (arrangement: Arrangement) => server.edit({ commands: commandsFor(arrangement) });
beforeAll(async () => {
  server = await testServer();
  for (const [n, x] of [0.3, 0.6, 0.5].entries())
    await server.add(`${n}.jpg`, await photoWithSquare(500 + n, 340, { x, y: 0.5 }));
  expect((await put(arrangementOf(optionsFor('grid')))).status).toBe(200);
  await server.edit({ commands: [{ kind: 'set', change: { slots: ['pots'] } }] });
  await server.prepared();
});
afterAll(() => server.close());

const proof = (query: Record<string, string> = {}, slot = 'pots') =>
  server.app.inject(`/proofs/${server.setId}/${slot}?${new URLSearchParams(query)}`);
const tryOut = (payload: object) =>
  server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/proofs`, payload });
/** The proof with options that are tried, or the answer that refuses them. */
const as = async (options: unknown, more: object = {}) => {
  const answer = await tryOut({ options, container: CONTAINER, ...more });
  return answer.statusCode === 200 ? proof({ tried: answer.json<{ tried: string }>().tried }) : answer;
};

describe('an arrangement', () => {
  test('has its files and those of its large pictures made, and is handed over with what it needs', async () => {
    const { rows } = await server.state();
    for (const row of rows)
      expect(new Set(row.variants.map(({ slot }) => slot))).toEqual(new Set(['pots', 'pots-large']));
    const zip = unzipSync(
      new Uint8Array((await server.app.inject(`/api/sets/${server.setId}/hand-over.zip`)).rawPayload),
    );
    const text = (name: string) => new TextDecoder().decode(zip[name]);
    const page = text('index.html');
    expect(page).toContain('<h2>Pots from this firing</h2>');
    expect(page).toContain('<script src="script.js" defer></script>');
    expect(text('script.js')).toContain('data-dusky-');
    expect(text('styles.css')).toContain('.dusky-set.dusky-a-pots .dusky-cells { --dusky-columns: 2; }');
    // What is not used is not there.
    expect(text('styles.css')).not.toContain('dusky-slides');
    // Every file that the page names is in the ZIP.
    const named = [...page.matchAll(/photos\/[\w.-]+/g)].map(([path]) => path);
    expect(named.length).toBeGreaterThan(20);
    for (const path of named) expect(Object.keys(zip)).toContain(path);
    const markup = (
      await server.app.inject({ method: 'POST', url: `/api/sets/${server.setId}/markup?slot=pots` })
    ).payload;
    expect(markup).toMatch(/^<section id="dusky-pots" class="dusky-set dusky-grid dusky-a-pots"/);
    const beside = async (kind: string) => server.app.inject(`/api/sets/${server.setId}/beside/${kind}`);
    expect(text('styles.css')).toContain((await beside('styles')).payload);
    expect((await beside('script')).payload).toBe(text('script.js'));
    expect((await beside('moon')).statusCode).toBe(404);
  });

  test('is tried as another kind with sketches, and nothing of it is kept', async () => {
    const kept = async () => {
      const { site, edits, preparation } = await server.state();
      return { slots: site.slots, undo: edits.undo, wanted: preparation.wanted };
    };
    const before = await kept();
    for (const kind of ['rows', 'strip', 'rotating', 'feed', 'zoom', 'cover', 'figure'] as const) {
      const response = await as(optionsFor(kind));
      expect(response.statusCode).toBe(200);
      expect(response.payload).toContain(`class="dusky-set dusky-${kind} `);
    }
    // No file of that shape is made: a view is cut as the crop will be.
    const tall = (await as({ ...optionsFor('grid'), shape: '1:3' })).payload;
    expect(tall).toMatch(
      /<img src="\/files\/views\/[^>]*aspect-ratio: \d+ \/ \d+; object-position: [\d.]+% 50%/,
    );
    expect(await kept()).toEqual(before);
    expect((await proof()).payload).not.toContain('/files/views/');
    for (const [, script] of (await as(optionsFor('zoom'))).payload.matchAll(/<script src="([^"]+)"/g))
      expect((await server.app.inject(script!)).headers['content-type']).toContain('javascript');
  });

  test('keeps its name when its title is another, and can be taken back', async () => {
    expect((await put(arrangementOf(optionsFor('rows'), 'Töpfe & <b>Krüge</b>'))).status).toBe(200);
    const page = (await proof()).payload;
    expect(page).toContain('aria-label="Töpfe &amp; &lt;b&gt;Krüge&lt;/b&gt;"');
    expect(page).toContain('dusky-a-pots');
    await server.step('undo');
    expect((await proof()).payload).toContain('aria-label="Pots from this firing"');
  });
});

describe('hostile arrangements', () => {
  test.each([
    { kind: 'moon' },
    { kind: 'grid', perPage: 0 },
    { kind: 'feed', between: 'all' },
    { kind: 'index', galleries: [{ photo: 1, set: 'x', text: '' }] },
    { ...optionsFor('grid'), columns: [{ from: '0', count: 2 }] },
    { ...optionsFor('grid'), columns: [null] },
    { ...optionsFor('grid'), shape: '3:2"><script>' },
    { ...optionsFor('strip'), onclick: 'alert(1)' },
    { ...optionsFor('rotating'), seconds: 0.01 },
    { kind: 'constructor' },
    { kind: '__proto__' },
    { ...optionsFor('grid'), constructor: 1 },
    'grid',
    null,
    [],
  ])('%j are refused, tried or kept', async (options) => {
    expect((await as(options)).statusCode).toBeGreaterThanOrEqual(400);
    const { cell } = slotsOfArrangement(arrangementOf(optionsFor('grid')));
    const value = { ...cell, arranged: { options, container: CONTAINER } } as never;
    const { status } = await server.edit({ commands: [{ kind: 'slot', slot: 'pots', value }] });
    expect(status).toBeGreaterThanOrEqual(400);
    expect(status).toBeLessThan(500);
  });
  test('a place that says another width than its kind makes is refused', async () => {
    const { cell } = slotsOfArrangement(arrangementOf(optionsFor('grid')));
    const value = { ...cell, rule: [{ from: 0, vw: 0, px: 10 }] };
    const { status, body } = await server.edit({ commands: [{ kind: 'slot', slot: 'pots', value }] });
    expect([status, body.detail]).toEqual([
      422,
      'The place of an arrangement is as wide as its kind makes it.',
    ]);
  });
  test('what is no arrangement, or can’t be read, has no proof', async () => {
    expect((await proof({}, 'grid')).statusCode).toBe(404);
    expect((await proof({}, '..%2f..')).statusCode).toBe(404);
    expect((await tryOut({})).statusCode).toBe(400);
    expect((await proof({ tried: 'x'.repeat(5000) })).statusCode).toBe(400);
    const unknown = await proof({ tried: 'not-known' });
    expect([unknown.statusCode, unknown.json<{ detail: string }>().detail]).toEqual([
      404,
      'What was tried is not known any more; try it once more.',
    ]);
    expect((await server.app.inject('/preview/runtime/..%2f..%2fpackage.json')).statusCode).toBe(404);
  });
});
