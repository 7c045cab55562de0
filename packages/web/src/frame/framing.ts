// The decisions at the bench while they are being made: shown at once, saved when the hand lets go or rests.
import type { FocalPoint, Frame, Rect, ShapeId } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { mirrorFrame, straightenFrame, turnFrame } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Row } from '../server/hooks.ts';
import { edit } from '../server/state.ts';

/** One thing in hand. */
export type Framing =
  | { kind: 'focal'; focal: FocalPoint }
  | { kind: 'crop'; shape: ShapeId; rect: Rect }
  | { kind: 'angle'; angle: number };

const REST = 500;

const shapeName = (shape: ShapeId): string => (shape === 'own' ? 'whole photo' : shape);
const degrees = (angle: number): string => `${angle > 0 ? '+' : ''}${angle.toFixed(1)}°`;

/** The frame with what is in hand. */
function framed({ frame, original }: Pick<Row, 'frame' | 'original'>, held: Framing): Frame {
  switch (held.kind) {
    case 'focal':
      return { ...frame, focal: held.focal };
    case 'crop':
      return { ...frame, crops: { ...frame.crops, [held.shape]: held.rect } };
    case 'angle':
      return straightenFrame(frame, original, held.angle);
  }
}

function save(row: Row, held: Framing): void {
  const name = shownName(row.words, row.fileName);
  const photo = row.id;
  const [label, command]: [string, Command] =
    held.kind === 'focal'
      ? [`focal point of ${name}`, { kind: 'focal', photo, focal: held.focal }]
      : held.kind === 'crop'
        ? [
            `crop ${shapeName(held.shape)} of ${name}`,
            { kind: 'crop', photo, shape: held.shape, crop: held.rect },
          ]
        : [
            `${name} straightened to ${degrees(held.angle)}`,
            { kind: 'frame', photo, frame: framed(row, held) },
          ];
  edit(label, [command]);
}

/** Whole turns are saved at once: there is nothing to let go of. */
export const turns = {
  quarter: (row: Row): void => {
    const name = shownName(row.words, row.fileName);
    edit(`quarter turn of ${name}`, [
      { kind: 'frame', photo: row.id, frame: turnFrame(row.frame, row.original, 1) },
    ]);
  },
  mirror: (row: Row): void => {
    const name = shownName(row.words, row.fileName);
    edit(`${name} mirrored`, [{ kind: 'frame', photo: row.id, frame: mirrorFrame(row.frame, row.original) }]);
  },
};

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

const same = (a: Framing, b: Framing): boolean =>
  a.kind === b.kind && (a.kind !== 'crop' || b.kind !== 'crop' || a.shape === b.shape);

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
    if (before && !same(before, framing)) save(now, before);
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
  const shown: Row = held ? { ...row, frame: framed(row, held) } : row;
  return { shown, hold, settle, nudge };
}
