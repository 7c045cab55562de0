// Chart.js with what a chart of points needs.
import {
  Chart,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
} from 'chart.js';
import './chart.ts';

Chart.register(ScatterController, LineElement, PointElement, LinearScale, LogarithmicScale, Tooltip);

export { Chart };
