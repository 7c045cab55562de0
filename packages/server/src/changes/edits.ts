// Carries out edits: one transaction writes the change, its inverse, what it touched, and who and when. From that come
// autosave, undo and redo that survive a reload, and the 409 where somebody else was there in between.
import type { Language, Photo, PhotoChange, PhotoSet, Site, Words } from '@dusky-otter/core/contract';
import {
  applyToPhoto,
  applyToSet,
  CommandError,
  isPhotoCommand,
  isSiteCommand,
  touchedBy,
  type Command,
  type SentEdit,
  type SetCommand,
} from '@dusky-otter/core/edits';
import { plansAlike, setPlacesOf } from '@dusky-otter/core/plan';
import { NO_WORDS } from '@dusky-otter/core/words';
import { EditModel, type PhotoModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';
import { writeOpenSlots } from '../store/placements.ts';
import { loadPhotos, writePhotos } from '../store/photos.ts';
import { photoSetOf, redoable, undoable, type Looking } from '../store/sets.ts';
import { wordsOfPhotos, writeWords } from '../store/words.ts';
import type { Changes, Done, SetWork } from './changes.ts';
import type { Effects } from './effects.ts';
import { noteReplaced, replacementsIn } from './replacing.ts';
import { carryOutOnSite } from './sites.ts';
import { checkStep, checkTouched, writeTouches, type Versions } from './touches.ts';
import { isUnseen, outdateBy } from './outdated.ts';
import { mergeTyping } from './typing.ts';

type WordsCommand = Extract<Command, { kind: 'words' }>;

const photoIdsOf = (commands: readonly Command[]): number[] => [
  ...new Set(commands.filter(isPhotoCommand).map(({ photo }) => photo)),
];

/** What was rehearsed or handed over is no longer what there is, unless the commands say no more than that. */
function putsOutOfDate(commands: readonly Command[]): boolean {
  const says = (command: Command) =>
    (command.kind === 'site' && isUnseen(command.change)) ||
    (command.kind === 'set' &&
      Object.keys(command.change).every((key) => key === 'rehearsed' || key === 'archived'));
  return !commands.every(says);
}

/** The same for sets in which the same is seen: what a page says beside its places, and their order on it, plans nothing. */
function seenIn(set: PhotoSet): string {
  const { open, shown } = setPlacesOf(set);
  return JSON.stringify([open, shown?.toSorted() ?? null]);
}

/** Decisions that an edit works on, as they are at each of its steps; everything of them is held. */
class Desk {
  readonly photos: Map<number, Photo>;
  private readonly changes = new Map<number, PhotoChange>();
  /** Words in languages that photos are not shown in, by language and photo. */
  private readonly otherWords = new Map<Language, Map<number, Words>>();
  /** Photos of the set are seen in other places than before. */
  private placesChanged = false;
  /** Sets in which less is offered than before. */
  private offersIn: number[] = [];

  private constructor(
    readonly work: SetWork,
    public site: Site,
    photos: readonly Photo[],
    private readonly rows: ReadonlyMap<number, PhotoModel>,
  ) {
    this.photos = new Map(photos.map((photo) => [photo.id, photo]));
  }

  static async of(work: SetWork, commands: readonly Command[]): Promise<Desk> {
    const ids = photoIdsOf(commands);
    const reading = { transaction: work.t, lock: true };
    const rows = await work.photos(ids);
    const photos =
      ids.length === 0 ? [] : await loadPhotos(work.set.id, work.site.languages[0]!, ids, reading);
    return new Desk(work, work.site, photos, rows);
  }

  get versions(): Versions {
    const { photos, work } = this;
    return {
      photo: (id) => photos.get(id)?.version,
      set: () => work.set.version,
      site: () => this.site.version,
    };
  }

  touched(commands: readonly Command[]) {
    return touchedBy(commands, { set: this.work.set.id, site: this.site.id });
  }

  private async onSet(command: SetCommand): Promise<Command> {
    const { set, t } = this.work;
    const before = await photoSetOf(set, { transaction: t });
    const { change, inverse } = applyToSet(before, command);
    this.placesChanged ||= seenIn(before) !== seenIn({ ...before, ...change });
    const { slots, ...own } = change;
    await set.update({ ...own }, { transaction: t });
    if (slots) await writeOpenSlots(set.id, slots, t);
    return inverse;
  }

  /** Words in a language that photos are not shown in are read, changed and written by themselves. */
  private async readOtherWords(commands: readonly Command[]): Promise<void> {
    const shown = this.work.site.languages[0]!;
    const isOther = (command: Command): command is WordsCommand =>
      command.kind === 'words' && command.language !== shown;
    const others = commands.filter(isOther);
    for (const language of new Set(others.map((command) => command.language))) {
      const ids = others.filter((command) => command.language === language).map(({ photo }) => photo);
      this.otherWords.set(
        language,
        await wordsOfPhotos(ids, language, { transaction: this.work.t, lock: true }),
      );
    }
  }

  private onOtherWords(photo: Photo, command: WordsCommand): Command {
    const { language } = command;
    if (!this.site.languages.includes(language)) throw new CommandError('The site has no such language.');
    const words = this.otherWords.get(language)!;
    const { change, inverse } = applyToPhoto({ ...photo, words: words.get(photo.id) ?? NO_WORDS }, command);
    words.set(photo.id, change.words!);
    return inverse;
  }

  /** Applies commands in order; each sees what the ones before it did. @returns the commands that take them back */
  async carryOut(commands: readonly Command[]): Promise<Command[]> {
    const { work, photos, changes } = this;
    const inverse: Command[] = [];
    const replacements = await replacementsIn(commands, work);
    await this.readOtherWords(commands);
    for (const command of commands) {
      if (isSiteCommand(command)) {
        const written = await carryOutOnSite(this.site, command, work.t);
        this.site = written.site;
        inverse.push(written.inverse);
        continue;
      }
      if (!isPhotoCommand(command)) {
        inverse.push(await this.onSet(command));
        continue;
      }
      const photo = photos.get(command.photo);
      if (!photo) throw new ProblemError('no-such-photo');
      if (command.kind === 'words' && command.language !== work.site.languages[0]) {
        inverse.push(this.onOtherWords(photo, command));
        changes.set(photo.id, { ...changes.get(photo.id) });
        continue;
      }
      const applied = applyToPhoto(photo, command, replacements(photo.id));
      photos.set(photo.id, { ...photo, ...applied.change });
      changes.set(photo.id, { ...changes.get(photo.id), ...applied.change });
      inverse.push(applied.inverse);
    }
    await this.write(commands);
    return inverse.reverse();
  }

  private async write(commands: readonly Command[]): Promise<void> {
    const { work, photos, changes, rows } = this;
    const { set, t } = work;
    const replaced = [...changes].flatMap(([id, { original }]) => {
      const photo = rows.get(id);
      return original && photo ? [{ photo, hash: original.hash }] : [];
    });
    this.offersIn = await noteReplaced(set.siteId, replaced, t);
    await writePhotos(set, [...photos.values()], changes, work.site.languages[0]!, t);
    for (const [language, words] of this.otherWords) await writeWords(words, language, t);
    for (const id of changes.keys())
      photos.set(id, { ...photos.get(id)!, version: photos.get(id)!.version + 1 });
    await set.update(
      {
        workedAt: new Date(),
        ...(commands.some(({ kind }) => kind === 'set') && { version: set.version + 1 }),
        ...(putsOutOfDate(commands) && {
          // An edit may say itself that the page was rehearsed.
          handedOver: false,
          ...(!commands.some((c) => c.kind === 'set' && 'rehearsed' in c.change) && { rehearsed: false }),
        }),
      },
      { transaction: t },
    );
    if (putsOutOfDate(commands)) await work.othersChanged();
    const onSite = commands.filter(isSiteCommand);
    // What the set itself is now was written above.
    if (onSite.length > 0)
      for (const id of await outdateBy(set.siteId, t, onSite, set.id)) work.outdated.add(id);
  }

  effectsOf(commands: readonly Command[]): Effects {
    const { set, site } = this.work;
    return {
      sets: [set.id],
      photos: photoIdsOf(commands),
      ...(commands.some(isSiteCommand) && { site: { id: site.id, plans: !plansAlike(site, this.site) } }),
      ...(this.placesChanged && { slots: [set.id] }),
      offers: this.offersIn,
    };
  }
}

/** What an edit changed: the photos of its set. */
export interface Edited {
  photoIds: number[];
}

export class Edits {
  constructor(private readonly changes: Changes) {}

  /**
   * Carries out an edit; one that was carried out already is not carried out again.
   * @throws ProblemError stale, version-missing, impossible-edit, no-such-set, no-such-photo
   */
  perform(setId: number, edit: SentEdit, who: string): Promise<Edited> {
    const { commands, token, window, label } = edit;
    const body = async (work: SetWork) => {
      const { t } = work;
      const done = await EditModel.findOne({ where: { token }, transaction: t });
      const answer = { photoIds: photoIdsOf(done?.commands ?? commands) };
      if (done) return { answer, effects: {} };
      const desk = await Desk.of(work, commands);
      await checkTouched(desk.touched(commands), desk.versions, edit, t);
      const inverse = await desk.carryOut(commands);
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
      await writeTouches(made.id, desk.touched(commands), desk.versions, window, t);
      return { answer, effects: desk.effectsOf(commands) };
    };
    return this.changes.inSet(setId, body, { token, forSite: holdsSite(commands) });
  }

  /**
   * Takes back the newest edit that a window may take back.
   * @throws ProblemError nothing-to-undo; changed-since where somebody else changed the same afterwards
   */
  undo(setId: number, looking: Looking, token?: string): Promise<Edited> {
    return this.step(setId, looking, 'undo', token);
  }

  /** Does the edit again that the window took back last. @throws ProblemError nothing-to-redo, changed-since */
  redo(setId: number, looking: Looking, token?: string): Promise<Edited> {
    return this.step(setId, looking, 'redo', token);
  }

  private async step(
    setId: number,
    looking: Looking,
    direction: 'undo' | 'redo',
    token?: string,
  ): Promise<Edited> {
    const back = direction === 'undo';
    const where = back ? undoable(setId, looking) : redoable(setId, looking);
    const order: [string, string][] = [['id', back ? 'DESC' : 'ASC']];
    const commandsOf = (edit: EditModel) => (back ? edit.inverse : edit.commands);
    const body =
      (forSite: boolean) =>
      async (work: SetWork): Promise<Done<Edited>> => {
        const { t } = work;
        const edit = await EditModel.findOne({ where, order, transaction: t, lock: true });
        if (!edit) throw new ProblemError(back ? 'nothing-to-undo' : 'nothing-to-redo');
        const commands = commandsOf(edit);
        if (holdsSite(commands) && !forSite) throw new NeedsSite();
        await checkStep(edit.id, looking.window, edit.label, t);
        const desk = await Desk.of(work, commands);
        await desk.carryOut(commands);
        await edit.update({ undone: back, undoneWindow: back ? looking.window : null }, { transaction: t });
        await writeTouches(edit.id, desk.touched(edit.commands), desk.versions, looking.window, t);
        return { answer: { photoIds: photoIdsOf(commands) }, effects: desk.effectsOf(commands) };
      };
    const held = token === undefined ? {} : { token };
    try {
      return await this.changes.inSet(setId, body(false), held);
    } catch (error) {
      // Which edit it is, is known once the set is held; a site is held before its sets.
      if (!(error instanceof NeedsSite)) throw error;
      return this.changes.inSet(setId, body(true), { ...held, forSite: true });
    }
  }
}

/** Places and rules, and whose picture a file is, are the site's. */
const holdsSite = (commands: readonly Command[]): boolean =>
  commands.some((command) => isSiteCommand(command) || command.kind === 'original');

/** An edit turned out to change its site. */
class NeedsSite extends Error {}
