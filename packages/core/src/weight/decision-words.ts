// What was decided on how a photo's files come about, in words.
import type { QualityDecision } from '../contract/index.ts';
import { FORMAT_NAMES } from './format.ts';

/** "lean, WebP, at most 480 px"; empty where nothing is decided. */
export function decisionInWords(decision: QualityDecision | undefined): string {
  const { target, format, still, frame, every, pinned, lossless, background, widest } = decision ?? {};
  const parts = [
    target && pinned === undefined && target,
    typeof pinned === 'number' && `quality ${pinned}`,
    typeof pinned === 'object' &&
      `${FORMAT_NAMES[pinned.format]} at quality ${pinned.quality}, difference ${pinned.difference.toFixed(2)}`,
    format && FORMAT_NAMES[format],
    lossless !== undefined && (lossless ? 'lossless' : 'with loss'),
    still && (frame ? `still, frame ${frame + 1}` : 'still'),
    every && !still && (every === 2 ? 'every other frame' : `one frame in ${every}`),
    background && `on ${background}`,
    widest !== undefined && `at most ${widest} px`,
  ];
  return parts.filter(Boolean).join(', ');
}
