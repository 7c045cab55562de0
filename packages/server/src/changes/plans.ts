// Plans: words that a table has for files which are not in a set yet. They are kept, and given to the photos as they come.
import { randomUUID } from 'node:crypto';
import type { Words } from '@dusky-otter/core/contract';
import { touchedBy, type Command } from '@dusky-otter/core/edits';
import { comparedName, NO_WORDS, placesMeant, wordsChange, type PlannedWords } from '@dusky-otter/core/words';
import { inParts } from '../database/in-parts.ts';
import { EditModel, MembershipModel, type PhotoModel } from '../database/models.ts';
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

/** What waits for a file, by its hash or its name. */
async function waitingFor({ set, t }: SetWork, { originalHash, fileName }: PhotoModel) {
  const name = comparedName(fileName).slice(0, 255);
  const find = (where: { hash: string; name?: string }) =>
    PlannedWordsModel.findOne({ where: { setId: set.id, ...where }, transaction: t, lock: true });
  return (await find({ hash: originalHash })) ?? (await find({ hash: '', name }));
}

/** The window that plans speak in: nobody's, so that what they say stands in everybody's way who saw it otherwise. */
const PLAN = 'plan';

/**
 * Words of a photo that other sets show are changed as by an edit: at a version of its own, with what was touched.
 * @param photo held
 */
async function describeShared(
  work: SetWork,
  photo: PhotoModel,
  before: Words,
  added: Partial<Words>,
): Promise<void> {
  const { t, set, site } = work;
  const [language] = site.languages;
  await writeWords(new Map([[photo.id, { ...before, ...added }]]), language!, t);
  await photo.increment('version', { transaction: t });
  const now = Object.fromEntries(
    (Object.keys(added) as (keyof Words)[]).map((part) => [part, before[part]]),
  ) as Partial<Words>;
  const said = (words: Partial<Words>): Command[] => [
    { kind: 'words', photo: photo.id, language: language!, words },
  ];
  const edit = await EditModel.create(
    {
      setId: set.id,
      label: `words from a table for ${photo.fileName}`.slice(0, 300),
      commands: said(added),
      inverse: said(now),
      who: 'editor',
      token: randomUUID(),
      window: PLAN,
    },
    { transaction: t },
  );
  const version = photo.version + 1;
  const versions = { photo: () => version, set: () => set.version, site: () => site.version };
  await writeTouches(edit.id, touchedBy(said(added), { set: set.id, site: site.id }), versions, PLAN, t);
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
  const language = site.languages[0]!;
  const now =
    (await wordsOfPhotos([photo.id], language, { transaction: t, lock: true })).get(photo.id) ?? NO_WORDS;
  const { added, conflicts } = wordsChange(now, plan.words);
  if (!described) await writeWords(new Map([[photo.id, { ...now, ...added, ...conflicts }]]), language, t);
  else if (Object.keys(added).length > 0) await describeShared(work, photo, now, added);
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
