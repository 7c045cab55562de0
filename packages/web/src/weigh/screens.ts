// The screens and lines that totals speak of.

export const WEIGHED_SCREENS = [
  { name: 'Phone, 2×', viewport: 390, density: 2 },
  { name: 'Phone, 3×', viewport: 390, density: 3 },
  { name: 'Tablet, 2×', viewport: 820, density: 2 },
  { name: 'Laptop, 1×', viewport: 1280, density: 1 },
  { name: 'Laptop, 2×', viewport: 1440, density: 2 },
] as const;

/** Bytes a second of a slow phone line (as budgets are derived from) and of a fast one. */
const LINES = { slow: 200_000, fast: 5_000_000 };

/** How long bytes take on a line, in words. */
export const secondsOn = (line: keyof typeof LINES, bytes: number): string => {
  const time = bytes / LINES[line];
  return time < 10 ? `${time.toFixed(1)} s` : `${Math.round(time)} s`;
};
