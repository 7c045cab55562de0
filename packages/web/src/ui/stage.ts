// The geometry of the stage: between screen px and the original's px.
import type { Rect, Size } from '@dusky-otter/core/contract';
import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

export interface Stage {
  /** Screen px per original px. */
  scale: number;
  width: number;
  height: number;
}

/** The largest size at which a picture fits a box; small pictures may be shown larger than they are to work on. */
export function stageFor(picture: Size, box: Size): Stage {
  const scale = Math.min(box.width / picture.width, box.height / picture.height);
  return { scale, width: picture.width * scale, height: picture.height * scale };
}

/** Size of an element in CSS px, kept up to date. */
export function useSize<T extends HTMLElement>(): [RefObject<T | null>, Size] {
  const ref = useRef<T>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}

/** A rectangle of the original as a CSS box on the stage. */
export const boxOf = (
  rect: Rect,
  { scale }: Stage,
): { left: number; top: number; width: number; height: number } => ({
  left: rect.x * scale,
  top: rect.y * scale,
  width: rect.width * scale,
  height: rect.height * scale,
});

/** Follows the pointer until it is let go, telling how far it has come in original px. */
export function follow(
  event: React.PointerEvent,
  scale: number,
  moved: (dx: number, dy: number) => void,
  letGo: () => void,
): void {
  event.preventDefault();
  event.stopPropagation();
  const { clientX, clientY, pointerId } = event;
  const target = event.currentTarget;
  target.setPointerCapture(pointerId);
  const move = (next: Event) => {
    const pointer = next as PointerEvent;
    moved((pointer.clientX - clientX) / scale, (pointer.clientY - clientY) / scale);
  };
  const end = () => {
    target.removeEventListener('pointermove', move);
    target.removeEventListener('pointerup', end);
    target.removeEventListener('pointercancel', end);
    letGo();
  };
  target.addEventListener('pointermove', move);
  target.addEventListener('pointerup', end);
  target.addEventListener('pointercancel', end);
}
