// The frame that a chart fills; what it shows is said in words.
import type { RefObject } from 'react';

interface Props {
  canvas: RefObject<HTMLCanvasElement | null>;
  /** CSS px. */
  height: number;
  label: string;
}

export const ChartFrame = ({ canvas, height, label }: Props) => (
  <div className="relative" style={{ height }}>
    <canvas ref={canvas} role="img" aria-label={label} />
  </div>
);
