// The table of device classes that widths are planned for. A documented default; shares are invented but plausible.

export interface DeviceClass {
  name: string;
  /** Viewport width in CSS px. */
  viewport: number;
  /** Device pixels per CSS px. */
  density: number;
  /** Share of visits; all shares sum to 1. */
  share: number;
}

export const DEFAULT_DEVICES: readonly DeviceClass[] = [
  { name: 'small phone', viewport: 360, density: 3, share: 0.16 },
  { name: 'phone', viewport: 390, density: 3, share: 0.22 },
  { name: 'large phone', viewport: 430, density: 3, share: 0.14 },
  { name: 'tablet', viewport: 820, density: 2, share: 0.08 },
  { name: 'laptop', viewport: 1280, density: 1, share: 0.1 },
  { name: 'wide laptop', viewport: 1536, density: 1.25, share: 0.12 },
  { name: 'retina laptop', viewport: 1440, density: 2, share: 0.1 },
  { name: 'desktop', viewport: 1920, density: 1, share: 0.08 },
];

/** Densities above 2 count as 2: more pixels than that are not seen at reading distance. */
export const countedDensity = (density: number): number => Math.min(2, density);

/** The phone and the retina laptop that the worktable's totals speak of. */
export const PHONE = { viewport: 390, density: 2 } as const;
export const RETINA_LAPTOP = { viewport: 1440, density: 2 } as const;
