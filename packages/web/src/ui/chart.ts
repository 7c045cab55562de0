// What every chart has in common: the application's type and colours, no movement and no legend.
import { Chart } from 'chart.js';

Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";

/** The value of a colour of the theme that is shown. */
export const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Options that every chart begins with; its size is its frame's. */
export const STILL = { animation: false, responsive: true, maintainAspectRatio: false } as const;

export const NO_LEGEND = { legend: { display: false } } as const;

/** Colours of an axis that is shown, and what stands along it. */
export const axisTones = (said?: string) => ({
  grid: { color: token('--rule') },
  ...(said !== undefined && { title: { display: true, text: said, color: token('--ink-2') } }),
});

/** Of the numbers along an axis. */
export const tickTones = () => ({ color: token('--ink-2') });
