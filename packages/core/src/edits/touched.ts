// Which parts of what a command changes: two edits are in each other's way only where they change the same part.
import { isPhotoCommand, type Command } from './commands.ts';

export interface Touched {
  entity: 'photo' | 'set' | 'site';
  id: number;
  /** Dotted, the larger first: "frame" holds "frame.focal". */
  part: string;
}

/** What of one photo: decisions in a set are the set's own, the others are shared by all sets it stands in. */
function photoParts(setId: number, command: Extract<Command, { photo: number }>): string[] {
  switch (command.kind) {
    case 'focal':
      return ['frame.focal'];
    case 'crop':
      return [`frame.crop.${command.shape}`];
    case 'frame':
      return ['frame'];
    case 'original':
      return ['original', 'frame'];
    case 'words':
      return Object.keys(command.words).map((field) => `words.${command.language}.${field}`);
    case 'quality':
      return [`quality.${command.slot}`];
    case 'placements':
    case 'position':
      return [`set.${setId}.${command.kind}`];
    case 'bin':
      return [`set.${setId}.bin`];
  }
}

/** @returns every part that commands of an edit in a set touch, each once. */
export function touchedBy(
  commands: readonly Command[],
  { set, site }: { set: number; site: number },
): Touched[] {
  const touched = commands.flatMap((command): Touched[] => {
    if (isPhotoCommand(command))
      return photoParts(set, command).map((part) => ({ entity: 'photo', id: command.photo, part }));
    if (command.kind === 'slot') return [{ entity: 'site', id: site, part: `slot.${command.slot}` }];
    const entity = command.kind;
    return Object.keys(command.change).map((part) => ({ entity, id: entity === 'set' ? set : site, part }));
  });
  return [...new Map(touched.map((one) => [`${one.entity} ${one.id} ${one.part}`, one])).values()];
}

/** True when one of the parts holds the other, or is the other. */
export const overlap = (a: string, b: string): boolean =>
  a === b || a.startsWith(`${b}.`) || b.startsWith(`${a}.`);
