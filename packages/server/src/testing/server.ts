// For tests: an application on a database and a data directory of its own, and photos made on the spot.
import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { EditAnswer, Policy, SetHeader, TakeInResult } from '@dusky-otter/core/contract';
import type { Command, SeenVersions } from '@dusky-otter/core/edits';
import { type WholeRow, type WholeSet, seenNow, wholeRow, wholeSet } from '@dusky-otter/core/reading';
import { DEFAULT_POLICY } from '@dusky-otter/core/weight';
import type { FastifyInstance, LightMyRequestResponse } from 'fastify';
import sharp from 'sharp';
import { buildApp } from '../app.ts';
import { configFrom, type Config } from '../config.ts';
import { connect } from '../database/connect.ts';
import { makeSet, makeSite } from '../changes/sites.ts';
import { buildParts, type Parts } from '../parts.ts';
import { ownDatabase } from './database.ts';

export { seenNow, type WholeRow, type WholeSet };

/** Places in which the photos of a test's set stand from the first. */
const OPEN = ['column', 'grid'] as const;

/** The window that tests work in where they name none. */
export const WINDOW = 'window-one';

export const DEMO = resolve(import.meta.dirname, '../../../../demo');

/** An edit as a test says it: by the first window, on what there is now, where it says no more. */
export interface TestEdit {
  label?: string;
  commands: Command[];
  seen?: SeenVersions;
  window?: string;
  token?: string;
  since?: number;
}

export interface Answered {
  status: number;
  body: EditAnswer & { rows: WholeRow[]; code?: string; detail?: string };
}

export interface TestServer {
  app: FastifyInstance;
  parts: Parts;
  /** What an operator was told. */
  reports: string[];
  readonly setId: number;
  state: (setId?: number) => Promise<WholeSet>;
  add: (name: string, bytes: Buffer, setId?: number) => Promise<TakeInResult>;
  edit: (edit: TestEdit, setId?: number) => Promise<Answered>;
  step: (direction: 'undo' | 'redo', window?: string, setId?: number) => Promise<Answered>;
  /** Goes on with an empty set in a site of its own: no test sees what another did. */
  begin: () => Promise<void>;
  /** Another set of the same site. */
  newSet: (name: string) => Promise<number>;
  /** Resolves when every wanted variant is stored or has failed. */
  prepared: () => Promise<void>;
  close: () => Promise<void>;
}

const headerOf = async (app: FastifyInstance, setId: number): Promise<SetHeader> =>
  (await app.inject(`/api/sets/${setId}`)).json<SetHeader>();

export async function testServer(
  change: Partial<Config> = {},
  modern: Policy['modern'] = 'webp',
): Promise<TestServer> {
  const database = await ownDatabase();
  const dataDir = await mkdtemp(join(tmpdir(), 'otter-test-'));
  const config = {
    ...configFrom({ DATABASE_URL: database.url, DATA_DIR: dataDir }),
    workers: 2,
    seedDemo: false,
    // What is made is what a test asked for.
    idleWork: false,
    ...change,
  };
  process.env.SHORT_ENCODING ??= '1';
  const sequelize = await connect(database.url);
  const reports: string[] = [];
  const parts = await buildParts(config, sequelize, (sentence) => reports.push(sentence));
  const app = await buildApp(parts);
  // AVIF takes most of the time of every preparation: tests that are not about it do with WebP.
  const newSite = () => makeSite(parts.changes, 'Gullmoor Pottery', { ...DEFAULT_POLICY, modern });
  let siteId = await newSite();
  const newSet = (name: string) =>
    makeSet(parts.changes, { siteId, name, version: 1, workedAt: new Date() }, OPEN);
  let setId = await newSet('Test set');
  const state = (of = setId) =>
    wholeSet(async (path) => (await app.inject(path)).json(), of, { window: WINDOW });
  const answered = async (of: number, response: LightMyRequestResponse): Promise<Answered> => {
    const body = response.json<EditAnswer>();
    const { site: ofSet, set } = await headerOf(app, of);
    // A problem has no photos.
    const photos = (body as Partial<EditAnswer>).photos ?? [];
    const rows = photos.map((photo) => wholeRow(photo, ofSet, set));
    return { status: response.statusCode, body: { ...body, rows } };
  };
  return {
    app,
    parts,
    reports,
    get setId() {
      return setId;
    },
    async begin() {
      siteId = await newSite();
      setId = await newSet('Test set');
    },
    state,
    newSet,
    async add(name, bytes, of = setId) {
      const response = await app.inject({
        method: 'POST',
        url: `/api/sets/${of}/files?${new URLSearchParams({ name })}`,
        headers: { 'content-type': 'application/octet-stream' },
        payload: bytes,
      });
      return response.json<TakeInResult>();
    },
    async edit(edit, of = setId) {
      const payload = {
        label: 'An edit',
        window: WINDOW,
        token: randomUUID(),
        since: 0,
        seen: edit.seen ?? seenNow(await state(of)),
        ...edit,
      };
      return answered(of, await app.inject({ method: 'POST', url: `/api/sets/${of}/edits`, payload }));
    },
    async step(direction, window = WINDOW, of = setId) {
      const payload = { window, since: 0 };
      return answered(of, await app.inject({ method: 'POST', url: `/api/sets/${of}/${direction}`, payload }));
    },
    async prepared() {
      await parts.preparer.reconcile(setId);
      const done = () => {
        const { wanted, made, failed } = parts.preparer.progressOf(setId);
        return made + failed >= wanted;
      };
      if (done()) return;
      await new Promise<void>((resolveWait) => {
        const stop = parts.hub.listen([setId], {
          send: () => {
            if (done()) {
              stop();
              resolveWait();
            }
            return true;
          },
          cut: () => undefined,
        });
      });
    },
    async close() {
      parts.preparer.close();
      await app.close();
      await parts.pool.close();
      await parts.previews.close();
      await sequelize.close();
      await database.drop();
      await rm(dataDir, { recursive: true, force: true });
    },
  };
}

/** A JPEG with a red square at a place (fractions) on grey, so that crops can be judged by their pixels. */
export async function photoWithSquare(
  width: number,
  height: number,
  at: { x: number; y: number },
  orientation?: number,
): Promise<Buffer> {
  const side = Math.round(Math.min(width, height) / 8);
  const square = { create: { width: side, height: side, channels: 3 as const, background: '#e02020' } };
  const left = Math.round(at.x * width - side / 2);
  const top = Math.round(at.y * height - side / 2);
  const picture = sharp({ create: { width, height, channels: 3, background: '#808080' } }).composite([
    { input: square, left, top },
  ]);
  const metadata = {
    IFD0: { Model: 'Lumora L2' },
    IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '56/1 11/1 0/1' },
  };
  const jpeg = picture.jpeg({ quality: 92 }).withExif(metadata);
  return (orientation ? jpeg.withMetadata({ orientation }) : jpeg).toBuffer();
}
