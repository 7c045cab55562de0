// This window's end of the line that all windows share.
import type { SetEvent } from '@dusky-otter/core/contract';
import type { Hello } from './line.worker.ts';
import { openLine, Switchboard, type Heard, type Said } from './switchboard.ts';

/** Says to the switchboard which set this window shows. */
let say: ((said: Said) => void) | null = null;
let hear: (heard: Heard) => void = () => undefined;

function connect(): (said: Said) => void {
  // Some browsers of phones share no workers between windows: there each window has a line of its own.
  if (typeof SharedWorker === 'undefined' || !('locks' in navigator)) {
    const own = new Switchboard(openLine);
    const listener = (heard: Heard) => hear(heard);
    return ({ setId }) => own.watch(listener, setId);
  }
  const { port } = new SharedWorker(new URL('./line.worker.ts', import.meta.url), { type: 'module' });
  port.onmessage = ({ data }: MessageEvent<Heard>) => hear(data);
  const lock = `dusky-otter-window-${crypto.randomUUID()}`;
  void navigator.locks.request(lock, () => {
    port.postMessage({ kind: 'hello', lock } satisfies Hello);
    // Held until the window is gone.
    return new Promise(() => undefined);
  });
  return (said) => port.postMessage(said);
}

/** Listens to a set; after a broken connection it goes on by itself. @returns the function that ends listening. */
export function listen(
  setId: number,
  heard: (event: SetEvent) => void,
  connected: (open: boolean) => void,
): () => void {
  say ??= connect();
  hear = (one) => {
    if (one.kind === 'line') connected(one.open);
    // What is still on its way of another set is not for this one.
    else if (one.setId === setId) heard(JSON.parse(one.data) as SetEvent);
  };
  say({ kind: 'watch', setId });
  return () => {
    hear = () => undefined;
    say?.({ kind: 'watch', setId: null });
  };
}
