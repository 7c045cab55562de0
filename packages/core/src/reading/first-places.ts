// Opens places in a set that was just made, for programs: an editor takes what is proposed, or says it photo by photo.
import type { SlotId } from '../contract/index.ts';
import type { SentEdit } from '../edits/commands.ts';

/** The edit that opens places to every photo of a new set, which is at its first version. @param token names the edit */
export const firstPlaces = (slots: readonly SlotId[], token: string): SentEdit & { since: number } => ({
  label: 'places of the set',
  commands: [{ kind: 'set', change: { slots: [...slots], arranged: true } }],
  seen: { photos: {}, set: 1 },
  token,
  window: 'a-program',
  since: 0,
});
