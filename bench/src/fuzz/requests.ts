// For tests and benchmarks: requests as nobody should send them, from a seed. Every one must be answered below 500.
import type { FastifyInstance, InjectOptions } from 'fastify';
import { chance, type Chance } from '@dusky-otter/core/chance';
import type { PhotoPage } from '@dusky-otter/core/contract';
import { SHIPPED_SLOTS } from '@dusky-otter/core/slots';

/** A request to the routes; its address is always text here. */
type FuzzedRequest = InjectOptions & { url: string };

/** Values that get into every place of a body. */
const ODD: unknown[] = [
  null,
  undefined,
  true,
  0,
  -1,
  1.5,
  1e308,
  4294967296,
  9007199254740992,
  '',
  'x',
  '0',
  '__proto__',
  'constructor',
  '\u0000',
  '\ud800',
  '😀'.repeat(200),
  'a'.repeat(100_000),
  [],
  [null],
  [[]],
  Array.from({ length: 6000 }, () => 1),
  {},
  { __proto__: null, toString: 1 },
  { length: 5 },
  { 1: 'x', 2: null },
  { photo: 1 },
];

/** A body that is right, for every way in. `photo` and `set` are ids that exist. */
function rightRequests(set: number, photo: number, site: number, version: number): FuzzedRequest[] {
  let token = 0;
  const step = { window: 'fuzz-window', since: 0 };
  const frame = {
    mirrored: false,
    turns: 0,
    angle: 0,
    focal: { x: 0.5, y: 0.5, confirmed: true },
    crops: {},
  };
  const slot = SHIPPED_SLOTS[0]!;
  const edit = (command: object): FuzzedRequest => ({
    method: 'POST',
    url: `/api/sets/${set}/edits`,
    payload: {
      label: 'x',
      commands: [command],
      seen: { photos: { [photo]: version }, set: 1, site: 1 },
      token: `token-${(token += 1)}`,
      window: 'fuzz-window',
      since: 0,
    },
  });
  return [
    edit({ kind: 'focal', photo, focal: { x: 0.5, y: 0.5, confirmed: true } }),
    edit({ kind: 'crop', photo, shape: '1:1', crop: { x: 0, y: 0, width: 100, height: 100 } }),
    edit({ kind: 'crop', photo, shape: '3:2', crop: null }),
    edit({
      kind: 'words',
      photo,
      language: 'en',
      words: { role: 'informative', alt: 'a', caption: 'b', title: 'c', credit: 'd', longDescription: 'e' },
    }),
    edit({ kind: 'frame', photo, frame }),
    edit({ kind: 'quality', photo, slot: 'grid', decision: { target: 'lean', format: 'webp', pinned: 60 } }),
    edit({
      kind: 'placements',
      photo,
      placements: [{ slot: 'grid', link: '/shop', words: { alt: 'a' }, crops: {} }],
    }),
    edit({ kind: 'placements', photo, placements: null }),
    edit({ kind: 'position', photo, position: 'a0V' }),
    edit({ kind: 'bin', photo, binned: false }),
    edit({
      kind: 'set',
      change: { name: 'n', slots: ['grid'], arranged: true, rehearsed: false, archived: false },
    }),
    edit({ kind: 'site', change: { policy: { modern: 'avif', target: 'clean' }, languages: ['en'] } }),
    edit({ kind: 'slot', slot: slot.id, value: slot }),
    { method: 'POST', url: `/api/sets/${set}/undo`, payload: step },
    { method: 'POST', url: `/api/sets/${set}/redo`, payload: step },
    { method: 'PUT', url: `/api/sets/${set}/attention`, payload: { photos: [photo] } },
    { method: 'PUT', url: `/api/sets/${set}/preparation`, payload: { paused: false } },
    { method: 'POST', url: `/api/sites/${site}/sets`, payload: { name: 'Another' } },
    { method: 'POST', url: '/api/sites', payload: { name: 'Another site' } },
    { method: 'PUT', url: `/api/sites/${site}`, payload: { name: 'Gullmoor Pottery' } },
    { method: 'DELETE', url: `/api/sets/${set}/refusals/1` },
    { method: 'DELETE', url: `/api/sets/${set}/refusals` },
    { method: 'GET', url: `/api/sets/${set}` },
    { method: 'PUT', url: `/api/sites/${site}/archived`, payload: { archived: false } },
    { method: 'GET', url: `/api/sets/${set}/photos?filter=all&from=0&count=10` },
    { method: 'GET', url: `/api/sets/${set}/photos?ids=${photo}` },
    { method: 'GET', url: `/api/sets/${set}/ids?filter=words` },
    { method: 'GET', url: `/api/sets/${set}/found?words=bay` },
    { method: 'GET', url: '/api/sites' },
    { method: 'GET', url: '/api/limits' },
    { method: 'POST', url: `/api/sets/${set}/markup?photos=${photo}&slot=grid` },
    { method: 'GET', url: `/api/sets/${set}/hand-over.zip?photos=${photo}` },
    { method: 'GET', url: `/preview/${set}/index.html` },
    { method: 'GET', url: `/files/views/${'0'.repeat(64)}/row` },
    { method: 'GET', url: `/files/variants/${'0'.repeat(64)}/avif` },
  ];
}

/** Every place in a value, as paths of keys. */
function placesIn(value: unknown, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([key, inner]) => placesIn(inner, [...path, key]))];
}

/** The value with something else in one place; undefined takes the place away. */
function withAt(value: unknown, [key, ...rest]: string[], odd: unknown): unknown {
  if (key === undefined) return odd;
  if (Array.isArray(value))
    return value.map((inner, i) => (String(i) === key ? withAt(inner, rest, odd) : (inner as unknown)));
  const { [key]: before, ...others } = value as Record<string, unknown>;
  const inner = withAt(before, rest, odd);
  return inner === undefined ? others : { ...others, [key]: inner };
}

const TYPES = [
  'application/json',
  'application/octet-stream',
  'text/plain',
  'multipart/form-data; boundary=x',
  'application/xml',
  '',
];
const ADDRESSES = [
  '0',
  '-1',
  '999999999',
  '9999999999',
  'abc',
  '1.5',
  '%00',
  '..%2f..',
  'null',
  '1e3',
  '١',
  'a'.repeat(3000),
];
const PREFIXES = [
  '',
  '{',
  '[1]',
  '"text"',
  'null',
  '1',
  '{"a":',
  '{"__proto__":{"a":1}}',
  '['.repeat(50_000),
  `{"a":${'['.repeat(40)}${']'.repeat(40)}}`,
  '\ufeff{}',
];

function mutated(right: FuzzedRequest, { pick, whole, next }: Chance): FuzzedRequest {
  const { payload, url } = right;
  const way = whole(0, 9);
  if (way === 0) return { ...right, url: url.replace(/\/\d+/, `/${pick(ADDRESSES)}`) };
  if (way === 1)
    return { ...right, payload: pick(PREFIXES), headers: { 'content-type': 'application/json' } };
  if (way === 2)
    return {
      ...right,
      payload: next() < 0.5 ? 'x' : Buffer.alloc(300),
      headers: { 'content-type': pick(TYPES) },
    };
  if (way === 3)
    return {
      ...right,
      url: `${url}${url.includes('?') ? '&' : '?'}photos=1&photos=2&slot=a&slot=b&name=x`,
    };
  if (payload === undefined)
    return {
      ...right,
      url: `${url}${pick(['?', '/', '%', '%ff', '?photos=', '?photos=,,1', '?slot=hero', '#x'])}`,
    };
  let body: unknown = payload;
  for (let i = whole(1, 2); i > 0; i--) body = withAt(body, pick(placesIn(body)), pick(ODD));
  return { ...right, payload: body ?? {}, headers: { 'content-type': 'application/json' } };
}

export interface RequestFuzz {
  sent: number;
  /** Answers of 500 and more, with what brought them. */
  broken: { status: number; method: string; url: string; body: string }[];
}

/** Sends requests one after the other, and asks now and then whether the set can still be read. */
export async function fuzzRequests(
  app: FastifyInstance,
  ids: { set: number; photo: number; site: number },
  count: number,
  seed: number,
): Promise<RequestFuzz> {
  const random = chance(seed);
  const broken: RequestFuzz['broken'] = [];
  const send = async (request: FuzzedRequest) => {
    const { statusCode } = await app.inject(request);
    if (statusCode < 500) return;
    const { method = '', url, payload } = request;
    const body = typeof payload === 'string' ? payload : (JSON.stringify(payload) as string | undefined);
    broken.push({
      status: statusCode,
      method,
      url: url.slice(0, 200),
      body: (body ?? '').slice(0, 400),
    });
  };
  let version = 1;
  for (let i = 0; i < count; i++) {
    if (i % 20 === 0) {
      const state = await app.inject(`/api/sets/${ids.set}/photos?ids=${ids.photo}`);
      if (state.statusCode !== 200)
        broken.push({ status: state.statusCode, method: 'GET', url: 'the set', body: '' });
      else version = state.json<PhotoPage>().photos[0]?.version ?? 1;
    }
    await send(mutated(random.pick(rightRequests(ids.set, ids.photo, ids.site, version)), random));
  }
  return { sent: count, broken };
}
