// Looks for straight edges in a picture, off the main thread.
import { proposeTilt, type LightnessMap, type TiltProposal } from '@dusky-otter/core/geometry';

/** Long side of what is looked at, in px. */
const SIDE = 640;

async function lightnessOf(address: string): Promise<LightnessMap> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`The view can’t be read (${response.status}).`);
  const picture = await createImageBitmap(await response.blob());
  const scale = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const [width, height] = [
    Math.max(1, Math.round(picture.width * scale)),
    Math.max(1, Math.round(picture.height * scale)),
  ];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.drawImage(picture, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  // Luma of Rec. 709 on the stored values: close enough to what the eye sees of edges.
  const values = Float32Array.from(
    { length: width * height },
    (_, i) => (0.2126 * data[4 * i]! + 0.7152 * data[4 * i + 1]! + 0.0722 * data[4 * i + 2]!) / 255,
  );
  return { width, height, values };
}

export type TiltAnswer = { proposal: TiltProposal | null } | { problem: string };

self.onmessage = ({ data: address }: MessageEvent<string>) => {
  lightnessOf(address).then(
    (map) => self.postMessage({ proposal: proposeTilt(map) } satisfies TiltAnswer),
    (error: unknown) => self.postMessage({ problem: String(error) } satisfies TiltAnswer),
  );
};
