// Every change an editor makes, as a command with its inverse. Pure: the server carries out what is computed here.
import type {
  FocalPoint,
  Photo,
  PhotoDecisions,
  PhotoSet,
  Rect,
  SetDecisions,
  ShapeId,
  SlotId,
  Words,
} from '../contract/index.ts';
import { cropProblem } from '../geometry/geometry.ts';
import { isSlotId } from '../slots/slots.ts';
import { LONGEST_TEXT } from '../words/text.ts';

export type PhotoCommand =
  | { kind: 'focal'; photo: number; focal: FocalPoint }
  | { kind: 'crop'; photo: number; shape: ShapeId; crop: Rect | null }
  | { kind: 'words'; photo: number; words: Partial<Words> }
  | { kind: 'slots'; photo: number; slots: SlotId[] | null }
  | { kind: 'bin'; photo: number; binned: boolean };

export type SetCommand = { kind: 'set'; change: Partial<SetDecisions> };

export type Command = PhotoCommand | SetCommand;

/** An edit: commands that are carried out, and taken back, together. */
export interface Edit {
  label: string;
  commands: Command[];
}

export const isPhotoCommand = (command: Command): command is PhotoCommand => command.kind !== 'set';

/** Raised when a command can't be carried out; the message is a sentence for the editor. */
export class CommandError extends Error {}

function checkSlots(slots: readonly string[]): void {
  const unknown = slots.find((id) => !isSlotId(id));
  if (unknown !== undefined) throw new CommandError(`There is no slot “${unknown}”.`);
  if (new Set(slots).size !== slots.length) throw new CommandError('A slot is named twice.');
}

/**
 * Carries out a command on a photo.
 * @returns the changed decisions and the command that takes the change back.
 * @throws CommandError with a sentence when the command makes no sense for this photo.
 */
export function applyToPhoto(
  photo: Photo,
  command: PhotoCommand,
): { change: Partial<PhotoDecisions>; inverse: PhotoCommand } {
  const id = photo.id;
  switch (command.kind) {
    case 'focal': {
      const { x, y } = command.focal;
      if (!(x >= 0 && x <= 1 && y >= 0 && y <= 1))
        throw new CommandError('The focal point lies outside the picture.');
      return { change: { focal: command.focal }, inverse: { kind: 'focal', photo: id, focal: photo.focal } };
    }
    case 'crop': {
      const { shape, crop } = command;
      const problem = crop && cropProblem(crop, shape, photo.original);
      if (problem) throw new CommandError(problem);
      const { [shape]: before = null, ...others } = photo.crops;
      const crops: PhotoDecisions['crops'] = crop ? { ...others, [shape]: crop } : others;
      return {
        change: { crops },
        inverse: { kind: 'crop', photo: id, shape, crop: before },
      };
    }
    case 'words': {
      // Edits that an earlier version kept may hold null for "no text".
      const said = Object.entries(command.words).map(([key, text]) => [
        key,
        key === 'role' ? text : (text ?? ''),
      ]);
      const words = Object.fromEntries(said) as Partial<Words>;
      const keys = Object.keys(words) as (keyof Words)[];
      const tooLong = keys.find(
        (key) => (words[key]?.length ?? 0) > LONGEST_TEXT && words[key] !== photo.words[key],
      );
      if (tooLong) throw new CommandError(`A text is longer than ${LONGEST_TEXT} characters.`);
      const before = Object.fromEntries(keys.map((key) => [key, photo.words[key]])) as Partial<Words>;
      return {
        change: { words: { ...photo.words, ...words } },
        inverse: { kind: 'words', photo: id, words: before },
      };
    }
    case 'slots': {
      checkSlots(command.slots ?? []);
      return { change: { slots: command.slots }, inverse: { kind: 'slots', photo: id, slots: photo.slots } };
    }
    case 'bin':
      return {
        change: { binned: command.binned },
        inverse: { kind: 'bin', photo: id, binned: photo.binned },
      };
  }
}

/** The photos of a set in a wished order. It may be older than the set: photos it doesn't name come last, as they were. */
export function reordered(present: readonly number[], wished: readonly number[]): number[] {
  const here = new Set(present);
  const named = new Set(wished);
  return [...wished.filter((id) => here.has(id)), ...present.filter((id) => !named.has(id))];
}

/**
 * Carries out a command on a set. A new order names each photo once at most; see `reordered` for those that came
 * or went since.
 * @throws CommandError with a sentence.
 */
export function applyToSet(
  set: PhotoSet,
  command: SetCommand,
): { change: Partial<SetDecisions>; inverse: SetCommand } {
  // Edits that an earlier version kept may hold null for what is to stay.
  const given = Object.entries<unknown>(command.change).filter(
    ([, value]) => value !== null && value !== undefined,
  );
  const change = Object.fromEntries(given) as Partial<SetDecisions>;
  if (change.name !== undefined && change.name.trim() === '') throw new CommandError('A set needs a name.');
  if (change.slots) checkSlots(change.slots);
  if (change.order) {
    if (new Set(change.order).size !== change.order.length)
      throw new CommandError('The new order names a photo twice.');
    change.order = reordered(set.order, change.order);
  }
  const keys = Object.keys(change) as (keyof SetDecisions)[];
  const before = Object.fromEntries(keys.map((key) => [key, set[key]])) as Partial<SetDecisions>;
  // An edit that was kept from before a policy had all its parts leaves the others as they are.
  const policy = change.policy && { policy: { ...set.policy, ...change.policy } };
  return { change: { ...change, ...policy }, inverse: { kind: 'set', change: before } };
}
