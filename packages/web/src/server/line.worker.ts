// The switchboard of all windows: it lives as long as one of them does.
import { openLine, Switchboard, type Heard, type Said } from './switchboard.ts';

/** What a window says when it comes: a lock that it holds as long as it lives. */
export interface Hello {
  kind: 'hello';
  lock: string;
}

const board = new Switchboard(openLine);

addEventListener('connect', (event) => {
  const [port] = (event as MessageEvent).ports;
  if (!port) return;
  const hear = (heard: Heard): void => port.postMessage(heard);
  port.onmessage = ({ data }: MessageEvent<Hello | Said>) => {
    if (data.kind === 'watch') return board.watch(hear, data.setId);
    // A window that is closed, or crashed, can't say so; its lock is let go all the same.
    void navigator.locks.request(data.lock, () => board.leave(hear));
  };
});
