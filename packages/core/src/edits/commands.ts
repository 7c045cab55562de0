// Every change an editor makes, as a command: plain data that names what becomes of what.
import type {
  FocalPoint,
  Frame,
  Language,
  Placement,
  QualityDecision,
  Rect,
  SetDecisions,
  ShapeId,
  SiteDecisions,
  Slot,
  SlotId,
  Words,
} from '../contract/index.ts';

export type PhotoCommand =
  | { kind: 'focal'; photo: number; focal: FocalPoint }
  | { kind: 'crop'; photo: number; shape: ShapeId; crop: Rect | null }
  /** The whole frame: turns and straightening move focal point and crops along. */
  | { kind: 'frame'; photo: number; frame: Frame }
  /** Who changes a word has read the others, too: `toRead` is then false, as where it is left out. */
  | { kind: 'words'; photo: number; language: Language; words: Partial<Words>; toRead?: boolean }
  /** Another original, by its hash, takes the place of the photo's. */
  | { kind: 'original'; photo: number; original: string; fileName: string; frame: Frame; toRead: boolean }
  | { kind: 'quality'; photo: number; slot: SlotId; decision: QualityDecision | null }
  /** Where it stands in this set. */
  | { kind: 'placements'; photo: number; placements: Placement[] | null }
  /** Its place in this set's order. It names no other photo, so that it holds whichever come and go. */
  | { kind: 'position'; photo: number; position: string }
  | { kind: 'bin'; photo: number; binned: boolean };

export type SetCommand = { kind: 'set'; change: Partial<SetDecisions> };

export type SiteCommand =
  | { kind: 'site'; change: Partial<SiteDecisions> }
  /** A place as it is to be; null for none. */
  | { kind: 'slot'; slot: SlotId; value: Slot | null };

export type Command = PhotoCommand | SetCommand | SiteCommand;

/** An edit: commands that are carried out, and taken back, together. */
export interface Edit {
  label: string;
  commands: Command[];
}

/** The versions an editor saw when an edit was made. */
export interface SeenVersions {
  /** By photo, for each that the edit changes. */
  photos: Record<number, number>;
  /** Where the edit changes the set. */
  set?: number;
  /** Where the edit changes the site. */
  site?: number;
}

/** An edit as a window sends it. */
export interface SentEdit extends Edit {
  seen: SeenVersions;
  /** Names the edit: sent twice, it is carried out once. */
  token: string;
  /** Names the window that made it. */
  window: string;
}

export const isPhotoCommand = (command: Command): command is PhotoCommand => 'photo' in command;
export const isSiteCommand = (command: Command): command is SiteCommand =>
  command.kind === 'site' || command.kind === 'slot';

/** Raised when a command can't be carried out; the message is a sentence for the editor. */
export class CommandError extends Error {}
