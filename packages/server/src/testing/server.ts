// For tests: an application on a database and a data directory of its own, and photos made on the spot.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import {
  DEFAULT_POLICY,
  type EditDepth,
  type PhotoRow,
  type PhotoSet,
  type SetState,
  type TakeInResult,
} from '@dusky-otter/core';
import type { FastifyInstance } from 'fastify';
import sharp from 'sharp';
import { buildApp } from '../app.ts';
import { configFrom, type Config } from '../config.ts';
import { connect } from '../database/connect.ts';
import { SetModel, SiteModel } from '../database/models.ts';
import { buildParts, type Parts } from '../parts.ts';
import { ownDatabase } from './database.ts';

export const DEMO = resolve(import.meta.dirname, '../../../../demo');

export interface TestServer {
  app: FastifyInstance;
  parts: Parts;
  /** What an operator was told. */
  reports: string[];
  setId: number;
  state: () => Promise<SetState>;
  add: (name: string, bytes: Buffer) => Promise<TakeInResult>;
  edit: (body: object) => Promise<{
    status: number;
    body: { rows: PhotoRow[]; set: PhotoSet; edits: EditDepth; code?: string; detail?: string };
  }>;
  /** Resolves when every wanted variant is stored or has failed. */
  prepared: () => Promise<void>;
  close: () => Promise<void>;
}

export async function testServer(change: Partial<Config> = {}): Promise<TestServer> {
  const database = await ownDatabase();
  const dataDir = await mkdtemp(join(tmpdir(), 'otter-test-'));
  const config = {
    ...configFrom({ DATABASE_URL: database.url, DATA_DIR: dataDir }),
    workers: 2,
    seedDemo: false,
    ...change,
  };
  const sequelize = await connect(database.url);
  const reports: string[] = [];
  const parts = await buildParts(config, sequelize, (sentence) => reports.push(sentence));
  const app = await buildApp(parts);
  const site = await SiteModel.create({ name: 'Gullmoor Pottery', policy: DEFAULT_POLICY });
  const { id: setId } = await SetModel.create({
    siteId: site.id,
    name: 'Test set',
    slots: ['column', 'grid'],
    version: 1,
  });
  const state = async () => (await app.inject(`/api/sets/${setId}`)).json<SetState>();
  return {
    app,
    parts,
    reports,
    setId,
    state,
    async add(name, bytes) {
      const response = await app.inject({
        method: 'POST',
        url: `/api/sets/${setId}/files?${new URLSearchParams({ name })}`,
        headers: { 'content-type': 'application/octet-stream' },
        payload: bytes,
      });
      return response.json<TakeInResult>();
    },
    async edit(body) {
      const response = await app.inject({ method: 'POST', url: `/api/sets/${setId}/edits`, payload: body });
      return { status: response.statusCode, body: response.json() };
    },
    async prepared() {
      await parts.preparer.reconcile(setId);
      const done = () => {
        const { wanted, made, failed } = parts.preparer.progressOf(setId);
        return made + failed >= wanted;
      };
      if (done()) return;
      await new Promise<void>((resolveWait) => {
        const stop = parts.hub.listen(setId, {
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
