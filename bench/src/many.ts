// Many small made-up photos, and what is asked of the server about them.
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';

const AT_ONCE = 4;

/** @throws Error with the answer, where it is no good one */
export async function ask<T>(address: string, method: string, path: string, body?: object): Promise<T> {
  const response = await fetch(`${address}${path}`, {
    method,
    ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${path} answers ${response.status}: ${await response.text()}`);
  return (await response.json()) as T;
}

/** An edit as a bench sends it. */
export const edit = (commands: object[], seen: object) => ({
  label: 'a bench’s edit',
  commands,
  seen,
  token: randomUUID(),
  window: 'bench-window',
  since: 0,
});

/** A small picture of its own: four tints on 120 × 90 px. */
const picture = (n: number): Promise<Buffer> => {
  const tint = (shift: number) => (n >> shift) % 256;
  const part = {
    create: { width: 40, height: 30, channels: 3 as const, background: { r: tint(0), g: tint(4), b: 90 } },
  };
  return sharp({
    create: { width: 120, height: 90, channels: 3, background: { r: 90, g: tint(2), b: tint(6) } },
  })
    .composite([{ input: part, left: n % 80, top: (n >> 3) % 60 }])
    .jpeg({ quality: 80 })
    .withExif({ IFD0: { ImageDescription: `photo ${n}` } })
    .toBuffer();
};

/** Takes pictures in, a few at once. @returns files a second */
export async function takeIn(address: string, setId: number, from: number, to: number): Promise<number> {
  const began = performance.now();
  let next = from;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      for (let n = next++; n < to; n = next++) {
        const body = new Uint8Array(await picture(n + setId * 100_000));
        const response = await fetch(`${address}/api/sets/${setId}/files?name=photo-${n}.jpg`, {
          method: 'POST',
          headers: { 'content-type': 'application/octet-stream' },
          body,
        });
        if (!response.ok) throw new Error(`photo ${n}: ${response.status}`);
        if (n % 1000 === 999) console.log(`set ${setId}: ${n + 1} photos`);
      }
    }),
  );
  return ((to - from) * 1000) / (performance.now() - began);
}
