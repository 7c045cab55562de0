// Autosave writes while one types; for undo, the strokes of one text are one edit.
import type { Words } from '@dusky-otter/core/contract';
import type { Command, Edit } from '@dusky-otter/core/edits';

/** Pauses up to this long belong to the same typing, in ms. */
const PAUSE = 8000;

type WordsCommand = Extract<Command, { kind: 'words' }>;

function onlyText(commands: readonly Command[]): WordsCommand | null {
  const [command] = commands;
  return commands.length === 1 && command?.kind === 'words' ? command : null;
}

/**
 * The commands of the last edit with the new text in place, or null when the new edit stands on its own:
 * another photo, another field, another act, another window, undone in between, or after a pause.
 */
export function mergeTyping(
  last: { label: string; commands: Command[]; window: string; undone: boolean; updatedAt: Date },
  edit: Edit & { window: string },
  now: number,
): Command[] | null {
  const before = onlyText(last.commands);
  const after = onlyText(edit.commands);
  if (
    !before ||
    !after ||
    last.undone ||
    last.label !== edit.label ||
    last.window !== edit.window ||
    before.photo !== after.photo
  )
    return null;
  const field = (words: Partial<Words>) => Object.keys(words).sort().join();
  const isChoice = ['role', 'newWindow', 'kept'].some((part) => part in after.words);
  if (field(before.words) !== field(after.words) || isChoice) return null;
  return now - last.updatedAt.getTime() > PAUSE ? null : edit.commands;
}
