// What every chart has in common: the application's type and colours.
import { Chart } from 'chart.js';

Chart.defaults.font.family = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";

/** The value of a colour of the theme that is shown. */
export const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();
