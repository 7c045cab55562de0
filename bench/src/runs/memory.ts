// Memory of all processes while many photos of 12 MP are taken in and prepared.
import sharp from 'sharp';
import { watchMemory } from '../processes.ts';
import { report, seconds } from '../report.ts';
import { newSet, prepared, startServer } from '../server.ts';

const PHOTOS = Number(process.env.PHOTOS ?? 200);
const AT_ONCE = 3;

/** A made-up 4000 × 3000 photo: soft noise in a tint of its own. */
async function basePhoto(index: number): Promise<Buffer> {
  const noise = { type: 'gaussian' as const, mean: 128, sigma: 40 };
  const grain = await sharp({
    create: { width: 500, height: 375, channels: 3, background: '#808080', noise },
  })
    .raw()
    .toBuffer();
  const tint = { r: (index * 37) % 256, g: (index * 91) % 256, b: (index * 53) % 256 };
  return sharp(grain, { raw: { width: 500, height: 375, channels: 3 } })
    .resize(4000, 3000)
    .tint(tint)
    .jpeg({ quality: 88 })
    .toBuffer();
}

/** The same picture as a file of its own: a JPEG comment (ITU-T T.81, B.2.4.5) behind the start marker. */
function asOwnFile(jpeg: Buffer, index: number): Buffer {
  const text = Buffer.from(`photo ${index}`);
  const length = text.length + 2;
  return Buffer.concat([
    jpeg.subarray(0, 2),
    Buffer.from([0xff, 0xfe, length >> 8, length & 0xff]),
    text,
    jpeg.subarray(2),
  ]);
}

const bases = await Promise.all([1, 2, 3, 4, 5, 6, 7, 8].map(basePhoto));
const server = await startServer({ SEED_DEMO: '0', CODEC_WORKERS: '2' });
const set = { id: await newSet(server, 'Memory') };

const watch = watchMemory(server.child.pid!, Number(process.env.DATABASE_PID));
const from = performance.now();
let next = 0;
await Promise.all(
  Array.from({ length: AT_ONCE }, async () => {
    for (let index = next++; index < PHOTOS; index = next++) {
      const response = await fetch(`${server.address}/api/sets/${set.id}/files?name=photo-${index}.jpg`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: new Uint8Array(asOwnFile(bases[index % bases.length]!, index)),
      });
      const answer = (await response.json()) as { kind: string };
      if (answer.kind !== 'new') throw new Error(`photo ${index}: ${JSON.stringify(answer)}`);
    }
  }),
);
const takenIn = seconds(from);
const state = await prepared(server, set.id);
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
