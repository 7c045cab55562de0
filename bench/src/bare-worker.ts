// The bare script's worker: plain sharp, one call an output, nothing else. It is what the application is measured against.
import { readFile, writeFile } from 'node:fs/promises';
import sharp, { type OutputInfo, type Sharp } from 'sharp';
import type { EncoderSettings, OutputFormat, Rect } from '@dusky-otter/core/contract';

export interface BareOutput {
  source: string;
  crop: Rect;
  width: number;
  height: number;
  format: OutputFormat;
  settings: EncoderSettings;
  target: string;
}

sharp.concurrency(1);
sharp.cache(false);

/** "each": one pipeline from file to file an output. "shared": one decode a photo and crop, as a careful author would. */
async function make(outputs: BareOutput[], way: string): Promise<void> {
  let decoded: { key: string; data: Buffer; info: OutputInfo } | undefined;
  for (const { source, crop, width, height, format, settings, target } of outputs) {
    const region = { left: crop.x, top: crop.y, width: crop.width, height: crop.height };
    let picture: Sharp;
    if (way === 'each')
      picture = sharp(await readFile(source))
        .autoOrient()
        .extract(region);
    else {
      const key = JSON.stringify([source, crop]);
      if (decoded?.key !== key) {
        const raw = await sharp(source)
          .autoOrient()
          .extract(region)
          .raw()
          .toBuffer({ resolveWithObject: true });
        decoded = { key, ...raw };
      }
      picture = sharp(decoded.data, { raw: decoded.info });
    }
    const { lossless, progressive, effort, quality, bitDepth, table, trellis, scans, photo } = settings;
    const options = {
      ...(quality && { quality }),
      ...(effort !== undefined && format !== 'png' && { effort }),
      ...(progressive && { progressive }),
      ...(lossless && format !== 'png' && { lossless }),
      ...(bitDepth && { bitdepth: bitDepth }),
      ...(photo && { preset: 'photo' as const }),
      ...(table && { quantisationTable: table }),
      ...(trellis && { trellisQuantisation: true, overshootDeringing: true }),
      ...(scans && progressive && { optimiseScans: true }),
    };
    await writeFile(
      target,
      await picture.resize(width, height, { fit: 'fill' }).toFormat(format, options).toBuffer(),
    );
  }
}

process.on('message', ({ outputs, way }: { outputs: BareOutput[]; way: string }) => {
  make(outputs, way).then(
    () => process.send!('done'),
    (error: unknown) => {
      console.error(error);
      process.exit(1);
    },
  );
});
