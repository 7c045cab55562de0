// What the application and the sealed frame, in which pages are measured, say to each other.

/** What the application asks of the frame. */
export type Asked =
  | { kind: 'page'; html: string; pictures: string }
  | { kind: 'look'; window: number }
  | { kind: 'mark'; labels: (string | null)[] };

/** A picture as it lies in the window; null where it is not shown. CSS px. */
export interface Looked {
  width: number;
  height: number;
  box: number;
  x: number;
  y: number;
  /** Size of the file as the browser knows it; 0 where nothing was loaded. */
  natural: [number, number];
  fit: string;
  floats: boolean;
}

/** What the frame answers. */
export type Answered =
  /** `opening` is what the frame's address was asked under. */
  | { kind: 'open'; opening: string }
  | { kind: 'ready'; quirks: boolean; count: number }
  | { kind: 'seen'; window: number; pictures: (Looked | null)[]; height: number };
