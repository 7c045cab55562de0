// Straighten proposals: the demo's photos turned by known angles, and what is proposed to turn them back. Photos without
// a line that says what level is are turned as well: there nothing should be proposed.
import { readFile, readdir } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { largestTurned, proposeTilt, type LightnessMap } from '@dusky-otter/core/geometry';
import sharp from 'sharp';
import { median, report, rounded, type Figures } from '../report.ts';

const DIR = resolve('demo/photos');
const ANGLES = [-8, -6.5, -5, -3.5, -2, -1, 1, 2, 3.5, 5, 6.5, 8];
const SIDE = 640;

/** A photo turned clockwise about its centre, without the corners that then are empty, as lightness. */
async function turned(bytes: Buffer, degrees: number): Promise<LightnessMap> {
  const upright = await sharp(bytes)
    .rotate()
    .toColourspace('srgb')
    .resize(1600, 1600, { fit: 'inside' })
    .toBuffer();
  const { width, height } = await sharp(upright).metadata();
  const inner = Math.floor(largestTurned({ width, height }, width / height, degrees)) - 2;
  const size = { width: inner, height: Math.floor((inner * height) / width) };
  const full = await sharp(upright)
    .rotate(degrees, { background: '#808080' })
    .toBuffer({ resolveWithObject: true });
  const { data, info } = await sharp(full.data)
    .extract({
      left: Math.floor((full.info.width - size.width) / 2),
      top: Math.floor((full.info.height - size.height) / 2),
      ...size,
    })
    .resize(SIDE, SIDE, { fit: 'inside' })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const values = Float32Array.from(
    { length: info.width * info.height },
    (_, i) => data[i * info.channels]! / 255,
  );
  return { width: info.width, height: info.height, values };
}

interface Labels {
  /** Photos with a level or upright line of their own, by file. */
  lines: string[];
  /** Photos with straight lines that are neither. */
  askew: string[];
}

const { lines, askew } = JSON.parse(await readFile(resolve('demo/lines.json'), 'utf8')) as Labels;
const rows: Figures[] = [];
const errors: number[] = [];
let [asked, falsely, without] = [0, 0, 0];
for (const file of (await readdir(DIR)).sort()) {
  const bytes = await readFile(join(DIR, file));
  const found = [];
  for (const angle of ANGLES) found.push({ angle, proposal: proposeTilt(await turned(bytes, angle)) });
  const own = found.flatMap(({ angle, proposal }) => (proposal ? [Math.abs(proposal.angle + angle)] : []));
  const has = lines.includes(file);
  if (has) {
    asked += ANGLES.length;
    errors.push(...own);
  } else if (!askew.includes(file)) {
    without += ANGLES.length;
    falsely += own.length;
  }
  rows.push({
    photo: file,
    lines: has ? 'yes' : askew.includes(file) ? 'askew' : 'no',
    proposed: own.length,
    'median error, °': own.length > 0 ? rounded(median(own), 2) : '',
    'worst error, °': own.length > 0 ? rounded(Math.max(...own), 2) : '',
  });
}
await report(
  'straighten',
  `proposals for ${rows.length} photos turned by ${ANGLES.join(', ')} degrees; errors are those of photos with lines`,
  rows,
  {
    'median error degrees': rounded(median(errors), 3),
    'share within 0.5 degrees': rounded(errors.filter((error) => error <= 0.5).length / asked, 3),
    'proposed with lines': rounded(errors.length / asked, 3),
    'false proposals': falsely,
    'turned without lines': without,
  },
);
