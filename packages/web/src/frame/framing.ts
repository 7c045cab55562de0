// The decisions at the bench while they are being made: shown at once, saved when the hand lets go or rests.
import { shownName, type Command, type FocalPoint, type Rect, type ShapeId } from '@dusky-otter/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Row } from '../server/hooks.ts';
import { edit } from '../server/state.ts';

export interface Framing {
  focal?: FocalPoint;
  crop?: { shape: ShapeId; rect: Rect };
}

const REST = 500;

const shapeName = (shape: ShapeId): string => (shape === 'own' ? 'whole photo' : shape);

function save(row: Row, { focal, crop }: Framing): void {
  const name = shownName(row.words, row.fileName);
  const commands: Command[] = [];
  if (focal) commands.push({ kind: 'focal', photo: row.id, focal });
  if (crop) commands.push({ kind: 'crop', photo: row.id, shape: crop.shape, crop: crop.rect });
  edit(crop ? `crop ${shapeName(crop.shape)} of ${name}` : `focal point of ${name}`, commands);
}

export interface FramingHands {
  /** The photo as it looks with the unsaved framing on top. */
  shown: Row;
  /** Shows a framing without saving it: while dragging. */
  hold: (framing: Framing) => void;
  /** Saves what is held now. */
  settle: () => void;
  /** Shows a framing and saves it once the keys have rested. */
  nudge: (framing: Framing) => void;
}

/** A framing in hand is saved on letting go, after a rest, and when the bench goes away. */
export function useFraming(row: Row): FramingHands {
  const [held, setHeld] = useState<Framing | null>(null);
  const latest = useRef({ row, held, timer: 0 });
  useEffect(() => {
    latest.current.row = row;
  });
  const hold = useCallback((framing: Framing) => {
    const { held: before, row: now } = latest.current;
    // Another thing is taken in hand before the keys have rested: the first one is saved, not dropped.
    if (before && (!before.focal !== !framing.focal || before.crop?.shape !== framing.crop?.shape))
      save(now, before);
    latest.current.held = framing;
    setHeld(framing);
  }, []);
  const settle = useCallback(() => {
    const now = latest.current;
    window.clearTimeout(now.timer);
    if (now.held) save(now.row, now.held);
    now.held = null;
    setHeld(null);
  }, []);
  const nudge = useCallback(
    (framing: Framing) => {
      hold(framing);
      window.clearTimeout(latest.current.timer);
      latest.current.timer = window.setTimeout(settle, REST);
    },
    [hold, settle],
  );
  useEffect(() => settle, [settle, row.id]);
  const frame = {
    ...row.frame,
    ...(held?.focal && { focal: held.focal }),
    ...(held?.crop && { crops: { ...row.frame.crops, [held.crop.shape]: held.crop.rect } }),
  };
  const shown: Row = held ? { ...row, frame } : row;
  return { shown, hold, settle, nudge };
}
