// Loaded into the server by a benchmark: how late its event loop gets round, from a signal on until it ends.
import { writeFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';

const RESOLUTION = 5;
const lag = monitorEventLoopDelay({ resolution: RESOLUTION });
lag.enable();
// Starting up is no batch: what came before does not count.
process.on('SIGUSR2', () => lag.reset());
process.on('exit', () => {
  const ms = (nanoseconds: number) => Math.round(nanoseconds / 1e5) / 10;
  const found = { median: ms(lag.percentile(50)), p99: ms(lag.percentile(99)), worst: ms(lag.max) };
  // It measures what it waits for as well: that is no lag.
  const late = Object.fromEntries(
    Object.entries(found).map(([name, value]) => [name, Math.max(0, value - RESOLUTION)]),
  );
  writeFileSync(process.env.LAG_FILE!, JSON.stringify(late));
});
