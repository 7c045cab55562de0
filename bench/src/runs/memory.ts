// Memory of all processes while 200 photos of 12 MP are taken in and prepared.
import sharp from 'sharp';
import { watchMemory } from '../processes.ts';
import { report, seconds } from '../report.ts';
import { prepared, startServer } from '../server.ts';

const PHOTOS = 200;
const AT_ONCE = 3;

/** A made-up 4000 × 3000 photo: soft noise, each from its own seed colour, so that no two have the same hash. */
async function photo(index: number, noise: Buffer): Promise<Buffer> {
  const tint = { r: (index * 37) % 256, g: (index * 91) % 256, b: (index * 53) % 256 };
  return sharp(noise, { raw: { width: 500, height: 375, channels: 3 } })
    .resize(4000, 3000)
    .tint(tint)
    .jpeg({ quality: 88 })
    .toBuffer();
}

const noise = await sharp({
  create: {
    width: 500,
    height: 375,
    channels: 3,
    background: '#808080',
    noise: { type: 'gaussian', mean: 128, sigma: 40 },
  },
})
  .raw()
  .toBuffer();
const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '2' });
const { SiteModel, SetModel, connected } = await openTables();
const site = await SiteModel.create({ name: 'Gullmoor Pottery', policy: { modern: 'avif' } });
const set = await SetModel.create({ siteId: site.id, name: 'Memory', slots: ['column', 'grid'], version: 1 });
await connected.close();

async function openTables() {
  const { connect } = await import('../../../packages/server/dist/database/connect.js');
  const models = await import('../../../packages/server/dist/database/models.js');
  return { ...models, connected: await connect(process.env.DATABASE_URL!) };
}

const watch = watchMemory(server.child.pid!, Number(process.env.DATABASE_PID));
const from = performance.now();
let next = 0;
await Promise.all(
  Array.from({ length: AT_ONCE }, async () => {
    for (let index = next++; index < PHOTOS; index = next++) {
      const response = await fetch(`${server.address}/api/sets/${set.id}/files?name=photo-${index}.jpg`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: new Uint8Array(await photo(index, noise)),
      });
      const answer = (await response.json()) as { kind: string };
      if (answer.kind !== 'new') throw new Error(`photo ${index}: ${JSON.stringify(answer)}`);
    }
  }),
);
const takenIn = seconds(from);
const state = await prepared(server, set.id, PHOTOS);
const all = seconds(from);
const peak = watch.stop();
await server.end();
const mb = (bytes: number) => Math.round(bytes / 1e6);
await report(
  'memory',
  `peak memory (proportional set size, MB) while ${PHOTOS} photos of 12 MP are taken in and prepared`,
  [
    {
      server: mb(peak.server),
      'codec processes': mb(peak.workers),
      database: mb(peak.database),
      'all at once': mb(peak.all),
    },
  ],
  {
    photos: PHOTOS,
    versions: state.preparation.made,
    'seconds to take in': takenIn,
    'seconds in all': all,
    'peak MB': mb(peak.all),
    aim: 700,
  },
);
