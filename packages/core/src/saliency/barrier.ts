// Minimum barrier distance: how large a step of value every way from a place to the picture's edge must climb.

/**
 * Distance transform of one channel by raster scans, forth and back in turn (J. Zhang et al., "Minimum Barrier
 * Salient Object Detection at 80 FPS", 2015: FastMBD). What differs from the border on every way out is an object.
 * @returns for every pixel the smallest (highest − lowest value) over the ways found to the border.
 */
export function barrierDistance(
  channel: Float32Array,
  width: number,
  height: number,
  passes = 3,
): Float32Array {
  const distance = new Float32Array(channel.length).fill(Infinity);
  const highest = channel.slice();
  const lowest = channel.slice();
  for (let x = 0; x < width; x++) distance[x] = distance[(height - 1) * width + x] = 0;
  for (let y = 0; y < height; y++) distance[y * width] = distance[y * width + width - 1] = 0;
  const relax = (at: number, from: number): void => {
    const value = channel[at]!;
    const high = Math.max(highest[from]!, value);
    const low = Math.min(lowest[from]!, value);
    if (high - low < distance[at]!) {
      distance[at] = high - low;
      highest[at] = high;
      lowest[at] = low;
    }
  };
  for (let pass = 0; pass < passes; pass++) {
    const forth = pass % 2 === 0;
    for (let row = 1; row < height - 1; row++) {
      const y = forth ? row : height - 1 - row;
      for (let column = 1; column < width - 1; column++) {
        const x = forth ? column : width - 1 - column;
        const at = y * width + x;
        relax(at, forth ? at - 1 : at + 1);
        relax(at, forth ? at - width : at + width);
      }
    }
  }
  return distance;
}
