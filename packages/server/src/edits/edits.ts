// Carries out edits: one transaction writes the change, its inverse, what it touched, and who and when. From that come
// autosave, undo and redo that survive a reload, and the 409 where somebody else was there in between.
import {
  applyToPhoto,
  applyToSet,
  CommandError,
  isPhotoCommand,
  isSiteCommand,
  touchedBy,
  type Command,
  type Photo,
  type PhotoChange,
  type SentEdit,
  type SetCommand,
  type Site,
} from '@dusky-otter/core';
import type { Sequelize, Transaction } from 'sequelize';
import { ArrangementModel, EditModel, SetModel } from '../database/models.ts';
import { patiently } from '../database/patience.ts';
import { ProblemError } from '../problems.ts';
import { listFor, loadPhotos, wordsIn, writePhotos, writeWords } from '../sets/photos.ts';
import { replacementsIn } from '../sets/originals.ts';
import { findSet, photoSetOf, redoable, undoable, type Looking } from '../sets/sets.ts';
import type { SiteBook } from '../sites/site-book.ts';
import { Touches, type Versions } from './touches.ts';
import { mergeTyping } from './typing.ts';

/** What an edit changed. */
export interface Outcome {
  photoIds: number[];
  site: boolean;
  /** Which lists of the set are open. */
  slots: boolean;
  /** A file that was offered took its place. */
  originals: boolean;
}

/** What a transaction works on: locked, so that nobody else changes it in between. */
interface Work {
  set: SetModel;
  site: Site;
  photos: Map<number, Photo>;
  t: Transaction;
}

const photoIdsOf = (commands: readonly Command[]): number[] => [
  ...new Set(commands.filter(isPhotoCommand).map(({ photo }) => photo)),
];

async function writeSet({ set, t }: Work, command: SetCommand): Promise<Command> {
  const { change, inverse } = applyToSet(await photoSetOf(set, { transaction: t }), command);
  const { slots, ...own } = change;
  await set.update({ ...own }, { transaction: t });
  if (slots) {
    for (const slot of slots) await listFor(set, slot, t);
    const lists = await ArrangementModel.findAll({ where: { setId: set.id, kind: 'list' }, transaction: t });
    for (const list of lists) {
      const open = slots.includes(list.options.slot);
      if (list.open !== open) await list.update({ open, version: list.version + 1 }, { transaction: t });
    }
  }
  return inverse;
}

/** What was rehearsed or handed over is no longer what there is, unless the commands say no more than that. */
function putsOutOfDate(commands: readonly Command[]): boolean {
  const says = (command: Command) =>
    command.kind === 'set' &&
    Object.keys(command.change).every((key) => key === 'rehearsed' || key === 'away');
  return !commands.every(says);
}

export class Edits {
  private readonly touches = new Touches();

  constructor(
    private readonly sequelize: Sequelize,
    private readonly sites: SiteBook,
  ) {}

  /**
   * Carries out an edit; one that was carried out already is not carried out again.
   * @returns what it changed
   * @throws ProblemError stale, version-missing, impossible-edit, no-such-set, no-such-photo
   */
  async perform(setId: number, edit: SentEdit, who: string): Promise<Outcome> {
    const { commands, token, window, label } = edit;
    return this.change(setId, commands, async (work) => {
      const { t } = work;
      const done = await EditModel.findOne({ where: { token }, transaction: t });
      if (done) return this.outcomeOf(done.commands);
      await this.touches.check(touchedBy(commands, this.place(work)), this.versionsOf(work), edit, t);
      const inverse = await this.carryOut(work, commands);
      // What this window took back before can't be done again behind it.
      await EditModel.update(
        { undoneWindow: null },
        { where: redoable(setId, { window, since: 0 }), transaction: t, silent: true },
      );
      const last = await EditModel.findOne({ where: { setId }, order: [['id', 'DESC']], transaction: t });
      const merged = last && mergeTyping(last, edit, Date.now());
      if (last && merged) await last.update({ commands: merged, token }, { transaction: t });
      const made =
        last && merged
          ? last
          : await EditModel.create(
              { setId, label, commands, inverse, who, token, window },
              { transaction: t },
            );
      await this.touches.write(
        made.id,
        touchedBy(commands, this.place(work)),
        this.versionsOf(work),
        window,
        t,
      );
      return this.outcomeOf(commands);
    });
  }

  /**
   * Takes back the newest edit that a window may take back.
   * @throws ProblemError nothing-to-undo; changed-since where somebody else changed the same afterwards
   */
  undo(setId: number, looking: Looking): Promise<Outcome> {
    return this.step(setId, looking, 'undo');
  }

  /** Does the edit again that the window took back last. @throws ProblemError nothing-to-redo, changed-since */
  redo(setId: number, looking: Looking): Promise<Outcome> {
    return this.step(setId, looking, 'redo');
  }

  private async step(setId: number, looking: Looking, direction: 'undo' | 'redo'): Promise<Outcome> {
    const back = direction === 'undo';
    const find = () =>
      EditModel.findOne({
        where: back ? undoable(setId, looking) : redoable(setId, looking),
        order: [['id', back ? 'DESC' : 'ASC']],
      });
    const commandsOf = (edit: EditModel) => (back ? edit.inverse : edit.commands);
    for (;;) {
      const found = await find();
      if (!found) throw new ProblemError(back ? 'nothing-to-undo' : 'nothing-to-redo');
      const commands = commandsOf(found);
      const outcome = await this.change(setId, commands, async (work) => {
        const { t } = work;
        const edit = await EditModel.findByPk(found.id, { transaction: t, lock: true });
        // Somebody was quicker, with this edit or another: it is looked for again.
        if (edit?.undone !== found.undone || edit.updatedAt.getTime() !== found.updatedAt.getTime())
          return null;
        await this.touches.checkStep(edit.id, looking.window, edit.label, t);
        await this.carryOut(work, commands);
        await edit.update({ undone: back, undoneWindow: back ? looking.window : null }, { transaction: t });
        await this.touches.write(
          edit.id,
          touchedBy(edit.commands, this.place(work)),
          this.versionsOf(work),
          looking.window,
          t,
        );
        return this.outcomeOf(commands);
      });
      if (outcome) return outcome;
    }
  }

  private place({ set, site }: Work): { set: number; site: number } {
    return { set: set.id, site: site.id };
  }

  private versionsOf({ set, site, photos }: Work): Versions {
    return {
      photo: (id) => photos.get(id)?.version,
      set: () => set.version,
      site: () => site.version,
    };
  }

  private outcomeOf(commands: readonly Command[]): Outcome {
    return {
      photoIds: photoIdsOf(commands),
      site: commands.some(isSiteCommand),
      slots: commands.some((command) => command.kind === 'set' && 'slots' in command.change),
      originals: commands.some(({ kind }) => kind === 'original'),
    };
  }

  /**
   * Locks what commands change, always in the same order: the set, its site, then photos by id. Edits of one set
   * follow each other, and so do edits of one photo that stands in several sets.
   */
  private async change<T extends Outcome | null>(
    setId: number,
    commands: readonly Command[],
    body: (work: Work) => Promise<T>,
  ): Promise<T> {
    try {
      return await patiently(() =>
        this.sequelize.transaction(async (t) => {
          const set = await findSet(setId, { transaction: t, lock: true });
          const site = commands.some(isSiteCommand)
            ? await this.sites.locked(set.siteId, t)
            : await this.sites.get(set.siteId, { transaction: t });
          const ids = photoIdsOf(commands);
          const photos = await loadPhotos(setId, site.languages[0]!, ids, { transaction: t, lock: true });
          return body({ set, site, photos: new Map(photos.map((photo) => [photo.id, photo])), t });
        }),
      );
    } catch (error) {
      if (error instanceof CommandError) throw new ProblemError('impossible-edit', error.message);
      throw error;
    }
  }

  /** Words in a language that photos are not shown in: read, changed and written by themselves. */
  private async writeOtherWords(
    { site, t }: Work,
    photo: Photo,
    command: Extract<Command, { kind: 'words' }>,
  ): Promise<Command> {
    const { language } = command;
    if (!site.languages.includes(language)) throw new CommandError('The site has no such language.');
    const { change, inverse } = applyToPhoto(
      { ...photo, words: await wordsIn(photo.id, language, t) },
      command,
    );
    await writeWords(photo.id, language, change.words!, t);
    return inverse;
  }

  /** Applies commands in order; each sees what the ones before it did. @returns the commands that take them back */
  private async carryOut(work: Work, commands: readonly Command[]): Promise<Command[]> {
    const { set, photos, t } = work;
    const inverse: Command[] = [];
    const changes = new Map<number, PhotoChange>();
    const language = work.site.languages[0]!;
    const replacements = await replacementsIn(commands, t);
    for (const command of commands) {
      if (isSiteCommand(command)) {
        const written = await this.sites.write(work.site, command, t);
        work.site = written.site;
        inverse.unshift(written.inverse);
      } else if (!isPhotoCommand(command)) {
        inverse.unshift(await writeSet(work, command));
      } else {
        const photo = photos.get(command.photo);
        if (!photo) throw new ProblemError('no-such-photo');
        if (command.kind === 'words' && command.language !== language) {
          inverse.unshift(await this.writeOtherWords(work, photo, command));
          changes.set(photo.id, { ...changes.get(photo.id) });
          continue;
        }
        const applied = applyToPhoto(photo, command, replacements(photo.id));
        photos.set(photo.id, { ...photo, ...applied.change });
        changes.set(photo.id, { ...changes.get(photo.id), ...applied.change });
        inverse.unshift(applied.inverse);
      }
    }
    await writePhotos(set, language, changes, t);
    for (const id of changes.keys())
      photos.set(id, { ...photos.get(id)!, version: photos.get(id)!.version + 1 });
    const changesSet = commands.some(({ kind }) => kind === 'set');
    await set.update(
      {
        workedAt: new Date(),
        ...(changesSet && { version: set.version + 1 }),
        ...(putsOutOfDate(commands) && {
          // An edit may say itself that the page was rehearsed.
          handedOver: false,
          ...(!commands.some((c) => c.kind === 'set' && 'rehearsed' in c.change) && { rehearsed: false }),
        }),
      },
      { transaction: t },
    );
    return inverse;
  }
}
