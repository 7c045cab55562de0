// Plans: words that a table has for files which are not in a set yet. They are kept, and given to the photos as they come.
import { randomUUID } from 'node:crypto';
import type { FoundWords, Language, Words } from '@dusky-otter/core/contract';
import { touchedBy, type Command } from '@dusky-otter/core/edits';
import {
  comparedName,
  firstWords,
  furtherWords,
  isSidecarOf,
  NO_WORDS,
  placesMeant,
  wordsChange,
  type PlannedWords,
} from '@dusky-otter/core/words';
import { inParts } from '../database/in-parts.ts';
import { EditModel, MembershipModel, PhotoModel } from '../database/models.ts';
import { PlannedWordsModel } from '../database/words-models.ts';
import { writePlacements } from '../store/placements.ts';
import { wordsOfPhotos, writeWords } from '../store/words.ts';
import type { Changes, SetWork } from './changes.ts';
import { writeTouches } from './touches.ts';

/** Keeps lines for photos that are still to come; a line for the same file replaces the one before. @returns how many */
export const keepPlan = (changes: Changes, setId: number, lines: readonly PlannedWords[]): Promise<number> =>
  changes.inSet(setId, async ({ t }) => {
    const rows = lines.map(({ fileName, hash, words, places }) => ({
      setId,
      fileName,
      name: comparedName(fileName).slice(0, 255),
      hash,
      words,
      places,
    }));
    for (const part of inParts(rows))
      await PlannedWordsModel.bulkCreate(part, {
        transaction: t,
        updateOnDuplicate: ['fileName', 'words', 'places'],
      });
    return { answer: rows.length, effects: {} };
  });

/** Forgets what waits for photos that are still to come. @returns how many lines went */
export const dropPlan = (changes: Changes, setId: number): Promise<number> =>
  changes.inSet(setId, async ({ t }) => ({
    answer: await PlannedWordsModel.destroy({ where: { setId }, transaction: t }),
    effects: {},
  }));

/** Stands in the place of a hash where words wait for a file of a name with whatever ending. */
const ANY_ENDING = 'any ending';

const withoutEnding = (name: string): string => name.replace(/\.[^.]+$/, '');

/** What waits for a file, by its hash or its name; that of a table goes before that of a file beside it. */
async function waitingFor({ set, t }: SetWork, { originalHash, fileName }: PhotoModel) {
  const name = comparedName(fileName);
  const find = (where: { hash: string; name?: string }) =>
    PlannedWordsModel.findOne({ where: { setId: set.id, ...where }, transaction: t, lock: true });
  return (
    (await find({ hash: originalHash })) ??
    (await find({ hash: '', name: name.slice(0, 255) })) ??
    (await find({ hash: ANY_ENDING, name: name.slice(0, 255) })) ??
    (await find({ hash: ANY_ENDING, name: withoutEnding(name).slice(0, 255) }))
  );
}

/** The window that plans speak in: nobody's, so that what they say stands in everybody's way who saw it otherwise. */
const PLAN = 'plan';

/** What is written of a photo in one language: its words before, and what is added to them. */
interface Added {
  before: Words;
  added: Partial<Words>;
}

/**
 * Words of a photo that other sets show are changed as by an edit: at a version of its own, with what was touched.
 * @param photo held
 */
async function describeShared(
  work: SetWork,
  photo: PhotoModel,
  texts: ReadonlyMap<Language, Added>,
  from: string,
): Promise<void> {
  const { t, set, site } = work;
  const commands: Command[] = [];
  const inverse: Command[] = [];
  for (const [language, { before, added }] of texts) {
    await writeWords(new Map([[photo.id, { ...before, ...added }]]), language, t);
    const now = Object.fromEntries(
      (Object.keys(added) as (keyof Words)[]).map((part) => [part, before[part]]),
    ) as Partial<Words>;
    commands.push({ kind: 'words', photo: photo.id, language, words: added });
    inverse.push({ kind: 'words', photo: photo.id, language, words: now });
  }
  await photo.increment('version', { transaction: t });
  const edit = await EditModel.create(
    {
      setId: set.id,
      label: `words from ${from} for ${photo.fileName}`.slice(0, 300),
      commands,
      inverse,
      who: 'editor',
      token: randomUUID(),
      window: PLAN,
    },
    { transaction: t },
  );
  const version = photo.version + 1;
  const versions = { photo: () => version, set: () => set.version, site: () => site.version };
  await writeTouches(edit.id, touchedBy(commands, { set: set.id, site: site.id }), versions, PLAN, t);
}

const wordsNow = async ({ t }: SetWork, photo: PhotoModel, language: Language): Promise<Words> =>
  (await wordsOfPhotos([photo.id], language, { transaction: t, lock: true })).get(photo.id) ?? NO_WORDS;

/** What is not said yet of a photo, in each language in which there is something. */
async function notSaid(
  work: SetWork,
  photo: PhotoModel,
  said: ReadonlyMap<Language, Partial<Words>>,
): Promise<Map<Language, Added>> {
  const texts = new Map<Language, Added>();
  for (const [language, words] of said) {
    const before = await wordsNow(work, photo, language);
    const { added } = wordsChange(before, words);
    if (Object.keys(added).length > 0) texts.set(language, { before, added });
  }
  return texts;
}

/**
 * Gives a photo that has come into a set what a plan has for it; the plan then waits no more. It was written for this
 * page, and goes before what the file says of itself; of a photo that others have described already nothing is changed.
 * @param photo held
 * @param described it stood in the site before
 */
export async function followPlan(work: SetWork, photo: PhotoModel, described: boolean): Promise<void> {
  const plan = await waitingFor(work, photo);
  if (!plan) return;
  const { t, set, site } = work;
  const said = new Map<Language, Partial<Words>>([
    [site.languages[0]!, plan.words],
    ...furtherWords({ ...NO_WORDS, others: plan.others ?? {} }, site.languages),
  ]);
  if (described) {
    const texts = await notSaid(work, photo, said);
    if (texts.size > 0)
      await describeShared(work, photo, texts, plan.hash === ANY_ENDING ? plan.fileName : 'a table');
  } else
    for (const [language, words] of said) {
      const now = await wordsNow(work, photo, language);
      const { added, conflicts } = wordsChange(now, words);
      await writeWords(new Map([[photo.id, { ...now, ...added, ...conflicts }]]), language, t);
    }
  // Names that no place of the site has are left out.
  const { slots } = plan.places ? placesMeant(plan.places, site.slots) : { slots: [] };
  if (slots.length > 0) {
    const own = slots.map((slot) => ({ slot, link: '', words: {}, crops: {} }));
    await writePlacements(set.id, new Map([[photo.id, own]]), t);
    await MembershipModel.update(
      { follows: false },
      { where: { setId: set.id, photoId: photo.id }, transaction: t },
    );
  }
  await plan.destroy({ transaction: t });
}

/**
 * Words of a file that lies beside a photo: given to the photos of its name, where they say nothing yet, or kept for one
 * that is still to come.
 * @returns file names of the photos that are here
 */
export const takeSidecar = (
  changes: Changes,
  setId: number,
  fileName: string,
  found: FoundWords,
): Promise<string[]> =>
  changes.inSet(setId, async (work) => {
    const { t, site } = work;
    const standing = await MembershipModel.findAll({ where: { setId, binned: false }, transaction: t });
    const known = await PhotoModel.findAll({
      where: { id: standing.map(({ photoId }) => photoId) },
      attributes: ['id', 'fileName'],
      transaction: t,
    });
    const meant = known.filter((photo) => isSidecarOf(fileName, photo.fileName)).map(({ id }) => id);
    const [main = 'en'] = site.languages;
    const first = firstWords(found, main);
    if (meant.length === 0) {
      const name = comparedName(fileName).replace(/\.xmp$/, '');
      const row = { setId, fileName, name: name.slice(0, 255), hash: ANY_ENDING };
      const words = Object.fromEntries(
        Object.entries(first).filter(([, part]) => part !== '' && typeof part === 'string'),
      );
      await PlannedWordsModel.bulkCreate([{ ...row, words, others: found.others ?? null, places: null }], {
        transaction: t,
        updateOnDuplicate: ['fileName', 'words', 'others', 'places'],
      });
      return { answer: [], effects: {} };
    }
    const said = new Map<Language, Partial<Words>>([[main, first], ...furtherWords(found, site.languages)]);
    const held = await work.photos(meant);
    const changed: number[] = [];
    for (const id of meant) {
      const photo = held.get(id);
      const texts = photo ? await notSaid(work, photo, said) : new Map<Language, Added>();
      if (!photo || texts.size === 0) continue;
      await describeShared(work, photo, texts, fileName);
      changed.push(id);
    }
    if (changed.length > 0) await work.pageChanged();
    const answer = [...held.values()].map((photo) => photo.fileName);
    return { answer, effects: changed.length > 0 ? { sets: [setId], photos: changed } : {} };
  });
