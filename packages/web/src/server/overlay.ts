// Edits that are on their way: what is on screen is the confirmed state with these on top.
import type { PhotoSet, SentPhoto, Site } from '@dusky-otter/core/contract';
import {
  applyToPhoto,
  applyToSet,
  applyToSite,
  isPhotoCommand,
  isSiteCommand,
  type Command,
  type PhotoCommand,
} from '@dusky-otter/core/edits';

/** Applies what can be applied; an edit that can't be is left to the server to refuse. */
function applied<T, C>(start: T, commands: readonly C[], apply: (now: T, command: C) => T): T {
  let now = start;
  for (const command of commands) {
    try {
      now = apply(now, command);
    } catch {
      continue;
    }
  }
  return now;
}

/** A photo with pending commands on top; the same object where there are none. */
export const photoWith = (photo: SentPhoto, commands: readonly PhotoCommand[]): SentPhoto =>
  applied(photo, commands, (now, command) => ({ ...now, ...applyToPhoto(now, command).change }));

/** A set with pending commands on top. */
export const setWith = (set: PhotoSet, commands: readonly Command[]): PhotoSet =>
  applied(set, commands, (now, command) =>
    command.kind === 'set' ? { ...now, ...applyToSet(now, command).change } : now,
  );

/** A site with pending commands on top. */
export const siteWith = (site: Site, commands: readonly Command[]): Site =>
  applied(site, commands, (now, command) => (isSiteCommand(command) ? applyToSite(now, command).site : now));

/** Pending commands by the photos that they change; a photo whose commands are the same keeps its list. */
export function byPhoto(
  commands: readonly Command[],
  before: ReadonlyMap<number, readonly PhotoCommand[]>,
): Map<number, readonly PhotoCommand[]> {
  const found = new Map<number, PhotoCommand[]>();
  for (const command of commands) {
    if (!isPhotoCommand(command)) continue;
    const list = found.get(command.photo);
    if (list) list.push(command);
    else found.set(command.photo, [command]);
  }
  const result = new Map<number, readonly PhotoCommand[]>();
  for (const [id, list] of found) {
    const old = before.get(id);
    const same = old?.length === list.length && list.every((command, at) => command === old[at]);
    result.set(id, same ? old : list);
  }
  return result;
}
