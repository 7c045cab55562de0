// What a command makes of a photo, a set or a site, with the command that takes it back. Pure: the server carries out
// what is computed here, and screens show it before it is saved.
import type {
  OriginalFacts,
  Photo,
  PhotoChange,
  Placement,
  PhotoSet,
  SetDecisions,
  Site,
  SlotId,
  Words,
} from '../contract/index.ts';
import { focalProblem, frameCropProblem, frameProblem, listedCrops } from '../geometry/frame.ts';
import { everywhereProblem } from '../page/everywhere.ts';
import { pageProblem } from '../page/page.ts';
import { slotProblem } from '../places/problem.ts';
import { wholePolicy } from '../weight/target.ts';
import { prefixProblem } from '../html/address.ts';
import { lineProblem, othersProblem, textsProblem } from '../html/languages.ts';
import { captionsProblem } from '../html/film.ts';
import { linkProblem } from '../html/link.ts';
import { languagesProblem } from '../words/language-tags.ts';
import { termsProblem } from '../words/terms.ts';
import { NO_WORDS } from '../words/no-words.ts';
import { LONGEST_TEXT } from '../words/text/text.ts';
import { SPOKEN } from '../words/translated.ts';
import { placementIn } from '../plan/plan.ts';
import { CommandError, type PhotoCommand, type SetCommand, type SiteCommand } from './commands.ts';
import { isPosition } from './positions.ts';

/** @throws CommandError with the problem, where there is one */
function refuse(problem: string | null | false | undefined): void {
  if (problem) throw new CommandError(problem);
}

function checkWords(words: Partial<Words>, before: Words): void {
  refuse(words.link !== undefined && linkProblem(words.link));
  const tooLong = (Object.keys(words) as (keyof Words)[]).some((key) => {
    const text = words[key];
    return typeof text === 'string' && text.length > LONGEST_TEXT && text !== before[key];
  });
  refuse(tooLong && `A text is longer than ${LONGEST_TEXT} characters.`);
}

/** What may be said of a photo in one place in each further language; what it is there for hangs on none. */
const TEXTS_HERE = Object.fromEntries(SPOKEN.map((field) => [field, lineProblem(LONGEST_TEXT)]));

function checkPlacements(photo: Photo, placements: readonly Placement[]): void {
  const slots = placements.map(({ slot }) => slot);
  refuse(new Set(slots).size !== slots.length && 'A place is named twice.');
  for (const { link, words, crops, others, captions } of placements) {
    refuse(linkProblem(link));
    checkWords(words, photo.words);
    refuse(othersProblem(others, textsProblem(TEXTS_HERE)));
    refuse(othersProblem(captions, captionsProblem));
    for (const [shape, crop] of listedCrops(crops)) refuse(frameCropProblem(crop, shape, photo));
  }
}

/** A command's texts; edits that an earlier version kept may hold null for "no text". */
function textsOf(words: Partial<Words>): Partial<Words> {
  const said = Object.entries(words).map(([key, text]) => [key, text ?? NO_WORDS[key as keyof Words]]);
  return Object.fromEntries(said) as Partial<Words>;
}

/** The values that a change replaces. */
function before<T extends object>(now: T, change: Partial<T>): Partial<T> {
  const keys = Object.keys(change) as (keyof T)[];
  return Object.fromEntries(keys.map((key) => [key, now[key]])) as Partial<T>;
}

/** A change without parts that are left out; edits that an earlier version kept may hold null for "stays". */
function given<T extends object>(change: T): T {
  const parts = Object.entries(change).filter(([, value]) => value !== null && value !== undefined);
  return Object.fromEntries(parts) as T;
}

/** Whoever changes a word has read the others, too; nothing where that was so before. */
const toReadNow = (photo: Photo, toRead = false): Partial<Pick<Photo, 'toRead'>> =>
  toRead === photo.toRead ? {} : { toRead };

/** Originals that may take a photo's place, by hash. */
export type KnownOriginals = (hash: string) => OriginalFacts | undefined;

/**
 * Carries out a command on a photo.
 * @param originals those that may take its place; none where a screen shows what is not saved yet
 * @returns the changed decisions and the command that takes the change back.
 * @throws CommandError with a sentence when the command makes no sense for this photo.
 */
export function applyToPhoto(
  photo: Photo,
  command: PhotoCommand,
  originals: KnownOriginals = () => undefined,
): { change: PhotoChange; inverse: PhotoCommand } {
  const id = photo.id;
  const { frame } = photo;
  switch (command.kind) {
    case 'focal':
      refuse(focalProblem(command.focal));
      return {
        change: { frame: { ...frame, focal: command.focal } },
        inverse: { kind: 'focal', photo: id, focal: frame.focal },
      };
    case 'crop': {
      const { shape, crop } = command;
      refuse(crop && frameCropProblem(crop, shape, photo));
      const { [shape]: present = null, ...others } = frame.crops;
      return {
        change: { frame: { ...frame, crops: crop ? { ...others, [shape]: crop } : others } },
        inverse: { kind: 'crop', photo: id, shape, crop: present },
      };
    }
    case 'frame':
      refuse(frameProblem(command.frame, photo.original));
      return { change: { frame: command.frame }, inverse: { kind: 'frame', photo: id, frame } };
    case 'words': {
      const { kind, language } = command;
      const words = textsOf(command.words);
      checkWords(words, photo.words);
      return {
        change: { words: { ...photo.words, ...words }, ...toReadNow(photo, command.toRead) },
        inverse: {
          kind,
          photo: id,
          language,
          words: before(photo.words, words),
          ...(photo.toRead && { toRead: true }),
        },
      };
    }
    case 'original': {
      const { fileName, toRead } = command;
      const original = originals(command.original);
      if (!original) throw new CommandError('This file was not offered for the photo; add it once more.');
      refuse(frameProblem(command.frame, original));
      return {
        change: { original, fileName, frame: command.frame, toRead },
        inverse: {
          kind: 'original',
          photo: id,
          original: photo.original.hash,
          fileName: photo.fileName,
          frame,
          toRead: photo.toRead,
        },
      };
    }
    case 'quality': {
      const { slot, decision } = command;
      const { [slot]: present = null, ...others } = photo.quality;
      return {
        change: { quality: decision ? { ...others, [slot]: decision } : others },
        inverse: { kind: 'quality', photo: id, slot, decision: present },
      };
    }
    case 'placements':
      checkPlacements(photo, command.placements ?? []);
      return {
        change: { placements: command.placements },
        inverse: { kind: 'placements', photo: id, placements: photo.placements },
      };
    case 'position':
      refuse(!isPosition(command.position) && 'This is no place in an order.');
      return {
        change: { position: command.position },
        inverse: { kind: 'position', photo: id, position: photo.position },
      };
    case 'bin':
      return {
        change: { binned: command.binned },
        inverse: { kind: 'bin', photo: id, binned: photo.binned },
      };
  }
}

/** Placements in the places of an answer: those that it has keep what is decided there; null follows the set. */
export const placementsFor = (
  photo: Pick<Photo, 'placements'>,
  slots: readonly SlotId[] | null,
): Placement[] | null => slots && slots.map((slot) => placementIn(photo, slot));

/**
 * Carries out a command on a set.
 * @throws CommandError with a sentence.
 */
export function applyToSet(
  set: PhotoSet,
  command: SetCommand,
): { change: Partial<SetDecisions>; inverse: SetCommand } {
  const { page } = command.change;
  // No page is a state of its own, which earlier versions knew nothing of.
  const change = { ...given(command.change), ...(page === null && { page }) };
  refuse(change.name?.trim() === '' && 'A set needs a name.');
  refuse(page && pageProblem(page));
  refuse(change.slots && new Set(change.slots).size !== change.slots.length && 'A place is named twice.');
  return { change, inverse: { kind: 'set', change: before<SetDecisions>(set, change) } };
}

/**
 * Carries out a command on a site.
 * @returns the site as it is then, its version apart, and the command that takes the change back.
 * @throws CommandError with a sentence.
 */
export function applyToSite(site: Site, command: SiteCommand): { site: Site; inverse: SiteCommand } {
  if (command.kind === 'slot') {
    const { slot, value } = command;
    refuse(value && (value.id !== slot ? 'A place keeps its short name.' : slotProblem(value)));
    const at = site.slots.findIndex(({ id }) => id === slot);
    const others = site.slots.filter(({ id }) => id !== slot);
    const slots = value ? others.toSpliced(at < 0 ? others.length : at, 0, value) : others;
    return { site: { ...site, slots }, inverse: { kind: 'slot', slot, value: site.slots[at] ?? null } };
  }
  const change = given(command.change);
  refuse(change.name?.trim() === '' && 'A site needs a name.');
  refuse(change.languages && languagesProblem(change.languages, site.languages));
  refuse(change.policy?.prefix !== undefined && prefixProblem(change.policy.prefix));
  refuse(change.terms && termsProblem(change.terms));
  refuse(change.everywhere && everywhereProblem(change.everywhere));
  refuse(change.devices?.length === 0 && 'A site needs one kind of device at least.');
  // An edit that was kept from before a policy had all its parts leaves the others as they are.
  const policy = change.policy && { policy: { ...site.policy, ...change.policy } };
  return {
    site: { ...site, ...change, ...policy },
    inverse: {
      kind: 'site',
      change: {
        ...before(site, change),
        // A part that was not said before is said now, as what it meant.
        ...(change.policy && {
          policy: { ...before(wholePolicy(site.policy), change.policy), ...site.policy },
        }),
      },
    },
  };
}
